package lychnos.core.dialogue;

import java.util.Set;

/**
 * What a site has agreed to of the terms of a kind's maker.
 *
 * @param recorded whether the site's recorded consent covers licence terms at all
 * @param digests of the texts that were agreed to; empty where no machine of the kind has shown any yet
 */
public record AgreedTerms(boolean recorded, Set<String> digests) {

    /** No consent is recorded. */
    public static final AgreedTerms NONE = new AgreedTerms(false, Set.of());

    public AgreedTerms {
        digests = Set.copyOf(digests);
    }

    /** Consent to the terms that are shown first. */
    public static AgreedTerms toTheFirst() {
        return new AgreedTerms(true, Set.of());
    }

    /** Whether these terms may be accepted without a person. */
    boolean cover(TermsText terms) {
        return recorded && (digests.isEmpty() || digests.contains(terms.digest()));
    }
}
