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
            throw new IllegalArgumentException("The name is empty.");
        }
        if (label.length() > 63) {
            throw new IllegalArgumentException(
                    "“" + label + "” has " + label.length() + " characters; a host name has at most 63.");
        }
        if (!label.matches(LABEL)) {
            throw new IllegalArgumentException("“" + label
                    + "” is not a host name: use letters a to z, digits and hyphens, beginning and ending with a "
                    + "letter or digit.");
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
            throw new IllegalArgumentException(
                    "The domain has " + domain.length() + " characters; at most 253 are allowed.");
        }
        for (String label : domain.split("\\.", -1)) {
            if (!label.matches(LABEL)) {
                throw new IllegalArgumentException("“" + domain + "” is no domain: “" + label + "” is no name in it.");
            }
        }
        return domain;
    }
}
