package lychnos.lab;

import java.io.StringReader;
import java.io.StringWriter;
import java.math.BigInteger;
import java.security.KeyPair;
import java.security.PrivateKey;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Date;
import org.bouncycastle.asn1.pkcs.PKCSObjectIdentifiers;
import org.bouncycastle.asn1.x500.X500Name;
import org.bouncycastle.asn1.x509.BasicConstraints;
import org.bouncycastle.asn1.x509.Extension;
import org.bouncycastle.asn1.x509.Extensions;
import org.bouncycastle.asn1.x509.SubjectPublicKeyInfo;
import org.bouncycastle.cert.X509CertificateHolder;
import org.bouncycastle.cert.X509v3CertificateBuilder;
import org.bouncycastle.openssl.PEMParser;
import org.bouncycastle.openssl.jcajce.JcaPEMWriter;
import org.bouncycastle.operator.jcajce.JcaContentSignerBuilder;
import org.bouncycastle.pkcs.PKCS10CertificationRequest;

/** The hall's own authority, with one below it that signs requests (PKCS #10, RFC 2986). */
public final class Authority {

    private static final String SIGNATURE = "SHA256withECDSA";
    private final PrivateKey key;
    private final X509CertificateHolder signing;
    private final X509CertificateHolder root;
    private int serial = 1;

    public Authority() {
        try {
            KeyPair top = KeyFile.newPair();
            KeyPair below = KeyFile.newPair();
            X500Name rootName = new X500Name("CN=Ardal hall root");
            X500Name name = new X500Name("CN=Ardal hall signing");
            root = authority(rootName, rootName, top, top.getPrivate());
            signing = authority(rootName, name, below, top.getPrivate());
            key = below.getPrivate();
        } catch (Exception e) {
            throw new IllegalStateException("no authority", e);
        }
    }

    private X509CertificateHolder authority(X500Name issuer, X500Name subject, KeyPair pair, PrivateKey by)
            throws Exception {
        return builder(
                        issuer,
                        subject,
                        SubjectPublicKeyInfo.getInstance(pair.getPublic().getEncoded()),
                        3650)
                .addExtension(Extension.basicConstraints, true, new BasicConstraints(true))
                .build(new JcaContentSignerBuilder(SIGNATURE).build(by));
    }

    private X509v3CertificateBuilder builder(X500Name issuer, X500Name subject, SubjectPublicKeyInfo info, int days) {
        Instant now = Instant.now();
        return new X509v3CertificateBuilder(
                issuer,
                BigInteger.valueOf(serial++),
                Date.from(now.minus(1, ChronoUnit.DAYS)),
                Date.from(now.plus(days, ChronoUnit.DAYS)),
                subject,
                info);
    }

    /**
     * The chain for a request: its certificate with the names that it asks for, and the signing authority's; PEM (RFC
     * 7468).
     */
    public String sign(String request) {
        try (PEMParser parser = new PEMParser(new StringReader(request))) {
            PKCS10CertificationRequest asked = (PKCS10CertificationRequest) parser.readObject();
            X509v3CertificateBuilder builder =
                    builder(signing.getSubject(), asked.getSubject(), asked.getSubjectPublicKeyInfo(), 397);
            var wanted = asked.getAttributes(PKCSObjectIdentifiers.pkcs_9_at_extensionRequest);
            if (wanted.length > 0) {
                Extension names = Extensions.getInstance(
                                wanted[0].getAttrValues().getObjectAt(0))
                        .getExtension(Extension.subjectAlternativeName);
                builder.addExtension(names);
            }
            return pem(builder.build(new JcaContentSignerBuilder(SIGNATURE).build(key))) + pem(signing);
        } catch (Exception e) {
            throw new IllegalArgumentException("that is no request that can be signed", e);
        }
    }

    /** The root's own certificate. */
    public String root() {
        try {
            return pem(root);
        } catch (Exception e) {
            throw new IllegalStateException("a certificate has an encoding", e);
        }
    }

    static String pem(Object object) throws java.io.IOException {
        StringWriter text = new StringWriter();
        try (JcaPEMWriter writer = new JcaPEMWriter(text)) {
            writer.writeObject(object);
        }
        return text.toString();
    }
}
