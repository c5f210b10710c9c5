package lychnos.wire.tls;

import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import lychnos.core.proof.CertificateNames;
import lychnos.wire.fault.WireText;
import org.bouncycastle.asn1.pkcs.PKCSObjectIdentifiers;
import org.bouncycastle.asn1.x500.style.BCStyle;
import org.bouncycastle.asn1.x500.style.IETFUtils;
import org.bouncycastle.asn1.x509.Extension;
import org.bouncycastle.asn1.x509.Extensions;
import org.bouncycastle.asn1.x509.GeneralName;
import org.bouncycastle.asn1.x509.GeneralNames;
import org.bouncycastle.openssl.PEMParser;
import org.bouncycastle.operator.OperatorCreationException;
import org.bouncycastle.operator.jcajce.JcaContentVerifierProviderBuilder;
import org.bouncycastle.pkcs.PKCS10CertificationRequest;
import org.bouncycastle.pkcs.PKCSException;

/** A request for a certificate (PKCS #10, RFC 2986) that a person has copied from a machine's own page. */
public final class SigningRequest {

    private static final int LARGEST = 20_000;

    private SigningRequest() {}

    /**
     * Looks at it before an authority signs it in vain.
     *
     * @param pem as it was copied
     * @param fqdn what the machine is called
     * @throws IllegalArgumentException with a sentence that says what is wrong with it
     */
    public static void check(String pem, String fqdn) {
        if (pem.length() > LARGEST) {
            throw new IllegalArgumentException(WireText.REQUEST_UNREADABLE.text());
        }
        PKCS10CertificationRequest request = read(pem);
        if (!signedWithItsOwnKey(request)) {
            throw new IllegalArgumentException(WireText.REQUEST_DAMAGED.text());
        }
        List<String> names = names(request);
        if (!CertificateNames.cover(names, fqdn, "")) {
            throw new IllegalArgumentException(WireText.REQUEST_OTHER_NAME.text(
                    names.isEmpty() ? WireText.NO_NAME.text() : String.join(", ", names), fqdn));
        }
    }

    /** The public key that it is made for (X.509 SubjectPublicKeyInfo, DER). */
    static byte[] key(String pem) {
        try {
            return read(pem).getSubjectPublicKeyInfo().getEncoded();
        } catch (IOException e) {
            throw new IllegalArgumentException(WireText.REQUEST_UNREADABLE.text(), e);
        }
    }

    private static PKCS10CertificationRequest read(String pem) {
        try (PEMParser parser = new PEMParser(new StringReader(pem))) {
            if (parser.readObject() instanceof PKCS10CertificationRequest request) {
                return request;
            }
            throw new IllegalArgumentException(WireText.REQUEST_UNREADABLE.text());
        } catch (IOException e) {
            throw new IllegalArgumentException(WireText.REQUEST_UNREADABLE.text(), e);
        }
    }

    /** A request that lost a character on its way does not agree with its signature. */
    private static boolean signedWithItsOwnKey(PKCS10CertificationRequest request) {
        try {
            return request.isSignatureValid(
                    new JcaContentVerifierProviderBuilder().build(request.getSubjectPublicKeyInfo()));
        } catch (PKCSException | OperatorCreationException e) {
            return false;
        }
    }

    /** The names that it asks for; authorities take the common name where it asks for no others. */
    private static List<String> names(PKCS10CertificationRequest request) {
        List<String> names = new ArrayList<>();
        Stream.of(request.getAttributes(PKCSObjectIdentifiers.pkcs_9_at_extensionRequest))
                .map(asked -> Extensions.getInstance(asked.getAttrValues().getObjectAt(0)))
                .map(asked -> GeneralNames.fromExtensions(asked, Extension.subjectAlternativeName))
                .filter(java.util.Objects::nonNull)
                .flatMap(asked -> Stream.of(asked.getNames()))
                .filter(name -> name.getTagNo() == GeneralName.dNSName)
                .forEach(name -> names.add(name.getName().toString()));
        if (names.isEmpty()) {
            Stream.of(request.getSubject().getRDNs(BCStyle.CN))
                    .forEach(name ->
                            names.add(IETFUtils.valueToString(name.getFirst().getValue())));
        }
        return names;
    }
}
