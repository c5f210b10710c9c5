package lychnos.core.record;

import java.io.IOException;
import java.util.List;

/**
 * The pack as people read it, as XHTML without further files: figures first, then every endpoint, then how each unit
 * was set, then what is known and accepted. Headings, tables with their heads, and links inside are marked as such, so
 * that a PDF made of it is tagged.
 */
public final class PackHtml {

    /** How large the paper is. */
    public enum Paper {
        A4("A4"),
        LETTER("letter");

        private final String css;

        Paper(String css) {
            this.css = css;
        }
    }

    /** A figure of the first page and what it counts. */
    public record Figure(String number, String of) {}

    /** One line of the table of endpoints. */
    public record Line(
            String unit, String name, String role, String address, String serial, String certificate, String proven) {}

    /**
     * A unit.
     *
     * @param signed by whom and when, and the digest of its record
     * @param how what was done to it, in order
     * @param endpoints of each, what was seen on the rungs of its ladder
     * @param known what was accepted although it is otherwise, and what is open
     */
    public record UnitSheet(
            String name,
            String about,
            String signed,
            List<String> facts,
            List<String> how,
            List<String> endpoints,
            List<String> known) {}

    /** Everything on the first page. */
    public record Front(String title, String by, String digest, List<Figure> figures, List<String> items) {}

    private PackHtml() {}

    /**
     * Writes it.
     *
     * @param font the family that the text is set in
     */
    public static void write(
            Appendable out, Paper paper, String font, Front front, Iterable<Line> lines, Iterable<UnitSheet> units)
            throws IOException {
        out.append("<!DOCTYPE html><html lang=\"en\"><head><title>")
                .append(escaped(front.title))
                .append("</title><meta name=\"subject\" content=\"Management endpoints as they were handed "
                        + "over\"/><meta name=\"author\" content=\"Lychnos\"/><style>\n");
        out.append(STYLE.replace("PAPER", paper.css).replace("FONT", font))
                .append("</style>\n<bookmarks><bookmark name=\"Endpoints\" href=\"#endpoints\"/><bookmark "
                        + "name=\"Units\" href=\"#units\"/></bookmarks></head><body>\n");
        out.append("<h1>")
                .append(escaped(front.title))
                .append("</h1><p class=\"sub\">")
                .append(escaped(front.by))
                .append("<br/>Record <span class=\"mono\">")
                .append(escaped(front.digest))
                .append("</span></p>\n<table class=\"figures\"><tr>");
        for (Figure each : front.figures) {
            out.append("<td><b>")
                    .append(escaped(each.number))
                    .append("</b><br/>")
                    .append(escaped(each.of))
                    .append("</td>");
        }
        out.append("</tr></table>\n");
        list(out, "Open, with a date", front.items);
        out.append("<h2 id=\"endpoints\">Endpoints</h2>\n<table class=\"lines\"><thead><tr><th "
                + "scope=\"col\">Name</th><th scope=\"col\">Role</th><th scope=\"col\">Address</th><th "
                + "scope=\"col\">Serial</th><th scope=\"col\">Certificate</th><th "
                + "scope=\"col\">Proven</th></tr></thead><tbody>\n");
        for (Line each : lines) {
            out.append("<tr><td class=\"mono\"><a href=\"#")
                    .append(id(each.unit))
                    .append("\">")
                    .append(escaped(each.name))
                    .append("</a></td><td>")
                    .append(escaped(each.role))
                    .append("</td><td class=\"mono\">")
                    .append(escaped(each.address))
                    .append("</td><td class=\"mono\">")
                    .append(escaped(each.serial))
                    .append("</td><td class=\"mono\">")
                    .append(escaped(each.certificate))
                    .append("</td><td>")
                    .append(escaped(each.proven))
                    .append("</td></tr>\n");
        }
        out.append("</tbody></table>\n<h2 id=\"units\" class=\"page\">Units</h2>\n");
        for (UnitSheet unit : units) {
            unit(out, unit);
        }
        out.append("</body></html>\n");
    }

