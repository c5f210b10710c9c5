package lychnos.lab.console;

import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/** Ways in which a console machine departs from the plain path. */
public enum Habit {
    /** Suggests an answer that is not the planned one. */
    WRONG_DEFAULT,
    /** Asks two of its questions in the other order. */
    ORDER_CHANGED,
    /** Asks something that is in nobody's papers. */
    EXTRA_QUESTION,
    /** Refuses the gateway, whatever it is. */
    REFUSED_ANSWER,
    /** Says garbage in the middle, as a line with the wrong rate does. */
    GARBAGE,
    /** Takes ten times as long for everything. */
    SLOW,
    /** Does not come back from its restart. */
    NEVER_RETURNS,
    /** Keeps another address than it was told. */
    OLD_ADDRESS,
    /** Does not see the other members. */
    PEER_NOT_SEEN,
    /** Gives no echo. */
    ECHO_OFF,
    /** Log lines come between question and answer. */
    CHATTER,
    /** The line breaks after the fourth answer, once. */
    LINE_CUT,
    /** Another machine than the label says is on the line. */
    OTHER_SERIAL,
    /** It stands by where it should be the active one of two. */
    STANDS_BY,
    /** It was set up before. */
    USED,
    /** Keeps on a page what came there, although it was told otherwise. */
    PAGE_NOT_KEPT,
    /** Its pages are another machine's. */
    OTHER_PAGES,
    /** Refuses one of its pages. */
    PAGE_REFUSED,
    /** Is registered with somebody else already; registering it again would replace that. */
    REGISTERED_BEFORE,
    /** Takes what was set on its pages into service permanently. */
    NEVER_SERVES,
    /** Runs an older version of its software than the others. */
    OLD_RELEASE,
    /** Has something of the maker's left on it, although it was told to take it away. */
    KEEPS_LEFTOVER,
    /** Takes over other settings from the first of two than that one has. */
    FETCHES_OTHER,
    /** Has less memory than what is installed on it needs, and says so without stopping. */
    LITTLE_MEMORY,
    /** Its clock is three hours behind. */
    CLOCK_WRONG,
    /** Lets the factory login in besides the one that was set. */
    LETS_FACTORY_IN,
    /** Asks the second question of all again after it was answered. */
    ASKS_AGAIN;

    /** Reads {@code slow,chatter}; a hyphen alone means none. */
    public static Set<Habit> parse(String text) {
        EnumSet<Habit> habits = EnumSet.noneOf(Habit.class);
        if (!text.equals("-")) {
            for (String word : text.split(",")) {
                habits.add(valueOf(word.toUpperCase(Locale.ROOT).replace('-', '_')));
            }
        }
        return habits;
    }
}
