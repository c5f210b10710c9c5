package lychnos.core.kind;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.Condition;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.Look;
import lychnos.core.dialogue.Template;
import lychnos.core.fact.FactSpec;

/** Reads the steps that a dialogue takes on a line. */
final class StepReader {

    private static final int MOST_STEPS = 500;

    private final DialogueNames names;
    private final ConditionReader conditions;
    /** The turn that is read, of steps that are repeated. */
    private Repetition.Turn turn = Repetition.Turn.ONLY;

    StepReader(DialogueNames names) {
        this.names = names;
        conditions = new ConditionReader(names);
    }

    List<DialogueStep> read(YamlPlace place) {
        List<DialogueStep> steps = new ArrayList<>();
        for (YamlPlace entry : place.list()) {
            if (entry.at("repeat").there()) {
                steps.addAll(repeated(entry));
            } else if (!turn.lacks(entry.at("if"))) {
                steps.add(step(entry));
            }
        }
        if (steps.size() > MOST_STEPS) {
            place.fault(KindFaultText.TOO_MANY_STEPS.text(steps.size(), MOST_STEPS));
        }
        return steps;
    }

    private DialogueStep step(YamlPlace entry) {
        if (entry.at("waits").there()) {
            return waits(entry);
        }
        return entry.at("summary").there() ? summary(entry) : asked(entry);
    }

    /** The steps of all turns. One that has a fault ends them, since the others have the same. */
    private List<DialogueStep> repeated(YamlPlace entry) {
        entry.only("step-repeat");
        if (turn != Repetition.Turn.ONLY) {
            entry.at("repeat").fault(KindFaultText.REPEATED_TWICE.text());
            return List.of();
        }
        if (entry.at("steps").list().isEmpty()) {
            entry.fault(KindFaultText.REPETITION_EMPTY.text());
        }
        List<DialogueStep> steps = new ArrayList<>();
        int before = entry.faults();
        for (Repetition.Turn each : Repetition.turns(entry.at("repeat"), names)) {
            turn = each;
            steps.addAll(read(entry.at("steps").with(each.texts())));
            turn = Repetition.Turn.ONLY;
            if (entry.faults() > before) {
                break;
            }
        }
        return steps;
    }

    private Condition only(YamlPlace entry) {
        return turn.wanted().and(conditions.read(entry.at("if"), turn.words()));
    }

    private DialogueStep waits(YamlPlace entry) {
        entry.only("step-waits");
        YamlPlace waits = entry.at("waits");
        waits.only("wait");
        Duration about = KindReader.about(waits);
        return new DialogueStep.Waits(
                entry.at("title").text("works"),
                names.on(entry),
                about,
                KindReader.atMost(waits, about),
                names.look(waits.at("until")),
                waits.at("ask").text(""),
                only(entry));
    }

    private DialogueStep summary(YamlPlace entry) {
        entry.only("step-summary");
        Map<Look, Template> fields = new LinkedHashMap<>();
        entry.at("summary").map().forEach((key, value) -> {
            try {
                fields.put(names.look(value, key), names.template(value));
            } catch (IllegalArgumentException e) {
                value.fault(e.getMessage());
            }
        });
        if (fields.isEmpty()) {
            entry.fault(KindFaultText.SUMMARY_EMPTY.text());
        }
        return new DialogueStep.Summary(entry.at("title").text("what it shows"), names.on(entry), fields, only(entry));
    }

    private DialogueStep asked(YamlPlace entry) {
        if (entry.at("opens").there()) {
            return opens(entry);
        }
        boolean command = entry.at("at").there();
        entry.only(command ? "step-command" : "step-asked");
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
                Mark.MUST_BE_REFUSED,
                Mark.AGAIN);
        if (marks.contains(Mark.AGAIN)
                && (!command || marks.contains(Mark.RESTARTS) || marks.contains(Mark.DESTROYS))) {
            entry.at("again").fault(KindFaultText.AGAIN.text());
        }
        if (marks.contains(Mark.MUST_BE_REFUSED) && (command || !names.secret(answer))) {
            entry.at("must-be-refused").fault(KindFaultText.MUST_BE_REFUSED.text());
        }
        String warning = entry.at("warning").text("");
        if (!warning.isEmpty() && !marks.contains(Mark.RESTARTS)) {
            entry.at("warning").fault(KindFaultText.WARNING.text());
        }
        names.facts(answer)
                .filter(fact -> fact.is(FactSpec.Trait.PERMANENT))
                .forEach(fact -> marks.add(Mark.PERMANENT));
        if (names.secret(answer)) {
            marks.add(Mark.SECRET);
            if (!DialogueNames.alone(answer)) {
                entry.fault(KindFaultText.PASSWORD_ALONE_IN_ANSWER.text());
            }
        }
        Look read = entry.at("read").there() ? names.look(entry.at("read")) : null;
        if (read != null) {
            names.read(read.groups());
        }
        String after = entry.at("after").text("");
        if (!after.isEmpty() && !names.known(after)) {
            entry.at("after").fault(KindFaultText.NOT_READ_BEFORE.text(after));
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
                warning,
                only(entry),
                entry.at("within").there() ? entry.at("within").read(KindReader::duration, null) : null);
    }

    /** A row that asks nothing and opens another page, told by what that page shows. */
    private DialogueStep opens(YamlPlace entry) {
        entry.only("step-opens");
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
                shows,
                "",
                only(entry),
                null);
    }

    private List<DialogueStep.Expected> expected(YamlPlace entry) {
        List<DialogueStep.Expected> expected = new ArrayList<>();
        if (entry.at("expect").there()) {
            entry.at("expect").map().forEach((key, value) -> {
                if (!List.of("required", "possible").contains(value.text(""))) {
                    value.fault(KindFaultText.EXPECTED_WORD.text());
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
