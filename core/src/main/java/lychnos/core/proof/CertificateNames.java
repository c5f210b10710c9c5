package lychnos.core.proof;

import java.util.List;
import java.util.Locale;

/** Whether the names on a certificate cover the one that people call a machine by (RFC 9525, section 6). */
public final class CertificateNames {

    private CertificateNames() {}

    /**
     * Whether one of them does.
     *
     * @param names DNS names, in which the first label may be an asterisk, and addresses
     * @param fqdn what people call it; empty where it has no name
     * @param address where it is reached; it counts where the machine has no name
     */
    public static boolean cover(List<String> names, String fqdn, String address) {
        return names.stream()
                .anyMatch(name -> fqdn.isEmpty() ? name.equals(address) : covers(lower(name), lower(fqdn)));
    }

    private static boolean covers(String name, String fqdn) {
        if (name.equals(fqdn)) {
            return true;
        }
        int dot = fqdn.indexOf('.');
        // an asterisk stands for one whole label, the first, and for no more (RFC 9525, section 6.3)
        return name.startsWith("*.") && dot > 0 && name.substring(1).equals(fqdn.substring(dot));
    }

    private static String lower(String text) {
        return text.toLowerCase(Locale.ROOT).replaceFirst("\\.$", "");
    }
}
