package lychnos.core.learn;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Secret;

/**
 * The values of a unit, and what was learnt of it: for one trial, in memory alone.
 *
 * @param learnt by name, what new facts were on the machine
 * @param passwords which of them are passwords
 */
record OwnValues(Values unit, Map<String, Secret> learnt, Set<String> passwords) implements Values {

    @Override
    public Optional<String> text(String name) {
        return learnt.containsKey(name) && !passwords.contains(name)
                ? Optional.of(learnt.get(name).<String>use(text -> text))
                : unit.text(name);
    }

    @Override
    public Optional<Secret> secret(String name) {
        return passwords.contains(name) ? Optional.of(learnt.get(name)) : unit.secret(name);
    }

    @Override
    public Collection<Secret> secrets() {
        List<Secret> all = new ArrayList<>(unit.secrets());
        passwords.forEach(name -> all.add(learnt.get(name)));
        return all;
    }

    @Override
    public String unitName() {
        return unit.unitName();
    }

    /** The person who did the setup has agreed then. */
    @Override
    public AgreedTerms terms() {
        return AgreedTerms.toTheFirst();
    }
}
