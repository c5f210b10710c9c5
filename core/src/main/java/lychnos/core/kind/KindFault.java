package lychnos.core.kind;

/**
 * One thing wrong in a description.
 *
 * @param line counted from 1
 * @param column counted from 1
 * @param path the keys that lead there, such as {@code facts.serial.is}; empty for the whole
 * @param reason a sentence
 */
public record KindFault(int line, int column, String path, String reason) {

    @Override
    public String toString() {
        return "line " + line + ", column " + column + (path.isEmpty() ? "" : ", " + path) + ": " + reason;
    }
}
