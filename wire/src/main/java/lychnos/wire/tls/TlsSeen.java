package lychnos.wire.tls;

import java.time.Instant;
import java.util.List;

/**
 * What a TLS server showed of itself.
 *
 * @param protocol such as {@code TLSv1.3}
 * @param fingerprint SHA-256 over the certificate, lower-case hexadecimal without separators
 * @param subject the subject's distinguished name
 * @param issuer the issuer's distinguished name
 * @param selfSigned whether it is signed with its own key
 * @param notBefore from when it is valid
 * @param notAfter until when
 * @param names what it is made out to: DNS names and addresses (RFC 5280, section 4.2.1.6), else its common name
 * @param key such as {@code EC 256}
 * @param weakKey whether that is less than what is held to be enough now (NIST SP 800-57: RSA 2048, EC 224)
 * @param chainFault why the certificates that came with it do not lead upwards from it, or empty
 * @param pem the certificates as shown, from the server's own upwards
 * @param provider what shook hands here, such as {@code BoringSSL}; empty where nobody said
 */
public record TlsSeen(
        String protocol,
        String fingerprint,
        String subject,
        String issuer,
        boolean selfSigned,
        Instant notBefore,
        Instant notAfter,
        List<String> names,
        String key,
        boolean weakKey,
        String chainFault,
        List<String> pem,
        String provider) {

    public TlsSeen {
        provider = provider == null ? "" : provider; // a vantage point of an earlier version does not say
    }

    TlsSeen by(TlsProvider by) {
        return new TlsSeen(
                protocol,
                fingerprint,
                subject,
                issuer,
                selfSigned,
                notBefore,
                notAfter,
                names,
                key,
                weakKey,
                chainFault,
                pem,
                by.title());
    }
}
