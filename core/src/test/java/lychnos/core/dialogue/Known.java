package lychnos.core.dialogue;

import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import lychnos.core.fact.Secret;

/** Values of a unit called ard-fic-1, as a test gives them. */
public record Known(Map<String, String> texts, Map<String, Secret> passwords, Supplier<AgreedTerms> agreed)
        implements Values {

    @Override
    public Optional<String> text(String name) {
        return Optional.ofNullable(texts.get(name));
    }

    @Override
    public Optional<Secret> secret(String name) {
        return Optional.ofNullable(passwords.get(name));
    }

    @Override
    public Collection<Secret> secrets() {
        return passwords.values();
    }

    @Override
    public String unitName() {
        return "ard-fic-1";
    }

    @Override
    public AgreedTerms terms() {
        return agreed.get();
    }
}
