package lychnos.core.kind;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import lychnos.core.kind.KindSummary.FactLine;
import lychnos.core.kind.KindSummary.KindSetup;
import lychnos.core.kind.KindSummary.KindStep;
import lychnos.core.kind.KindSummary.Remark;

/** The page of a kind in the reference: its {@link KindSummary} in Markdown. */
public final class KindPage {

    private final StringBuilder text = new StringBuilder();
    private final Kind kind;
    private final KindSummary summary;

    private KindPage(Kind kind) {
        this.kind = kind;
        this.summary = KindSummary.of(kind);
    }

    /** The whole reference: every kind in its order, with a list of them at the head. */
    public static String reference(List<Kind> kinds) {
        String list = kinds.stream()
                .map(each -> "- [" + each.title() + "](#" + anchor(each.title()) + ")\n")
                .collect(Collectors.joining());
        String head =
                "# Kinds of equipment\n\nWritten by `./lychnos record` from the descriptions in `kinds/`, whose form "
                        + "is [explained here](kinds.md).\n\n";
        return head + list + "\n"
                + kinds.stream().map(KindPage::of).collect(Collectors.joining()).stripTrailing() + "\n";
    }

    /** As the usual readers of Markdown make it from a heading: without punctuation. */
    private static String anchor(String heading) {
        return heading.toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{N}_ -]", "")
                .replace(' ', '-');
    }

    /** For every kind, how far the work goes without a person and how far it is measured, as one table. */
    public static String coverage(List<Kind> kinds) {
        StringBuilder page = new StringBuilder("# What is automatic, guided, proven and not measured\n\n"
                + "Written by `./lychnos record` from the descriptions in `kinds/`. Each check also measures that the "
                + "machine answers at its address and port, its certificate, and its name, reverse record and time.\n\n"
                + "| kind | automatic | guided | proven | not measured |\n|---|---|---|---|---|\n");
        for (Kind kind : kinds) {
            KindCoverage coverage = KindSummary.of(kind).coverage();
            page.append(row(
                    kind.title(),
                    cell(coverage.automatic()),
                    cell(coverage.guided()),
                    cell(coverage.proven()),
                    cell(coverage.notMeasured())));
        }
        return page.toString();
    }

    private static String cell(List<String> lines) {
        return String.join("<br>", lines);
    }

    /** The page of one kind. */
    public static String of(Kind kind) {
        return new KindPage(kind).written();
    }

    private String written() {
        line("## " + kind.title());
        line(kind.about());
        line("`" + kind.id() + "`, in names `" + kind.shortName() + "`. " + String.join(" ", summary.before()));
        facts();
        addresses();
        if (kind.dialogue().isPresent()) {
            setup(summary.setup());
        }
        line("**Checks:** " + String.join("; ", summary.proven()) + ". " + summary.restart());
        if (!summary.flows().isEmpty()) {
            line("**Firewalls let through:** " + String.join("; ", summary.flows()) + ".");
        }
        return text.toString();
    }

    private void line(String words) {
        text.append(words).append("\n\n");
    }

    private void facts() {
        text.append("| to know | whose | where it is found | notes | |\n|---|---|---|---|---|\n");
        for (FactLine fact : summary.facts()) {
            List<String> remarks =
                    new ArrayList<>(fact.remarks().stream().map(KindPage::text).toList());
            if (!fact.fallback().isEmpty()) {
                remarks.add("`" + fact.fallback() + "` by default");
            }
            text.append(row(fact.title(), fact.whose(), fact.find(), fact.asked(), String.join(", ", remarks)));
        }
        text.append("\n");
    }

    private static String text(Remark remark) {
        return remark.grave() ? "**" + remark.text() + "**" + remark.more() : remark.toString();
    }

    private static String row(String... cells) {
        return Arrays.stream(cells)
                .map(cell -> cell.replace("|", "\\|"))
                .collect(Collectors.joining(" | ", "| ", " |\n"));
    }

    private void addresses() {
        summary.addresses().forEach(each -> text.append("- ").append(each).append("\n"));
        line("- Its name: `" + summary.name().pattern() + "`, at most "
                + summary.name().longest() + " characters.");
    }

    private void setup(KindSetup setup) {
        line("**First setup" + (setup.line().isEmpty() ? "" : ", at " + setup.line())
                + (setup.oneByOne() ? ", one member after the other" : "") + "**");
        line(IntStream.range(0, setup.steps().size())
                .mapToObj(i -> (i + 1) + ". " + step(setup.steps().get(i)))
                .collect(Collectors.joining("\n")));
        if (!setup.wipe().isEmpty()) {
            line("One that was used before is made blank first: " + String.join(", ", setup.wipe())
                    + ". A person types its name for that.");
        }
    }

    private static String step(KindStep step) {
        String remarks = step.remarks().stream().map(KindPage::text).collect(Collectors.joining("; "));
        return step.title() + (remarks.isEmpty() ? "" : " (" + remarks + ")");
    }
}
