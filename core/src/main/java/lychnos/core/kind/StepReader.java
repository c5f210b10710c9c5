package lychnos.core.kind;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.Look;
import lychnos.core.dialogue.Template;
import lychnos.core.fact.FactSpec;

/** Reads the steps that a dialogue takes on a line. */
final class StepReader {

    private final DialogueNames names;

    StepReader(DialogueNames names) {
        this.names = names;
    }

    List<DialogueStep> read(YamlPlace place) {
        List<DialogueStep> steps = new ArrayList<>();
        for (YamlPlace entry : place.list()) {
            if (entry.at("waits").there()) {
                steps.add(waits(entry));
            } else if (entry.at("summary").there()) {
                steps.add(summary(entry));
            } else {
                steps.add(asked(entry));
            }
        }
        return steps;
    }

    private DialogueStep waits(YamlPlace entry) {
        entry.only(Set.of("waits", "title", "on"));
        YamlPlace waits = entry.at("waits");
        waits.only(Set.of("about", "at-most", "until", "ask"));
        Duration about = KindReader.about(waits);
        return new DialogueStep.Waits(
                entry.at("title").text("works"),
                names.on(entry),
                about,
                KindReader.atMost(waits, about),
                names.look(waits.at("until")),
                waits.at("ask").text(""));
    }

    private DialogueStep summary(YamlPlace entry) {
        entry.only(Set.of("summary", "title", "on"));
        Map<Look, Template> fields = new LinkedHashMap<>();
        entry.at("summary").map().forEach((key, value) -> {
            try {
                fields.put(names.look(value, key), names.template(value));
            } catch (IllegalArgumentException e) {
                value.fault(e.getMessage());
            }
        });
        if (fields.isEmpty()) {
            entry.fault("A summary compares at least one field.");
        }
        return new DialogueStep.Summary(entry.at("title").text("what it shows"), names.on(entry), fields);
    }

    private DialogueStep asked(YamlPlace entry) {
        entry.only(Set.of(
                "asked",
                "answer",
                "at",
                "send",
                "read",
                "title",
                "on",
                "after",
                "suggested",
                "permanent",
                "destroys",
                "terms",
                "restarts",
                "warning",
                "differs",
                "optional",
                "proves",
                "row",
                "expect",
                "opens",
                "again"));
        if (entry.at("opens").there()) {
            return opens(entry);
        }
        boolean command = entry.at("at").there();
        Look look = names.look(entry.at(command ? "at" : "asked"));
        Template answer = entry.at("answer").isEmptyText()
                ? new Template("")
                : names.template(entry.at(command ? "send" : "answer"));
        Set<Mark> marks = DialogueReader.marks(
                entry,
                Mark.PERMANENT,
                Mark.DESTROYS,
                Mark.TERMS,
                Mark.RESTARTS,
                Mark.DIFFERS,
                Mark.OPTIONAL,
                Mark.PROVES,
                Mark.AGAIN);
        if (marks.contains(Mark.AGAIN)
                && (!command || marks.contains(Mark.RESTARTS) || marks.contains(Mark.DESTROYS))) {
            entry.at("again")
                    .fault("Only a command that changes nothing is sent again at each check: at: and send:, without "
                            + "restarts or destroys.");
        }
        String warning = entry.at("warning").text("");
        if (!warning.isEmpty() && !marks.contains(Mark.RESTARTS)) {
            entry.at("warning").fault("A warning belongs to what restarts: restarts: yes.");
        }
        names.facts(answer)
                .filter(fact -> fact.is(FactSpec.Trait.PERMANENT))
                .forEach(fact -> marks.add(Mark.PERMANENT));
        if (names.secret(answer)) {
            marks.add(Mark.SECRET);
            if (!DialogueNames.alone(answer)) {
                entry.fault("A password stands alone in its answer: nothing else is ever sent with it.");
            }
        }
        Look read = entry.at("read").there() ? names.look(entry.at("read")) : null;
        if (read != null) {
            names.read(DialogueNames.groups(read));
        }
        String after = entry.at("after").text("");
        if (!after.isEmpty() && !names.known(after)) {
            entry.at("after").fault("No step before this one reads “" + after + "”.");
        }
        String title = entry.at("title")
                .text(
                        answer.names().size() == 1
                                ? names.title(answer.names().iterator().next())
                                : look.toString());
        return new DialogueStep.Asked(
                title,
                names.on(entry),
                look,
                answer,
                command,
                entry.at("suggested").yes(false),
                read,
                after,
                marks,
                entry.at("row").there() ? names.look(entry.at("row")) : null,
                expected(entry),
                warning);
    }

    /** A row that asks nothing and opens another page, told by what that page shows. */
    private DialogueStep opens(YamlPlace entry) {
        entry.only(Set.of("row", "opens", "title", "on"));
        Look row = names.look(entry.at("row"));
        List<DialogueStep.Expected> shows = List.of(new DialogueStep.Expected(names.look(entry.at("opens")), true));
        return new DialogueStep.Asked(
                entry.at("title").text("opens “" + row + "”"),
                names.on(entry),
                Look.NOTHING,
                new Template(""),
                false,
                false,
                null,
                "",
                Set.of(),
                row,
                shows);
    }

    private List<DialogueStep.Expected> expected(YamlPlace entry) {
        List<DialogueStep.Expected> expected = new ArrayList<>();
        if (entry.at("expect").there()) {
            entry.at("expect").map().forEach((key, value) -> {
                if (!List.of("required", "possible").contains(value.text(""))) {
                    value.fault("What is expected is required or possible.");
                }
                try {
                    expected.add(new DialogueStep.Expected(
                            names.look(value, key), value.text("").equals("required")));
                } catch (IllegalArgumentException e) {
                    value.fault(e.getMessage());
                }
            });
        }
        return expected;
    }
}
