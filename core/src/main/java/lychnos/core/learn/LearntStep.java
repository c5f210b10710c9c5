package lychnos.core.learn;

import java.time.Duration;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.DialogueStep.Mark;

/**
 * One step of a learnt setup.
 *
 * @param entry which entry it was learnt from, counted from 0; -1 for what only the machine showed
 * @param title what people call it
 * @param look the question, the prompt, or what ends a wait, as a pattern
 * @param answer what is typed, with names in braces; empty for Enter alone
 * @param suggested whether the machine suggests an answer in brackets
 * @param marks what is particular about it
 * @param fields of a comparison: by pattern, the planned value
 * @param about how long a wait lasted
 * @param certainty how certain all of it is
 * @param why what speaks for it
 */
public record LearntStep(
        StepSort sort,
        int entry,
        String title,
        String look,
        String answer,
        boolean suggested,
        Set<Mark> marks,
        Map<String, String> fields,
        Duration about,
        Certainty certainty,
        LearnText why) {

    /** What is done in a step. */
    public enum StepSort {
        /** A question is answered. */
        ANSWERS,
        /** A command is sent at a prompt. */
        COMMANDS,
        /** What the machine shows is compared. */
        COMPARES,
        /** The machine works or restarts. */
        WAITS
    }

    public LearntStep {
        marks = marks.isEmpty() ? Set.of() : Set.copyOf(marks);
    }

    LearntStep with(Mark mark) {
        Set<Mark> more = EnumSet.of(mark);
        more.addAll(marks);
        return new LearntStep(sort, entry, title, look, answer, suggested, more, fields, about, certainty, why);
    }

    LearntStep withMarks(Set<Mark> instead) {
        return new LearntStep(sort, entry, title, look, answer, suggested, instead, fields, about, certainty, why);
    }

    LearntStep titled(String other) {
        return new LearntStep(sort, entry, other, look, answer, suggested, marks, fields, about, certainty, why);
    }
}
