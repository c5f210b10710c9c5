package lychnos.core.fact;

import java.util.function.Function;

/**
 * A password or key. It cannot be printed: {@link #toString()} tells only that it is one, so that no log line, message
 * or exception gives it away. The one way to its text is {@link #use}, which says at the call where it goes.
 */
public final class Secret {

    private final String text;

    private Secret(String text) {
        this.text = text;
    }

    public static Secret of(String text) {
        if (text == null || text.isEmpty()) {
            throw new IllegalArgumentException("a secret is not empty");
        }
        return new Secret(text);
    }

    /** Hands the text to the one place that needs it. */
    public <T> T use(Function<String, T> consumer) {
        return consumer.apply(text);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Secret secret && java.security.MessageDigest.isEqual(bytes(), secret.bytes());
    }

    private byte[] bytes() {
        return text.getBytes(java.nio.charset.StandardCharsets.UTF_8);
    }

    @Override
    public int hashCode() {
        return 0;
    }

    @Override
    public String toString() {
        return "(secret)";
    }
}
