package lychnos.core.dialogue;

/** What a person has typed behind the question that stands on the line, and before Enter the last time. */
final class Typing {

    private String text = "";
    private String last = "";
    /** Within the several letters of a cursor key (ECMA-48). */
    private boolean withinKey;

    /** Keys that only move or draw again are no part of an answer. */
    void key(char key) {
        if (key == 0x1b) {
            withinKey = true;
        } else if (withinKey) {
            withinKey = key == '[' || key == 'O' || key >= '0' && key <= '9' || key == ';';
        } else if (key == '\b' || key == 0x7f) {
            text = text.substring(0, Math.max(0, text.length() - 1));
        } else if (key >= ' ') {
            text += key;
        }
    }

    /** Enter: what was typed is an answer now. Nothing of a password stays here. */
    String enter(boolean secret) {
        last = secret ? "" : text;
        text = "";
        return last;
    }

    String text() {
        return text;
    }

    String last() {
        return last;
    }

    /** Whether no answer has been begun. */
    boolean isEmpty() {
        return text.isEmpty();
    }
}
