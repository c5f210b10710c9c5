package lychnos.lab;

import io.vertx.core.net.KeyCertOptions;
import java.io.StringReader;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.cert.X509Certificate;
import java.security.spec.ECGenParameterSpec;
import java.util.ArrayList;
import java.util.List;
import org.bouncycastle.asn1.pkcs.PKCSObjectIdentifiers;
import org.bouncycastle.asn1.x500.X500Name;
import org.bouncycastle.asn1.x509.Extension;
import org.bouncycastle.asn1.x509.ExtensionsGenerator;
import org.bouncycastle.asn1.x509.GeneralName;
import org.bouncycastle.asn1.x509.GeneralNames;
import org.bouncycastle.cert.X509CertificateHolder;
import org.bouncycastle.cert.jcajce.JcaX509CertificateConverter;
import org.bouncycastle.openssl.PEMParser;
import org.bouncycastle.operator.jcajce.JcaContentSignerBuilder;
import org.bouncycastle.pkcs.jcajce.JcaPKCS10CertificationRequestBuilder;

/** The key of a controller's web service: what it shows now, and the one that it has made a request for. */
final class WebKey {

    private final OneKey shown;
    private KeyPair asked;

    WebKey(KeyCertOptions first) {
        shown = (OneKey) first;
    }

    synchronized KeyCertOptions shown() {
        return shown;
    }

    synchronized void show(KeyCertOptions other) {
        shown.become((OneKey) other);
    }

    /** Makes a new key and a request for it; the key that is in use stays until a certificate for the new one comes. */
    synchronized String request(String commonName, List<String> names) throws Exception {
        KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
        generator.initialize(new ECGenParameterSpec("secp256r1"));
        asked = generator.generateKeyPair();
        ExtensionsGenerator extensions = new ExtensionsGenerator();
        extensions.addExtension(Extension.subjectAlternativeName, false, new GeneralNames(names.stream().map(name -> new GeneralName(name.matches("[0-9.]+|.*:.*") ? GeneralName.iPAddress : GeneralName.dNSName, name)).toArray(GeneralName[]::new)));
        var request = new JcaPKCS10CertificationRequestBuilder(new X500Name("CN=" + commonName), asked.getPublic())
                .addAttribute(PKCSObjectIdentifiers.pkcs_9_at_extensionRequest, extensions.generate())
                .build(new JcaContentSignerBuilder("SHA256withECDSA").build(asked.getPrivate()));
        return Authority.pem(request);
    }

    /** Takes a chain for the key that a request was made for; false where it is for another one. */
    synchronized boolean take(String chain) throws Exception {
        List<X509Certificate> certificates = new ArrayList<>();
        try (PEMParser parser = new PEMParser(new StringReader(chain))) {
            for (Object each = parser.readObject(); each != null; each = parser.readObject()) {
                certificates.add(new JcaX509CertificateConverter().getCertificate((X509CertificateHolder) each));
            }
        }
        if (asked == null || certificates.isEmpty() || !certificates.get(0).getPublicKey().equals(asked.getPublic())) {
            return false;
        }
        shown.become(new OneKey(asked.getPrivate(), certificates.toArray(X509Certificate[]::new)));
        asked = null;
        return true;
    }
}
