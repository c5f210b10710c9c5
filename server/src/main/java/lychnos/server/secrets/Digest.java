package lychnos.server.secrets;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Base64;
import lychnos.core.text.Sha256;

/** Tokens that are handed out once and kept as digests alone. */
public final class Digest {

    private static final SecureRandom RANDOM = new SecureRandom();

    private Digest() {}

    /** A new token of 256 bits. */
    public static String token() {
        byte[] bytes = new byte[32];
        RANDOM.nextBytes(bytes);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    public static byte[] of(String token) {
        return Sha256.begin().digest(token.getBytes(StandardCharsets.UTF_8));
    }
}
