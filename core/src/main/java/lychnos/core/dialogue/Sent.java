package lychnos.core.dialogue;

import java.time.Instant;

/** Is told that an answer was sent. */
@FunctionalInterface
interface Sent {

    /** @param text what is echoed; empty for a password and for Enter alone */
    void now(String text, Instant now);
}
