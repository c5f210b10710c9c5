package lychnos.core.learn;

import java.util.List;

/**
 * Something that only a person knows. Until it is answered, the draft is not complete.
 *
 * @param entries which entries it is about
 * @param evidence what the machine showed there, without what may be a password
 * @param options what may be chosen, the proposal first
 */
public record LearnQuestion(QuestionSort sort, List<Integer> entries, List<String> evidence, List<String> options) {

    /** What is asked. */
    public enum QuestionSort {
        /** Something was typed that was not planned: always so, a fact of the unit, or the same on every unit? */
        TEXT,
        /** Commands were typed: is there no password in them? */
        COMMANDS,
        /** Something was typed that several planned values are equal to: which of them? */
        VALUE,
        /** Which steps are permanent, destroy something or accept terms? */
        MARKS,
        /** The serial number was not shown before the first entry: what tells the machine? */
        IDENTITY,
        /** A screen was worked with cursor keys: its steps are written by hand. */
        CURSOR_KEYS
    }
}
