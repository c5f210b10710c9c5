package lychnos.wire.ldap;

import lychnos.core.kind.Kind;
import org.jspecify.annotations.Nullable;

/**
 * What a directory is asked.
 *
 * @param certificate SHA-256 of the certificate that it must show, 64 hexadecimal digits; empty where none is known.
 *     Without it nobody signs in over TLS: its name cannot be compared, since it is reached by its address
 * @param login the service account, its name as a distinguished name (RFC 4514); null for none
 * @param base the entry below which accounts and groups are (RFC 4514)
 * @param group a group that must be there: its common name, or its distinguished name; empty for none
 */
public record DirectoryQuestion(
        Protection protection, String certificate, Kind.@Nullable Login login, String base, String group) {

    /** How what is said is protected. */
    public enum Protection {
        /** TLS from the first byte. */
        TLS,
        /** The extended request StartTLS (RFC 4511, section 4.14). */
        START_TLS,
        NONE
    }
}
