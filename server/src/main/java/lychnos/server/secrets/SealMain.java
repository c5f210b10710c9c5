package lychnos.server.secrets;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.Date;
import org.bouncycastle.bcpg.SymmetricKeyAlgorithmTags;
import org.bouncycastle.openpgp.PGPEncryptedDataGenerator;
import org.bouncycastle.openpgp.PGPEncryptedDataList;
import org.bouncycastle.openpgp.PGPException;
import org.bouncycastle.openpgp.PGPLiteralData;
import org.bouncycastle.openpgp.PGPLiteralDataGenerator;
import org.bouncycastle.openpgp.PGPPBEEncryptedData;
import org.bouncycastle.openpgp.PGPUtil;
import org.bouncycastle.openpgp.bc.BcPGPObjectFactory;
import org.bouncycastle.openpgp.operator.PGPKeyEncryptionMethodGenerator;
import org.bouncycastle.openpgp.operator.bc.BcPBEDataDecryptorFactory;
import org.bouncycastle.openpgp.operator.bc.BcPBEKeyEncryptionMethodGenerator;
import org.bouncycastle.openpgp.operator.bc.BcPGPDataEncryptorBuilder;
import org.bouncycastle.openpgp.operator.bc.BcPGPDigestCalculatorProvider;

/**
 * Encrypts a stream for a passphrase or a public key, and decrypts one that was encrypted for a passphrase (OpenPGP,
 * RFC 4880): from standard input to standard output. {@code seal passphrase FILE}, {@code seal key FILE}, {@code open
 * passphrase FILE}.
 */
public final class SealMain {

    /** How often a passphrase is hashed, as RFC 4880 section 3.7.1.3 codes it: 65 million bytes. */
    private static final int S2K_COUNT = 0xff;

    private static final int BUFFER = 1 << 16;

    private SealMain() {}

    public static void main(String[] args) throws IOException {
        try (InputStream in = new BufferedInputStream(System.in, BUFFER);
                OutputStream out = new BufferedOutputStream(System.out, BUFFER)) {
            String given = Files.readString(Path.of(args[2])).strip();
            if (args[0].equals("open")) {
                open(in, out, given.toCharArray());
            } else if (args[1].equals("key")) {
                seal(in, out, SealedForKey.read(given, Instant.now()).method());
            } else {
                seal(
                        in,
                        out,
                        new BcPBEKeyEncryptionMethodGenerator(
                                given.toCharArray(),
                                new BcPGPDigestCalculatorProvider().get(org.bouncycastle.bcpg.HashAlgorithmTags.SHA256),
                                S2K_COUNT));
            }
        } catch (PGPException | IllegalArgumentException e) {
            System.err.println("lychnos: " + e.getMessage());
            System.exit(1);
        }
    }

    static void seal(InputStream in, OutputStream out, PGPKeyEncryptionMethodGenerator method)
            throws IOException, PGPException {
        PGPEncryptedDataGenerator generator =
                new PGPEncryptedDataGenerator(new BcPGPDataEncryptorBuilder(SymmetricKeyAlgorithmTags.AES_256)
                        .setWithIntegrityPacket(true)
                        .setSecureRandom(new SecureRandom()));
        generator.addMethod(method);
        try (OutputStream encrypted = generator.open(out, new byte[BUFFER]);
                OutputStream literal = new PGPLiteralDataGenerator()
                        .open(encrypted, PGPLiteralData.BINARY, "lychnos.dump", new Date(), new byte[BUFFER])) {
            in.transferTo(literal);
        }
    }

    /** @throws PGPException where the passphrase is wrong, or the text was changed or cut off */
    static void open(InputStream in, OutputStream out, char[] passphrase) throws IOException, PGPException {
        Object packet = new BcPGPObjectFactory(PGPUtil.getDecoderStream(in)).nextObject();
        if (!(packet instanceof PGPEncryptedDataList list) || !(list.get(0) instanceof PGPPBEEncryptedData data)) {
            throw new PGPException(
                    "this is not encrypted for a passphrase; what is encrypted for a key is decrypted with that key "
                            + "first");
        }
        Object inside = new BcPGPObjectFactory(data.getDataStream(
                        new BcPBEDataDecryptorFactory(passphrase, new BcPGPDigestCalculatorProvider())))
                .nextObject();
        if (!(inside instanceof PGPLiteralData literal)) {
            throw new PGPException("the passphrase is wrong");
        }
        literal.getInputStream().transferTo(out);
        if (!data.isIntegrityProtected() || !data.verify()) {
            throw new PGPException("the file was changed or cut off");
        }
    }
}
