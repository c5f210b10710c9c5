package lychnos.wire.ldap;

/**
 * What a directory answered.
 *
 * @param said what it answered in its own words, or why it did not; may be empty
 * @param certificate SHA-256 of the certificate that it showed, 64 hexadecimal digits; empty without TLS
 */
public record DirectorySeen(Result result, String said, String certificate) {

    /** How far it went. */
    public enum Result {
        SILENT,
        /** It cannot speak TLS, or refuses to. */
        NO_TLS,
        /** It shows another certificate than the one that is known, or none is known. */
        NOT_TRUSTED,
        /** It does not accept the service account. */
        REFUSED,
        /** The entry below which accounts are is not there, or not for this account. */
        NO_BASE,
        NO_GROUP,
        /** Several groups have this name. */
        SEVERAL_GROUPS,
        FOUND
    }
}
