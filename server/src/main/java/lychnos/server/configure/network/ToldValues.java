package lychnos.server.configure.network;

import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Secret;
import lychnos.core.sheet.MemberValues;

/** What is planned for a member, with what its own pages have told. */
record ToldValues(Map<String, String> read, Supplier<MemberValues> planned) implements Values {

    @Override
    public Optional<String> text(String name) {
        return Optional.ofNullable(read.get(name)).or(() -> planned.get().text(name));
    }

    @Override
    public Optional<Secret> secret(String name) {
        return planned.get().secret(name);
    }

    @Override
    public Collection<Secret> secrets() {
        return planned.get().secrets();
    }

    @Override
    public String unitName() {
        return planned.get().unitName();
    }

    @Override
    public AgreedTerms terms() {
        return planned.get().terms();
    }
}