    private static void unit(Appendable out, UnitSheet unit) throws IOException {
        out.append("<div class=\"unit\"><h3 id=\"")
                .append(id(unit.name))
                .append("\">")
                .append(escaped(unit.name))
                .append("</h3><p>")
                .append(escaped(unit.about))
                .append("</p><p class=\"sub\">")
                .append(escaped(unit.signed))
                .append("</p>\n");
        list(out, "Values sent", unit.facts);
        list(out, "How it was set", unit.how);
        list(out, "What was seen", unit.endpoints);
        list(out, "Known and accepted", unit.known);
        out.append("<p class=\"sub\"><a href=\"#endpoints\">Back to the endpoints</a></p></div>\n");
    }

    private static void list(Appendable out, String heading, List<String> lines) throws IOException {
        if (lines.isEmpty()) {
            return;
        }
        out.append("<h4>").append(heading).append("</h4><ul>");
        for (String line : lines) {
            out.append("<li>").append(escaped(line)).append("</li>");
        }
        out.append("</ul>\n");
    }

    private static String id(String unit) {
        return "unit-" + unit.replaceAll("[^A-Za-z0-9-]", "-");
    }

    /** Markup is escaped, and what XML cannot hold at all becomes U+FFFD. */
    private static String escaped(String text) {
        StringBuilder safe = new StringBuilder();
        text.codePoints().forEach(letter -> {
            switch (letter) {
                case '&' -> safe.append("&amp;");
                case '<' -> safe.append("&lt;");
                case '>' -> safe.append("&gt;");
                case '"' -> safe.append("&quot;");
                default -> {
                    boolean legal = letter >= ' '
                                    && letter != 0xfffe
                                    && letter != 0xffff
                                    && !(letter >= 0xd800 && letter <= 0xdfff)
                            || letter == '\n'
                            || letter == '\t';
                    safe.appendCodePoint(legal ? letter : 0xfffd);
                }
            }
        });
        return safe.toString();
    }

    private static final String STYLE =
            """
            @page { size: PAPER; margin: 18mm 15mm 20mm 15mm; @bottom-left { content: "Lychnos"; font: 8pt FONT; color: #6b5f54; } @bottom-right { content: counter(page) " of " counter(pages); font: 8pt FONT; color: #6b5f54; } }
            body { font: 9.5pt/1.45 FONT; color: #2a211b; }
            h1 { font-size: 18pt; margin: 0 0 2pt; } h2 { font-size: 13pt; margin: 16pt 0 6pt; } h3 { font-size: 11.5pt; margin: 14pt 0 2pt; page-break-after: avoid; } h4 { font-size: 9.5pt; margin: 8pt 0 2pt; color: #6b5f54; page-break-after: avoid; }
            p { margin: 2pt 0; } .sub { color: #6b5f54; font-size: 8.5pt; } .mono { font-size: 8.5pt; } a { color: #17564b; text-decoration: none; }
            ul { margin: 0; padding-left: 12pt; } li { margin: 1pt 0; }
            .figures { width: 100%; border-top: 1.2pt solid #2a211b; border-bottom: 0.6pt solid #cbbfae; margin: 10pt 0; } .figures td { padding: 6pt 10pt 6pt 0; vertical-align: top; } .figures b { font-size: 16pt; }
            .lines { width: 100%; border-collapse: collapse; -fs-table-paginate: paginate; } .lines th { text-align: left; color: #6b5f54; font-weight: normal; } .lines th, .lines td { border-bottom: 0.5pt solid #e2d9cb; padding: 3pt 6pt 3pt 0; word-wrap: break-word; }
            .page { page-break-before: always; } .unit { border-bottom: 0.5pt solid #e2d9cb; padding-bottom: 6pt; }
            """;
}
