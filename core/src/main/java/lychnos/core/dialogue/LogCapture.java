package lychnos.core.dialogue;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.regex.Pattern;

/** The machine's own log, while it is shown on the line after the command for it was sent. */
final class LogCapture {

    /** After this time a log ends with what was shown until then. */
    private static final Duration LONGEST = Duration.ofMinutes(2);

    /** The most characters of a log; what comes later is left out. */
    static final int MOST = 200_000;

    /** Colours and movements of the cursor (ECMA-48), which tell nothing in a text. */
    private static final Pattern CONTROL =
            Pattern.compile("\u001b\\[[0-9;?]*[ -/]*[@-~]|[\u0000-\u0008\u000b-\u001f\u007f]");

    private final StringBuilder heard = new StringBuilder();
    private final Instant began;
    private boolean more;
    private Screen.Place paged;

    LogCapture(Instant began) {
        this.began = began;
    }

    void heard(String bytes) {
        int fits = Math.min(bytes.length(), MOST - heard.length());
        heard.append(bytes, 0, fits);
        more |= fits < bytes.length();
    }

    /** Whether a key was not pressed yet where the cursor is. */
    boolean pagesFrom(Screen.Place cursor) {
        boolean fresh = !cursor.equals(paged);
        paged = cursor;
        return fresh;
    }

    Instant until() {
        return began.plus(LONGEST);
    }

    /** Whether nothing more is waited for: it is long enough, or takes too long. */
    boolean endsAnyway(Instant now) {
        return more || !now.isBefore(until());
    }

    /** The log without the command before it and the prompt behind it, if something came. */
    Optional<String> text(boolean ended) {
        String plain = CONTROL.matcher(heard.toString().replace("\r\n", "\n").replace('\r', '\n'))
                .replaceAll("");
        int command = plain.indexOf('\n');
        int prompt = plain.lastIndexOf('\n');
        String log = ended && prompt > command ? plain.substring(command + 1, prompt) : plain.substring(command + 1);
        String whole = log.strip().isEmpty() ? "" : log.stripTrailing() + "\n";
        return whole.isEmpty()
                ? Optional.empty()
                : Optional.of(ended ? whole : whole + DialogueText.LOG_CUT.text() + "\n");
    }
}
