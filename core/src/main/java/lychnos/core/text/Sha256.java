package lychnos.core.text;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** SHA-256 (FIPS 180-4). */
public final class Sha256 {

    private Sha256() {}

    /** One that is fed piece by piece. */
    public static MessageDigest begin() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("SHA-256 is part of every Java", e);
        }
    }

    /** The digest in hexadecimal, 64 digits in lower case. */
    public static String hex(byte[] bytes) {
        return HexFormat.of().formatHex(begin().digest(bytes));
    }

    /** The same of a text in UTF-8. */
    public static String hex(String text) {
        return hex(text.getBytes(StandardCharsets.UTF_8));
    }
}
