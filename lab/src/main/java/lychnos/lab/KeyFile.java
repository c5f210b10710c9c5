package lychnos.lab;

import io.vertx.core.net.KeyCertOptions;
import java.io.IOException;
import java.io.Reader;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import java.security.spec.ECGenParameterSpec;
import java.security.spec.PKCS8EncodedKeySpec;
import java.security.spec.X509EncodedKeySpec;
import java.util.ArrayList;
import java.util.List;
import org.bouncycastle.asn1.pkcs.PrivateKeyInfo;
import org.bouncycastle.asn1.x509.SubjectPublicKeyInfo;
import org.bouncycastle.cert.X509CertificateHolder;
import org.bouncycastle.cert.jcajce.JcaX509CertificateConverter;
import org.bouncycastle.openssl.PEMParser;
import org.bouncycastle.util.io.pem.PemObject;

/**
 * Where a stand-in keeps a key (EC P-256) while it has no power, as a real machine does: one that showed another key
 * each time it is switched on would look like another machine. Everything in PEM (RFC 7468).
 */
public final class KeyFile {

    private KeyFile() {}

    /** A new pair. */
    static KeyPair newPair() {
        try {
            KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
            generator.initialize(new ECGenParameterSpec("secp256r1"));
            return generator.generateKeyPair();
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("P-256 is part of every Java", e);
        }
    }

    /**
     * The pair that is kept there, a new one where there is none yet.
     *
     * @param file null where it need not outlive the process
     */
    public static KeyPair pair(Path file) {
        if (file != null && Files.exists(file)) {
            return read(file);
        }
        KeyPair made = newPair();
        if (file != null) {
            WholeFile.write(file, text(made));
        }
        return made;
    }

    /** The pair that is kept there. */
    static KeyPair read(Path file) {
        try (Reader reader = Files.newBufferedReader(file);
                PEMParser parser = new PEMParser(reader)) {
            PrivateKey key = key(parser);
            SubjectPublicKeyInfo other = (SubjectPublicKeyInfo) parser.readObject();
            return new KeyPair(
                    KeyFactory.getInstance("EC").generatePublic(new X509EncodedKeySpec(other.getEncoded())), key);
        } catch (IOException | GeneralSecurityException e) {
            throw new IllegalStateException(file + " is no pair of keys", e);
        }
    }

    /** Keeps a pair there. */
    static void keep(Path file, KeyPair pair) {
        WholeFile.write(file, text(pair));
    }

    /**
     * The key and certificate that are kept there, a self-signed one where there is none yet.
     *
     * @param file null where it need not outlive the process
     * @param fromDays counted from now
     * @param toDays counted from now
     */
    public static KeyCertOptions selfSigned(Path file, String commonName, int fromDays, int toDays) {
        if (file != null && Files.exists(file)) {
            return readShown(file);
        }
        KeyCertOptions made = Certificates.selfSigned(commonName, fromDays, toDays);
        if (file != null) {
            keep(file, (OneKey) made);
        }
        return made;
    }

    /** Keeps a key with what is shown for it. */
    static void keep(Path file, OneKey shown) {
        try {
            StringBuilder text = new StringBuilder(pem(shown.getPrivateKey("")));
            for (X509Certificate each : shown.getCertificateChain("")) {
                text.append(Authority.pem(each));
            }
            WholeFile.write(file, text.toString());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static OneKey readShown(Path file) {
        try (Reader reader = Files.newBufferedReader(file);
                PEMParser parser = new PEMParser(reader)) {
            return new OneKey(key(parser), certificates(parser));
        } catch (IOException | GeneralSecurityException e) {
            throw new IllegalStateException(file + " is no key with its certificate", e);
        }
    }

    /** By Java's own provider, whose keys its TLS takes. */
    private static PrivateKey key(PEMParser parser) throws IOException, GeneralSecurityException {
        return KeyFactory.getInstance("EC")
                .generatePrivate(new PKCS8EncodedKeySpec(((PrivateKeyInfo) parser.readObject()).getEncoded()));
    }

    /** Certificates one behind the other. */
    static X509Certificate[] certificates(String chain) throws IOException, GeneralSecurityException {
        try (PEMParser parser = new PEMParser(new StringReader(chain))) {
            return certificates(parser);
        }
    }

    private static X509Certificate[] certificates(PEMParser parser) throws IOException, GeneralSecurityException {
        List<X509Certificate> certificates = new ArrayList<>();
        for (Object each = parser.readObject(); each != null; each = parser.readObject()) {
            certificates.add(new JcaX509CertificateConverter().getCertificate((X509CertificateHolder) each));
        }
        return certificates.toArray(X509Certificate[]::new);
    }

    private static String pem(PrivateKey key) throws IOException {
        return Authority.pem(new PemObject("PRIVATE KEY", key.getEncoded()));
    }

    private static String text(KeyPair pair) {
        try {
            return pem(pair.getPrivate()) + Authority.pem(pair.getPublic());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
