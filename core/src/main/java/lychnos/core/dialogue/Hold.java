package lychnos.core.dialogue;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Why nothing is sent now.
 *
 * @param step which step it is about, counted from 0; -1 for none
 * @param sentence what happened, and what to do
 * @param shown what the line shows, without secrets; the day that is waited for
 * @param typed what the person must type to go on; empty where saying so is enough
 */
public record Hold(Why why, int step, String sentence, String shown, String typed) {

    /** What a name ends with that is known once the day of a fact has come. */
    public static final String REACHED = ".reached";

    /** The shortest reason of a consent that says something, in characters. */
    public static final int SHORTEST_REASON = 10;

    /** The reasons. */
    public enum Why {
        /** The next answer is ready; the person sends it. */
        NEXT(true),
        /** Nothing comes, and nothing may be sent to change that. */
        SILENT(true),
        WRONG_MACHINE(false),
        STANDBY(false),
        /** It was set up before. Going on wipes it. */
        USED(true),
        /** A question that nobody described. */
        UNFORESEEN(false),
        REFUSED(false),
        /**
         * A page, or what was set in a controller, was not taken or does not show what was written; going on does it
         * again.
         */
        PAGE(true),
        /** What is set over the network cannot be reached. */
        UNREACHED(true),
        /** An answer was sent right before the work was broken off, and it is asked for still. */
        SENT_BEFORE(true),
        /** A question that was answered already. */
        AGAIN(false),
        /** What the machine shows is not what was planned. */
        DIFFERS(false),
        /** What was to be compared was shown while the work was broken off. */
        NOT_SEEN(true),
        /** Something was never asked that should have been. */
        SKIPPED(false),
        PERMANENT(true),
        DESTROYS(true),
        TERMS(true),
        /** It moves authority elsewhere; a person consents and says why. */
        CONSENT(true),
        RESTARTS(true),
        /** Something must be known or done first. */
        PREREQUISITE(false),
        /** Another member must tell something first; nobody is needed for that. */
        PEER(false),
        /** A day must come first, such as the one on which a maker has promised something. */
        DATE(false),
        OVERDUE(true),
        /** The machine has not asked the next thing within the time that the description allows after an answer. */
        LATE(true),
        /** The line was gone, or the machine began again; is it still the same? */
        CUT(true),
        /** A person answers, and the machine has not told which one it is; Enter was kept back. */
        NOT_KNOWN(true),
        /** What the person typed is not what was planned; Enter was kept back. */
        WRONG_ANSWER(true),
        /** Something came behind the question for a password; does it still ask? */
        CAME_BETWEEN(true),
        /** A login that must be refused was not, as far as the line tells. */
        LET_IN(false),
        /** The description itself cannot be used. */
        DESCRIPTION(false);

        private final boolean passable;

        Why(boolean passable) {
            this.passable = passable;
        }

        /** Whether a person can go on from here by saying so. */
        public boolean passable() {
            return passable;
        }

        /** Whether the machine shows something that nobody foresaw, so that others of its kind may show it as well. */
        public boolean surprise() {
            return !passable && !endsWhenKnown() && this != STANDBY;
        }

        /** Whether it ends automatically once a value is known. */
        public boolean endsWhenKnown() {
            return this == PREREQUISITE || this == PEER || this == DATE;
        }

        /** Whether nobody needs to do anything for it to end. */
        public boolean endsAlone() {
            return this == PEER || this == DATE;
        }
    }

    /**
     * A step that waits for values.
     *
     * @param names of facts, {@code left.code} for what another member tells, or {@code approved-on.reached} for a day
     *     that has come
     * @param known what is known by now: the day itself
     */
    public static Hold until(
            int step, String title, List<String> names, String shown, Function<String, Optional<String>> known) {
        String what = names.stream().map(name -> what(name, known)).collect(Collectors.joining(", and until "));
        Why why = why(names);
        String day = why == Why.DATE ? day(names.get(0), known) : shown;
        return new Hold(
                why,
                step,
                (why == Why.PREREQUISITE ? DialogueText.WAITS_UNTIL_ENTERED : DialogueText.WAITS_UNTIL)
                        .text(title, what),
                day,
                "");
    }

    private static Why why(List<String> names) {
        return names.stream().allMatch(name -> name.endsWith(REACHED))
                ? Why.DATE
                : names.stream().allMatch(name -> name.indexOf('.') > 0) ? Why.PEER : Why.PREREQUISITE;
    }

    /** The day that a name such as {@code approved-on.reached} waits for. */
    private static String day(String name, Function<String, Optional<String>> known) {
        return known.apply(name.substring(0, name.length() - REACHED.length())).orElseGet(DialogueText.ITS_DAY::text);
    }

    private static String what(String name, Function<String, Optional<String>> known) {
        if (name.endsWith(REACHED)) {
            String fact = name.substring(0, name.length() - REACHED.length());
            return day(name, known) + " (" + fact.replace('-', ' ') + ")";
        }
        int dot = name.indexOf('.');
        return dot < 0
                ? DialogueText.FACT_IS_KNOWN.text(name.replace('-', ' '))
                : DialogueText.VALUE_HAS_BEEN_SHOWN.text(
                        name.substring(0, dot).replace('-', ' '),
                        name.substring(dot + 1).replace('-', ' '));
    }
}
