package lychnos.core.fact;

import java.util.random.RandomGenerator;

/**
 * Makes passwords that can be typed at a rack: letters and digits that lie on the same key in the common Latin keyboard
 * layouts (no y, z, a, q, w or m, which move), none that is taken for another (no 0 O 1 l I), with an upper-case
 * letter, a lower-case letter and a digit, since most machines ask for all three.
 */
public final class PasswordMaker {

    private static final String UPPER = "BCDEFGHJKLNPRSTUVX";
    private static final String LOWER = "bcdefghijknprstuvx";
    private static final String DIGIT = "23456789";
    private static final String ALL = UPPER + LOWER + DIGIT;

    private final RandomGenerator random;

    /** @param random a source fit for secrets, such as {@link java.security.SecureRandom} */
    public PasswordMaker(RandomGenerator random) {
        this.random = random;
    }

    /**
     * A new password; each letter adds about 5.4 bits.
     *
     * @param length 12 to 64 characters
     */
    public Secret make(int length) {
        if (length < 12 || length > 64) {
            throw new IllegalArgumentException("a password has 12 to 64 characters");
        }
        while (true) {
            StringBuilder text = new StringBuilder(length);
            for (int i = 0; i < length; i++) {
                text.append(ALL.charAt(random.nextInt(ALL.length())));
            }
            if (has(text, UPPER) && has(text, LOWER) && has(text, DIGIT)) {
                return Secret.of(text.toString());
            }
        }
    }

    private static boolean has(CharSequence text, String letters) {
        return text.chars().anyMatch(c -> letters.indexOf(c) >= 0);
    }
}
