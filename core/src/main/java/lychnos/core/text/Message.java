package lychnos.core.text;

import java.util.List;

/**
 * A text for people. An enum for each stage of the work is its catalogue: the constant is the code, by which programs
 * decide and tests compare; its pattern is the sentence, which can be written otherwise or translated freely.
 *
 * <p>A pattern names its values in braces: <code>{unit} is signed.</code> The values are given in the order in which
 * the pattern of the catalogue names them. Where a word follows a count, both of its forms are there: <code>{count}
 * {count|unit|units}</code>.
 */
public interface Message {

    /** The code. It is part of the interface and does not change when the sentence does. */
    String name();

    /** The sentence, with a name in braces for each value. */
    String pattern();

    /** What the pattern names, each once, in its order. */
    default List<String> names() {
        return Said.names(pattern());
    }

    /** The sentence with these values. */
    default String text(Object... values) {
        return said(values).text();
    }

    /**
     * The message with these values, for what passes on the code beside the sentence.
     *
     * @throws IllegalArgumentException if the pattern names another number of values
     */
    default Said said(Object... values) {
        return Said.of(this, values);
    }
}
