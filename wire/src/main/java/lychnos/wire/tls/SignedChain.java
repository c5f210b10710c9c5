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
import org.bouncycastle.cert.X509CertificateHolder;
import org.bouncycastle.cert.jcajce.JcaX509CertificateConverter;
import org.bouncycastle.openssl.PEMParser;
import org.bouncycastle.pkcs.PKCS10CertificationRequest;

/**
 * A chain that an authority has given for a request, looked at before a machine gets it: one that is wrong would shut
 * us out.
 */
public final class SignedChain {

    private static final int LARGEST = 100_000;
    private static final int MOST = 10;

    private SignedChain() {}

    /**
     * Looks at it.
     *
     * @param pem as it came, in any order
     * @param request the request that it is for (PKCS #10), in PEM
     * @param fqdn what the machine is called
     * @return the chain in PEM, from the machine's own certificate upwards
     * @throws IllegalArgumentException with a sentence that says what is wrong with it
     */
    public static String check(String pem, String request, String fqdn, Instant now) {
        List<X509Certificate> left = certificates(pem);
        byte[] key = key(request);
        X509Certificate own = left.stream()
                .filter(each -> java.util.Arrays.equals(each.getPublicKey().getEncoded(), key))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(
                        "None of these certificates is for the key that the machine has made. Has another "
                                + "request been signed?"));
        List<X509Certificate> chain = new ArrayList<>();
        for (X509Certificate each = own; each != null; each = issuer(each, left)) {
            chain.add(each);
            left.remove(each);
        }
        if (!left.isEmpty()) {
            throw new IllegalArgumentException(
                    left.get(0).getSubjectX500Principal().getName() + " does not belong to the chain. Leave it out.");
        }
        TlsSeen seen = Shown.of("", chain.toArray(Certificate[]::new));
        if (!seen.chainFault().isEmpty()) {
            throw new IllegalArgumentException("The chain does not hold: " + seen.chainFault() + ".");
        }
        if (chain.size() == 1 && !seen.selfSigned()) {
            throw new IllegalArgumentException("The certificate of " + seen.issuer()
                    + ", which signed it, is missing. Enter the whole chain; the root itself may be left out.");
        }
        if (!CertificateNames.cover(seen.names(), fqdn, "")) {
            throw new IllegalArgumentException("The certificate is issued for "
                    + (seen.names().isEmpty() ? "no name" : String.join(", ", seen.names()))
                    + ", and the machine is called " + fqdn + ".");
        }
        for (X509Certificate each : chain) {
            if (now.isAfter(each.getNotAfter().toInstant())
                    || now.isBefore(each.getNotBefore().toInstant())) {
                throw new IllegalArgumentException(
                        each.getSubjectX500Principal().getName() + " is valid from "
                                + day(each.getNotBefore().toInstant()) + " to "
                                + day(each.getNotAfter().toInstant()) + ", and not now.");
            }
        }
        return String.join("", seen.pem());
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
            throw new IllegalArgumentException("That is more than a chain of certificates.");
        }
        try (PEMParser parser = new PEMParser(new StringReader(pem))) {
            for (Object each = parser.readObject(); each != null; each = parser.readObject()) {
                if (!(each instanceof X509CertificateHolder holder)) {
                    throw new IllegalArgumentException(
                            "There is something else than certificates in it. A private key never leaves its machine.");
                }
                all.add(new JcaX509CertificateConverter().getCertificate(holder));
            }
        } catch (IOException | CertificateException e) {
            throw new IllegalArgumentException("That cannot be read as PEM: " + e.getMessage() + ".", e);
        }
        if (all.isEmpty() || all.size() > MOST) {
            throw new IllegalArgumentException(
                    all.isEmpty()
                            ? "There is no certificate in it. Wanted is PEM, from “-----BEGIN CERTIFICATE-----” on."
                            : "That is more than a chain of certificates.");
        }
        return all;
    }

    private static byte[] key(String request) {
        try (PEMParser parser = new PEMParser(new StringReader(request))) {
            return ((PKCS10CertificationRequest) parser.readObject())
                    .getSubjectPublicKeyInfo()
                    .getEncoded();
        } catch (IOException | ClassCastException e) {
            throw new IllegalArgumentException("The machine's request cannot be read. Have it make another one.", e);
        }
    }
}
