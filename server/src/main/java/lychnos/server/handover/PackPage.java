package lychnos.server.handover;

import io.quarkus.qute.Engine;
import io.quarkus.qute.HtmlEscaper;
import io.quarkus.qute.ReflectionValueResolver;
import io.quarkus.qute.Template;
import io.quarkus.qute.Variant;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;

/**
 * The pack as people read it, as XHTML without further files: figures first, then every endpoint, then how each unit
 * was set, then what is known and accepted. Headings, tables with their heads, and links inside are marked as such, so
 * that a PDF made of it is tagged. The page itself is {@code templates/PackPage.html}.
 *
 * @param font the family that the text is set in
 */
record PackPage(Paper paper, String font, Front front, List<EndpointLine> lines, List<UnitSheet> units) {

    private static final Template TEMPLATE = template();

    private static Template template() {
        try (InputStream page = PackPage.class.getResourceAsStream("/templates/PackPage.html")) {
            return Engine.builder()
                    .addDefaults()
                    .addValueResolver(new ReflectionValueResolver())
                    .addResultMapper(new HtmlEscaper(List.of(Variant.TEXT_HTML)))
                    .build()
                    .parse(
                            new String(page.readAllBytes(), StandardCharsets.UTF_8),
                            Variant.forContentType(Variant.TEXT_HTML));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** How large the paper is. */
    enum Paper {
        A4("A4"),
        LETTER("letter");

        private final String css;

        Paper(String css) {
            this.css = css;
        }

        /** Its name in CSS. */
        public String css() {
            return css;
        }
    }

    /** A figure of the first page and what it counts. */
    record Figure(String number, String of) {}

    /** Everything on the first page. */
    record Front(String title, String by, String digest, List<Figure> figures, List<String> items) {}

    /** One line of the table of endpoints. */
    record EndpointLine(
            String unit, String name, String role, String address, String serial, String certificate, String proven) {

        /** The name by which the page links to the unit. */
        public String anchor() {
            return PackPage.anchor(unit);
        }
    }

    /**
     * A unit.
     *
     * @param signed by whom and when, and the digest of its record
     */
    record UnitSheet(String name, String about, String signed, List<UnitList> lists) {

        public String anchor() {
            return PackPage.anchor(name);
        }
    }

    /** What is said of a unit under one heading; it may be empty. */
    record UnitList(String heading, List<String> lines) {}

    /** The whole page. What XML cannot hold at all, in whatever a machine has said, becomes U+FFFD. */
    String xhtml() {
        StringBuilder legal = new StringBuilder();
        TEMPLATE.data("page", this)
                .render()
                .codePoints()
                .forEach(letter -> legal.appendCodePoint(isLegal(letter) ? letter : 0xfffd));
        return legal.toString();
    }

    /** XML 1.0, section 2.2. */
    private static boolean isLegal(int letter) {
        return letter == '\t'
                || letter == '\n'
                || letter == '\r'
                || letter >= 0x20 && letter <= 0xd7ff
                || letter >= 0xe000 && letter <= 0xfffd
                || letter >= 0x10000;
    }

    private static String anchor(String unit) {
        return "unit-" + unit.replaceAll("[^A-Za-z0-9-]", "-");
    }
}
