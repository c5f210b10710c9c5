package lychnos.server.configure.model;

import lychnos.core.dialogue.Hold;

/** Why a line is held, as screens are told it. */
public record HoldView(String why, int step, String sentence, String shown, String typed, boolean passable) {

    /** @param hold may be null, and is then */
    public static HoldView of(Hold hold) {
        return hold == null
                ? null
                : new HoldView(
                        hold.why().name(),
                        hold.step(),
                        hold.sentence(),
                        hold.shown(),
                        hold.typed(),
                        hold.why().passable());
    }
}
