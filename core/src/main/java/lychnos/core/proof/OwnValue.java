package lychnos.core.proof;

import java.util.Arrays;
import java.util.Optional;

/** What a machine tells of itself at each check, beside the settings that were planned for it. */
public enum OwnValue {
    /** The version of its software. */
    FIRMWARE("firmware"),
    /** What its clock says, in a form of ISO 8601 with its zone, such as {@code 2026-11-23T02:14:00Z}. */
    CLOCK("clock"),
    /** What its maker calls it. */
    MODEL("model");

    private final String word;

    OwnValue(String word) {
        this.word = word;
    }

    /** The word by which a kind refers to it. */
    public String word() {
        return word;
    }

    public static Optional<OwnValue> named(String word) {
        return Arrays.stream(values()).filter(each -> each.word.equals(word)).findFirst();
    }
}
