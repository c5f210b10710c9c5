package lychnos.core.fact;

import java.util.List;
import java.util.Set;

/**
 * One thing that has to be known before a machine is set up.
 *
 * @param name the word by which it is known in the description, such as {@code mail-sender}
 * @param title as people read it
 * @param scope whether every member has its own
 * @param type what it must be
 * @param find where an engineer finds it, or empty
 * @param asked who asks for it and where, or empty
 * @param fallback what the kind itself answers where nobody says otherwise, or null
 * @param choices what a {@link FactType#CHOICE} may be; the sort of resource for {@link FactType#SITE_RESOURCE}
 * @param traits what else holds of it
 * @param least below which the machine will not work, for a {@link FactType#SIZE}; or null
 */
public record FactSpec(
        String name,
        String title,
        Scope scope,
        FactType type,
        String find,
        String asked,
        String fallback,
        List<String> choices,
        Set<Trait> traits,
        DataSize least) {

    public FactSpec(
            String name,
            String title,
            Scope scope,
            FactType type,
            String find,
            String asked,
            String fallback,
            List<String> choices,
            Set<Trait> traits) {
        this(name, title, scope, type, find, asked, fallback, choices, traits, null);
    }

    /** Whose fact it is. */
    public enum Scope {
        UNIT,
        MEMBER
    }

    /** What else holds of a fact. */
    public enum Trait {
        /** First setup does not ask for it. */
        OPTIONAL,
        /** Becomes known in the course of first setup, which waits for it there. */
        LATER,
        /** Another team gives it: it is among the requests. */
        REQUESTED,
        /** A day on which something ends, such as a trial; people are told before it. */
        ENDS,
        /** The address of what manages the machine; both must follow the same time. */
        MANAGER,
        /** Can never be changed once it was typed into the machine. */
        PERMANENT,
        /** Must be the same on every member although each is asked; of a fact of the unit, on all units of the kind. */
        SAME,
        /** Made by the tool, not by a person: a new password. */
        MADE,
        /** Answered by a policy of the site of the same name. */
        POLICY,
        /** Of a prefix: answered by the management access of the site, where it states one. */
        ACCESS
    }

    public FactSpec {
        choices = List.copyOf(choices);
        traits = Set.copyOf(traits);
    }

    /** The same with another answer where nobody says otherwise, or null for none. */
    public FactSpec withFallback(String other) {
        return new FactSpec(name, title, scope, type, find, asked, other, choices, traits, least);
    }

    public boolean is(Trait trait) {
        return traits.contains(trait);
    }

    /** Whether somebody has to find it out before first setup. */
    public boolean wanted() {
        return !is(Trait.OPTIONAL) && !is(Trait.LATER) && !is(Trait.MADE);
    }

    /**
     * Reads a value for it.
     *
     * @throws IllegalArgumentException with a sentence that says what is wrong
     */
    public String read(String typed) {
        String value = type.read(typed);
        if (type == FactType.CHOICE && !choices.contains(value)) {
            throw new IllegalArgumentException(FactText.NOT_A_CHOICE.text(value, String.join(", ", choices)));
        }
        return value;
    }
}
