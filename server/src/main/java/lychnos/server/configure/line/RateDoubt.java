package lychnos.server.configure.line;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.LineNoise;
import lychnos.core.dialogue.LineSettings;
import lychnos.server.text.ConfigureText;

/** Notes where a line shows so much noise that the machine is probably at another rate, and when that is over. */
final class RateDoubt {

    private final LineNoise noise = new LineNoise();
    private final LineChanges changes;
    private final LineSettings line;
    private boolean noted;

    RateDoubt(LineChanges changes, LineSettings line) {
        this.changes = changes;
        this.line = line;
    }

    /** The line is up again: another machine may be on it. */
    void restart() {
        noise.restart();
    }

    void heard(String text) {
        if (noise.heard(text.getBytes(StandardCharsets.ISO_8859_1))) {
            note();
        } else if (noted && !noise.isMost()) {
            noted = false;
            changes.note("");
        }
    }

    /** A machine at another rate answers a key with a few odd characters, which nobody foresaw. */
    void asks(Optional<Hold> hold) {
        if (noise.isMost()
                && hold.filter(each -> each.why() == Hold.Why.UNFORESEEN).isPresent()) {
            note();
        }
    }

    private void note() {
        noted = true;
        changes.note(ConfigureText.LINE_PROBABLY_OTHER_RATE.text(line));
    }
}
