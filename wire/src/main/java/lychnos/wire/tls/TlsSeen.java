package lychnos.wire.tls;

import java.time.Instant;

/**
 * What a TLS server showed of itself.
 *
 * @param protocol such as {@code TLSv1.3}
 * @param fingerprint SHA-256 over the certificate, lower-case hexadecimal without separators
 * @param subject the subject's distinguished name
 * @param selfSigned whether subject and issuer are the same
 * @param notBefore from when it is valid
 * @param notAfter until when
 */
public record TlsSeen(String protocol, String fingerprint, String subject, boolean selfSigned, Instant notBefore, Instant notAfter) {}
