package lychnos.core.name;

/**
 * The rules for host names and domain names: RFC 952 as relaxed by RFC 1123 section 2.1, lengths from RFC 1035 section
 * 2.3.4.
 */
public final class Hostname {

    private static final String LABEL = "[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?";

    private Hostname() {}

    /**
     * Checks one label in lower case.
     *
     * @throws IllegalArgumentException with a sentence that says what is wrong
     */
    public static String require(String label) {
        if (label.isEmpty()) {
            throw new IllegalArgumentException(NameText.EMPTY.text());
        }
        if (label.length() > 63) {
            throw new IllegalArgumentException(NameText.HOST_NAME_TOO_LONG.text(label, label.length()));
        }
        if (!label.matches(LABEL)) {
            throw new IllegalArgumentException(NameText.NOT_A_HOST_NAME.text(label));
        }
        return label;
    }

    /**
     * Checks a domain: labels with dots between them, at most 253 characters.
     *
     * @throws IllegalArgumentException with a sentence that says what is wrong
     */
    public static String requireDomain(String domain) {
        if (domain.length() > 253) {
            throw new IllegalArgumentException(NameText.DOMAIN_TOO_LONG.text(domain.length()));
        }
        for (String label : domain.split("\\.", -1)) {
            if (!label.matches(LABEL)) {
                throw new IllegalArgumentException(NameText.NOT_A_DOMAIN.text(domain, label));
            }
        }
        return domain;
    }
}
