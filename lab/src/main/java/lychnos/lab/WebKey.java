package lychnos.lab;

import io.vertx.core.net.KeyCertOptions;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyPair;
import java.security.cert.X509Certificate;
import java.util.List;
import org.bouncycastle.asn1.pkcs.PKCSObjectIdentifiers;
import org.bouncycastle.asn1.x500.X500Name;
import org.bouncycastle.asn1.x509.Extension;
import org.bouncycastle.asn1.x509.ExtensionsGenerator;
import org.bouncycastle.asn1.x509.GeneralName;
import org.bouncycastle.asn1.x509.GeneralNames;
import org.bouncycastle.operator.jcajce.JcaContentSignerBuilder;
import org.bouncycastle.pkcs.jcajce.JcaPKCS10CertificationRequestBuilder;

/** The key of a machine's web service: what it shows now, and the one that it has made a request for. */
public final class WebKey {

    private final Path file;
    private final Path askedFile;
    private final OneKey shown;
    private KeyPair asked;

    /**
     * @param file where it is kept, and beside it the one that was asked for; null where it need not outlive the
     * process
     * @param days for how long its first certificate is valid
     */
    public WebKey(Path file, String commonName, int days) {
        this.file = file;
        shown = (OneKey) KeyFile.selfSigned(file, commonName, -2, days);
        askedFile = file == null ? null : file.resolveSibling(file.getFileName() + ".asked");
        asked = askedFile == null || !Files.exists(askedFile) ? null : KeyFile.read(askedFile);
    }

    public synchronized KeyCertOptions shown() {
        return shown;
    }

    /** The certificate that it shows now. */
    public synchronized X509Certificate certificate() {
        return shown.certificate();
    }

    synchronized void show(KeyCertOptions other) {
        become((OneKey) other);
    }

    private void become(OneKey other) {
        shown.become(other);
        if (file != null) {
            KeyFile.keep(file, shown);
        }
    }

    /** Makes a new key and a request for it; the key that is in use stays until a certificate for the new one comes. */
    public synchronized String request(String commonName, List<String> names) throws Exception {
        asked = KeyFile.newPair();
        if (askedFile != null) {
            KeyFile.keep(askedFile, asked);
        }
        ExtensionsGenerator extensions = new ExtensionsGenerator();
        extensions.addExtension(
                Extension.subjectAlternativeName,
                false,
                new GeneralNames(names.stream()
                        .map(name -> new GeneralName(
                                name.matches("[0-9.]+|.*:.*") ? GeneralName.iPAddress : GeneralName.dNSName, name))
                        .toArray(GeneralName[]::new)));
        var request = new JcaPKCS10CertificationRequestBuilder(new X500Name("CN=" + commonName), asked.getPublic())
                .addAttribute(PKCSObjectIdentifiers.pkcs_9_at_extensionRequest, extensions.generate())
                .build(new JcaContentSignerBuilder("SHA256withECDSA").build(asked.getPrivate()));
        return Authority.pem(request);
    }

    /** Takes a chain for the key that a request was made for; false where it is for another one. */
    public synchronized boolean take(String chain) throws Exception {
        X509Certificate[] certificates = KeyFile.certificates(chain);
        if (asked == null
                || certificates.length == 0
                || !certificates[0].getPublicKey().equals(asked.getPublic())) {
            return false;
        }
        become(new OneKey(asked.getPrivate(), certificates));
        asked = null;
        return true;
    }
}
