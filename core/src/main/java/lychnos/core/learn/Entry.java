package lychnos.core.learn;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import lychnos.core.fact.Secret;

/**
 * Something that was typed, and what the machine had shown since the entry before it.
 *
 * @param index counted from 0
 * @param piece which piece of the log its first key is in
 * @param shown the lines before the question, without those that are empty
 * @param question the line on which it was typed, up to the cursor
 * @param typed what it comes to after corrections; nothing for Enter alone
 * @param echo how the machine showed it
 * @param key whether it is one key without Enter, such as one that turns a page
 * @param cursorKeys whether keys were among it that move the cursor
 * @param below whether it was typed in a row of its own below: what came last may have come in between
 * @param silence the longest time before the question in which the machine said nothing
 */
record Entry(
        int index,
        int piece,
        List<String> shown,
        String question,
        Optional<Secret> typed,
        Echo echo,
        boolean key,
        boolean cursorKeys,
        boolean below,
        Silence silence) {

    /** How the machine shows what is typed. */
    enum Echo {
        SHOWN,
        /** With a sign in place of each letter. */
        MASKED,
        NONE,
        /** The screen was drawn again meanwhile. */
        UNKNOWN
    }

    /**
     * A time in which the machine said nothing.
     *
     * @param lasted until it spoke again
     * @param whole from the entry before it to the question
     * @param after how many lines it had shown before it fell silent
     */
    record Silence(Duration lasted, Duration whole, int after) {

        static final Silence NONE = new Silence(Duration.ZERO, Duration.ZERO, 0);

        /** A machine that computes is silent for a moment; one that restarts, for longer. */
        static final Duration LONG = Duration.ofSeconds(6);

        boolean isLong() {
            return lasted.compareTo(LONG) >= 0;
        }
    }

    /** The same with what it was found to be. */
    Entry with(List<String> lines, Silence time) {
        return new Entry(index, piece, lines, question, typed, echo, key, cursorKeys, below, time);
    }

    Entry {
        shown = List.copyOf(shown);
    }

    /** Whether it has to be taken for a password until something else is known. */
    boolean hidden() {
        return typed.isPresent() && echo != Echo.SHOWN;
    }

    /** Whether the same was typed there. */
    boolean sameAs(Entry other) {
        return typed.equals(other.typed);
    }
}
