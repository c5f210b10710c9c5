package lychnos.wire.tls;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.PublicKey;
import java.security.cert.Certificate;
import java.security.cert.CertificateEncodingException;
import java.security.cert.CertificateParsingException;
import java.security.cert.X509Certificate;
import java.security.interfaces.ECPublicKey;
import java.security.interfaces.RSAPublicKey;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.core.text.Sha256;
import lychnos.wire.fault.WireText;

/** Reads what stands in certificates. */
public final class Shown {

    private static final int DNS_NAME = 2;
    private static final int IP_ADDRESS = 7;
    private static final int LEAST_RSA = 2048;
    private static final int LEAST_EC = 224;
    private static final int MOST_REMEMBERED = 50_000;
    private static final Map<String, Boolean> SELF_SIGNED = new ConcurrentHashMap<>();

    private Shown() {}

    /** @param chain from the server's own upwards, one at least */
    public static TlsSeen of(String protocol, Certificate[] chain, TlsProvider provider) {
        return of(protocol, chain).by(provider);
    }

    /** The same where nobody shook hands. */
    static TlsSeen of(String protocol, Certificate[] chain) {
        X509Certificate own = (X509Certificate) chain[0];
        return new TlsSeen(
                protocol,
                fingerprint(own),
                own.getSubjectX500Principal().getName(),
                own.getIssuerX500Principal().getName(),
                selfSigned(own, fingerprint(own)),
                own.getNotBefore().toInstant(),
                own.getNotAfter().toInstant(),
                names(own),
                key(own.getPublicKey()),
                weak(own.getPublicKey()),
                chainFault(chain),
                pem(chain),
                "");
    }

    /** SHA-256 over the certificate's DER form, in lower-case hexadecimal. */
    public static String fingerprint(Certificate certificate) {
        try {
            return Sha256.hex(certificate.getEncoded());
        } catch (CertificateEncodingException e) {
            throw new IllegalArgumentException("a certificate that came over the wire has an encoding", e);
        }
    }

    /** The names that it is made out to; its common name where it has no others, as old ones do. */
    public static List<String> names(X509Certificate certificate) {
        List<String> names = new ArrayList<>();
        try {
            Collection<List<?>> alternatives = certificate.getSubjectAlternativeNames();
            for (List<?> each : alternatives == null ? List.<List<?>>of() : alternatives) {
                if (each.get(0).equals(DNS_NAME) || each.get(0).equals(IP_ADDRESS)) {
                    names.add(String.valueOf(each.get(1)));
                }
            }
        } catch (CertificateParsingException e) {
            return List.of(); // names that cannot be read are none
        }
        return names.isEmpty() ? commonName(certificate) : List.copyOf(names);
    }

    private static List<String> commonName(X509Certificate certificate) {
        for (String part : certificate.getSubjectX500Principal().getName().split("(?<!\\\\),")) {
            if (part.startsWith("CN=")) {
                return List.of(part.substring(3));
            }
        }
        return List.of();
    }

    private static String key(PublicKey key) {
        return key.getAlgorithm() + (bits(key) == 0 ? "" : " " + bits(key));
    }

    private static int bits(PublicKey key) {
        return key instanceof RSAPublicKey rsa
                ? rsa.getModulus().bitLength()
                : key instanceof ECPublicKey ec ? ec.getParams().getOrder().bitLength() : 0;
    }

    private static boolean weak(PublicKey key) {
        return key instanceof RSAPublicKey && bits(key) < LEAST_RSA
                || key instanceof ECPublicKey && bits(key) < LEAST_EC;
    }

    /**
     * Looked at once for each certificate: it takes as much arithmetic as a handshake, and most are seen again at each
     * check.
     */
    private static boolean selfSigned(X509Certificate certificate, String fingerprint) {
        if (SELF_SIGNED.size() > MOST_REMEMBERED) {
            SELF_SIGNED.clear();
        }
        return SELF_SIGNED.computeIfAbsent(fingerprint, none -> signedBy(certificate, certificate));
    }

    private static boolean signedBy(X509Certificate certificate, X509Certificate issuer) {
        if (!certificate.getIssuerX500Principal().equals(issuer.getSubjectX500Principal())) {
            return false;
        }
        try {
            certificate.verify(issuer.getPublicKey());
            return true;
        } catch (GeneralSecurityException e) {
            return false;
        }
    }

    /**
     * Each must be signed by the next one (RFC 8446, section 4.4.2), and one that nobody signed must be an authority's
     * own.
     */
    private static String chainFault(Certificate[] chain) {
        for (int i = 0; i + 1 < chain.length; i++) {
            X509Certificate each = (X509Certificate) chain[i];
            X509Certificate next = (X509Certificate) chain[i + 1];
            if (!signedBy(each, next)) {
                return WireText.CHAIN_NOT_SIGNED.text(
                        each.getSubjectX500Principal().getName(),
                        next.getSubjectX500Principal().getName());
            }
            if (next.getBasicConstraints() < 0) {
                return WireText.CHAIN_NO_AUTHORITY.text(
                        next.getSubjectX500Principal().getName());
            }
        }
        return "";
    }

    private static List<String> pem(Certificate[] chain) {
        return java.util.Arrays.stream(chain).map(Shown::pem).toList();
    }

    /** RFC 7468, section 5. */
    public static String pem(Certificate certificate) {
        try {
            String body = Base64.getMimeEncoder(64, "\n".getBytes(StandardCharsets.US_ASCII))
                    .encodeToString(certificate.getEncoded());
            return "-----BEGIN CERTIFICATE-----\n" + body + "\n-----END CERTIFICATE-----\n";
        } catch (GeneralSecurityException e) {
            throw new IllegalArgumentException("a certificate that came over the wire has an encoding", e);
        }
    }
}
