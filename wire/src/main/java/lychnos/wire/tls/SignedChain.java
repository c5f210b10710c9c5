package lychnos.wire.tls;

import java.io.IOException;
import java.io.StringReader;
import java.security.cert.Certificate;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import lychnos.core.proof.CertificateNames;
import lychnos.wire.fault.WireText;
import org.bouncycastle.cert.X509CertificateHolder;
import org.bouncycastle.cert.jcajce.JcaX509CertificateConverter;
import org.bouncycastle.openssl.PEMParser;

/**
 * A chain that an authority has given for a request, looked at before a machine gets it: one that is wrong would shut
 * us out.
 *
 * @param pem from the machine's own certificate upwards
 * @param fingerprint of the machine's own certificate: SHA-256 in lower-case hexadecimal
 */
public record SignedChain(String pem, String fingerprint) {

    private static final int LARGEST = 100_000;
    private static final int MOST = 10;

    /**
     * Looks at it.
     *
     * @param pem as it came, in any order
     * @param request the request that it is for (PKCS #10), in PEM
     * @param fqdn what the machine is called
     * @throws IllegalArgumentException with a sentence that says what is wrong with it
     */
    public static SignedChain check(String pem, String request, String fqdn, Instant now) {
        List<X509Certificate> left = certificates(pem);
        byte[] key = SigningRequest.key(request);
        X509Certificate own = left.stream()
                .filter(each -> java.util.Arrays.equals(each.getPublicKey().getEncoded(), key))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(WireText.CHAIN_OTHER_KEY.text()));
        List<X509Certificate> chain = new ArrayList<>();
        for (X509Certificate each = own; each != null; each = issuer(each, left)) {
            chain.add(each);
            left.remove(each);
        }
        if (!left.isEmpty()) {
            throw new IllegalArgumentException(WireText.CHAIN_LEFT_OVER.text(
                    left.get(0).getSubjectX500Principal().getName()));
        }
        TlsSeen seen = Shown.of("", chain.toArray(Certificate[]::new));
        if (!seen.chainFault().isEmpty()) {
            throw new IllegalArgumentException(WireText.CHAIN_BROKEN.text(seen.chainFault()));
        }
        if (chain.size() == 1 && !seen.selfSigned()) {
            throw new IllegalArgumentException(WireText.CHAIN_ISSUER_MISSING.text(seen.issuer()));
        }
        if (!CertificateNames.cover(seen.names(), fqdn, "")) {
            throw new IllegalArgumentException(WireText.CHAIN_OTHER_NAME.text(
                    seen.names().isEmpty() ? WireText.NO_NAME.text() : String.join(", ", seen.names()), fqdn));
        }
        for (X509Certificate each : chain) {
            if (now.isAfter(each.getNotAfter().toInstant())
                    || now.isBefore(each.getNotBefore().toInstant())) {
                throw new IllegalArgumentException(WireText.CHAIN_NOT_NOW.text(
                        each.getSubjectX500Principal().getName(),
                        day(each.getNotBefore().toInstant()),
                        day(each.getNotAfter().toInstant())));
            }
        }
        return new SignedChain(String.join("", seen.pem()), seen.fingerprint());
    }

    private static String day(Instant instant) {
        return instant.toString().substring(0, 10);
    }

    private static X509Certificate issuer(X509Certificate of, List<X509Certificate> among) {
        return of.getIssuerX500Principal().equals(of.getSubjectX500Principal())
                ? null
                : among.stream()
                        .filter(each -> each.getSubjectX500Principal().equals(of.getIssuerX500Principal()))
                        .findFirst()
                        .orElse(null);
    }

    private static List<X509Certificate> certificates(String pem) {
        List<X509Certificate> all = new ArrayList<>();
        if (pem.length() > LARGEST) {
            throw new IllegalArgumentException(WireText.CHAIN_TOO_LONG.text());
        }
        try (PEMParser parser = new PEMParser(new StringReader(pem))) {
            for (Object each = parser.readObject(); each != null; each = parser.readObject()) {
                if (!(each instanceof X509CertificateHolder holder)) {
                    throw new IllegalArgumentException(WireText.CHAIN_OTHER_CONTENT.text());
                }
                all.add(new JcaX509CertificateConverter().getCertificate(holder));
            }
        } catch (IOException | CertificateException e) {
            throw new IllegalArgumentException(WireText.CHAIN_NOT_PEM.text(e.getMessage()), e);
        }
        if (all.isEmpty() || all.size() > MOST) {
            throw new IllegalArgumentException(
                    all.isEmpty() ? WireText.CHAIN_EMPTY.text() : WireText.CHAIN_TOO_LONG.text());
        }
        return all;
    }
}
