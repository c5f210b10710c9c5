package lychnos.core.learn;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.dialogue.DialogueStep.Mark;

/**
 * What a person has answered.
 *
 * @param texts by entry, what a text is that was not planned
 * @param commandsTold whether the commands may be read: there is no password in them
 * @param parts by entry, the parts of a command that are facts of the unit, such as {@code aisle two} in {@code set
 *     place aisle two}; the rest of it is the same on every unit
 * @param values by entry, which planned value it is, such as {@code {time-server-1}}
 * @param marks by entry, what is particular about its step; nothing while it was not said
 * @param found by the name of a new fact, where people find it
 */
public record Decisions(
        Map<Integer, Meaning> texts,
        boolean commandsTold,
        Map<Integer, List<String>> parts,
        Map<Integer, String> values,
        Optional<Map<Integer, Set<Mark>>> marks,
        Map<String, String> found) {

    /** Nothing was answered. */
    public static final Decisions NONE = new Decisions(Map.of(), false, Map.of(), Map.of(), Optional.empty(), Map.of());

    /** What a text is. */
    public enum Meaning {
        /** The same text on every machine; it is written into the description. */
        ALWAYS,
        /** A fact of each unit. */
        FACT,
        /** A fact that has the same value on every unit. */
        SAME
    }

    public Decisions {
        texts = Map.copyOf(texts);
        parts = Map.copyOf(parts);
        values = Map.copyOf(values);
        found = Map.copyOf(found);
    }
}
