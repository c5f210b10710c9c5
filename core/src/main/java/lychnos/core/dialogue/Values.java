package lychnos.core.dialogue;

import java.util.Collection;
import java.util.Optional;
import lychnos.core.fact.Secret;

/** What is known for the answers of one member: facts, addresses, and what the lines have shown so far. */
public interface Values {

    Optional<String> text(String name);

    /** A password. No name is both a text and a secret. */
    Optional<Secret> secret(String name);

    /** Every password that may come by on the line, to be blanked there. */
    Collection<Secret> secrets();

    /** The unit's own name, which a person types before something is destroyed. */
    String unitName();

    /** What the site has agreed to of the terms of its maker. */
    AgreedTerms terms();
}
