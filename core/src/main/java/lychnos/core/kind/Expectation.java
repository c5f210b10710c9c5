package lychnos.core.kind;

import java.util.Arrays;

/** What is wanted of something that a machine may or may not answer. */
public enum Expectation {
    EXPECTED("expected"),
    FORBIDDEN("forbidden"),
    NOT_CHECKED("not checked");

    private final String word;

    Expectation(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    /**
     * Reads the word as people write it; a kind may say yes and no as well.
     *
     * @throws IllegalArgumentException with a sentence that says what is possible
     */
    public static Expectation parse(String text) {
        String typed = text.strip();
        return switch (typed) {
            case "yes", "true" -> EXPECTED;
            case "no", "false" -> NOT_CHECKED;
            default ->
                Arrays.stream(values())
                        .filter(each -> each.word.equals(typed))
                        .findFirst()
                        .orElseThrow(() -> new IllegalArgumentException(KindFaultText.NOT_AN_EXPECTATION.text(typed)));
        };
    }
}
