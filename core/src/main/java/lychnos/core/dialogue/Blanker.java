package lychnos.core.dialogue;

import java.util.Collection;
import java.util.function.Supplier;
import lychnos.core.fact.Secret;

/**
 * Blanks passwords in what a line says, before anybody sees or keeps it. A machine may give a password back in pieces,
 * so what could be the beginning of one is held back until the next piece, or until {@link #rest}. Not safe for use by
 * several threads.
 */
public final class Blanker {

    private static final String BLANK = "•••";

    private final Supplier<Collection<Secret>> secrets;
    private String kept = "";

    /** @param secrets every password that may come by; asked each time */
    public Blanker(Supplier<Collection<Secret>> secrets) {
        this.secrets = secrets;
    }

    /** Takes what came and gives back what may be seen of it by now. */
    public String feed(String text) {
        String all = kept + text;
        int hold = 0;
        for (Secret secret : secrets.get()) {
            String before = all;
            all = secret.use(word -> before.replace(word, BLANK));
            String now = all;
            hold = Math.max(hold, secret.use(word -> begun(now, word)));
        }
        kept = all.substring(all.length() - hold);
        return all.substring(0, all.length() - hold);
    }

    /** What was held back, when nothing more has come for a while. */
    public String rest() {
        String rest = kept;
        kept = "";
        return rest;
    }

    /** How many letters at the end may be the beginning of the word. */
    private static int begun(String text, String word) {
        for (int length = Math.min(word.length() - 1, text.length()); length > 0; length--) {
            if (text.regionMatches(text.length() - length, word, 0, length)) {
                return length;
            }
        }
        return 0;
    }
}
