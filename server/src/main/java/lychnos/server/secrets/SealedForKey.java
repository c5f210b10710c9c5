package lychnos.server.secrets;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Instant;
import java.util.Date;
import java.util.HexFormat;
import java.util.Iterator;
import lychnos.server.text.SecretText;
import org.bouncycastle.bcpg.ArmoredOutputStream;
import org.bouncycastle.bcpg.SymmetricKeyAlgorithmTags;
import org.bouncycastle.bcpg.sig.KeyFlags;
import org.bouncycastle.openpgp.PGPEncryptedDataGenerator;
import org.bouncycastle.openpgp.PGPException;
import org.bouncycastle.openpgp.PGPLiteralData;
import org.bouncycastle.openpgp.PGPLiteralDataGenerator;
import org.bouncycastle.openpgp.PGPPublicKey;
import org.bouncycastle.openpgp.PGPPublicKeyRing;
import org.bouncycastle.openpgp.PGPSignature;
import org.bouncycastle.openpgp.PGPUtil;
import org.bouncycastle.openpgp.operator.bc.BcKeyFingerprintCalculator;
import org.bouncycastle.openpgp.operator.bc.BcPGPDataEncryptorBuilder;
import org.bouncycastle.openpgp.operator.bc.BcPublicKeyKeyEncryptionMethodGenerator;

/** Encrypts a text for the holder of a key (OpenPGP, RFC 4880): AES-256 with its integrity packet, in ASCII armour. */
public final class SealedForKey {

    private static final int LONGEST_KEY = 100_000;

    private final PGPPublicKey key;
    private final String user;
    private final String fingerprint;

    private SealedForKey(PGPPublicKey key, String user, String fingerprint) {
        this.key = key;
        this.user = user;
        this.fingerprint = fingerprint;
    }

    /**
     * Reads a public key.
     *
     * @param armored as {@code -----BEGIN PGP PUBLIC KEY BLOCK-----}
     * @throws IllegalArgumentException where it is none, has expired or was revoked, or encrypts nothing
     */
    public static SealedForKey read(String armored, Instant now) {
        if (armored == null || armored.length() > LONGEST_KEY || !armored.contains("BEGIN PGP PUBLIC KEY BLOCK")) {
            throw new IllegalArgumentException(SecretText.PASTE_AN_OPENPGP_PUBLIC_KEY.text());
        }
        try {
            PGPPublicKeyRing ring = new PGPPublicKeyRing(
                    PGPUtil.getDecoderStream(new ByteArrayInputStream(armored.getBytes(StandardCharsets.UTF_8))),
                    new BcKeyFingerprintCalculator());
            PGPPublicKey first = ring.getPublicKey();
            Iterator<String> users = first.getUserIDs();
            String user = users.hasNext() ? users.next() : "nobody's name";
            String fingerprint = HexFormat.of().formatHex(first.getFingerprint());
            if (first.hasRevocation() || over(first, now)) {
                throw new IllegalArgumentException(SecretText.KEY_OF_HAS_EXPIRED_OR_WAS_REVOKED.text(user));
            }
            PGPPublicKey chosen = null;
            for (PGPPublicKey each : ring) {
                if (each.isEncryptionKey() && encrypts(each) && !each.hasRevocation() && !over(each, now)) {
                    chosen = each;
                }
            }
            if (chosen == null) {
                throw new IllegalArgumentException(SecretText.KEY_OF_HAS_NO_PART_THAT_ENCRYPTS.text(user));
            }
            return new SealedForKey(chosen, user, fingerprint);
        } catch (IOException | RuntimeException e) {
            if (e instanceof IllegalArgumentException own) {
                throw own;
            }
            throw new IllegalArgumentException(SecretText.KEY_CANNOT_BE_READ.text(e.getMessage()), e);
        }
    }

    private static boolean over(PGPPublicKey key, Instant now) {
        return key.getValidSeconds() > 0
                && key.getCreationTime()
                        .toInstant()
                        .plusSeconds(key.getValidSeconds())
                        .isBefore(now);
    }

    /** What its own signatures say that it is for; one that says nothing may be used. */
    private static boolean encrypts(PGPPublicKey key) {
        for (Iterator<PGPSignature> signatures = key.getSignatures(); signatures.hasNext(); ) {
            PGPSignature each = signatures.next();
            if (each.getHashedSubPackets() != null && each.getHashedSubPackets().getKeyFlags() != 0) {
                return (each.getHashedSubPackets().getKeyFlags() & (KeyFlags.ENCRYPT_COMMS | KeyFlags.ENCRYPT_STORAGE))
                        != 0;
            }
        }
        return true;
    }

    public String user() {
        return user;
    }

    public String fingerprint() {
        return fingerprint;
    }

    /** How something is encrypted for this key. */
    BcPublicKeyKeyEncryptionMethodGenerator method() {
        return new BcPublicKeyKeyEncryptionMethodGenerator(key);
    }

    public String seal(String text, String name) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        PGPEncryptedDataGenerator generator =
                new PGPEncryptedDataGenerator(new BcPGPDataEncryptorBuilder(SymmetricKeyAlgorithmTags.AES_256)
                        .setWithIntegrityPacket(true)
                        .setSecureRandom(new SecureRandom()));
        generator.addMethod(method());
        ByteArrayOutputStream sealed = new ByteArrayOutputStream();
        try (OutputStream armour = ArmoredOutputStream.builder().clearHeaders().build(sealed);
                OutputStream encrypted = generator.open(armour, new byte[1 << 12]);
                OutputStream literal = new PGPLiteralDataGenerator()
                        .open(encrypted, PGPLiteralData.UTF8, name, bytes.length, new Date())) {
            literal.write(bytes);
        } catch (IOException | PGPException e) {
            throw new IllegalStateException("a text can be sealed", e);
        }
        return sealed.toString(StandardCharsets.US_ASCII);
    }
}
