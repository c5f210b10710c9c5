package lychnos.server.configure.network;

import java.util.Optional;
import lychnos.core.dialogue.DialogueStep.Remote;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.wire.fault.WireFault;

/** What work over the network asks a person for. */
final class RemoteHolds {

    private RemoteHolds() {}

    static Hold otherForm(int step, Remote remote) {
        return hold(
                Why.PAGE,
                step,
                "“" + remote.title()
                        + "” shows another form than its description says, so that it was not set. Do it by "
                        + "hand, or correct the description.");
    }

    static Hold overdue(int step, Remote remote) {
        return hold(
                Why.OVERDUE,
                step,
                "“" + remote.title() + "” takes longer than " + remote.longest().toMinutes() + " min; "
                        + remote.usually().toMinutes() + " min is usual. Look at the machine, or keep waiting.");
    }

    /** @param what is not reached, such as “the controller” */
    static Hold unreached(int step, Remote remote, String what, WireFault fault) {
        return hold(
                Why.UNREACHED,
                step,
                "For “" + remote.title() + "” " + what + " cannot be reached: " + fault.getMessage()
                        + ". Going on tries it again.");
    }

    /** Said while a step that cannot be reached is tried again. */
    static String tryingAgain(Remote remote, String what, WireFault fault) {
        return "“" + remote.title() + "”: " + what + " cannot be reached now: " + fault.getMessage()
                + ". Trying again.";
    }

    /** Why a person cannot go on at a hold, or nothing; null stands for no hold. */
    static Optional<String> refusal(Hold hold, String typed) {
        if (hold == null) {
            return Optional.of("No decision is needed here now.");
        }
        if (!hold.why().passable()) {
            return Optional.of("This cannot be skipped. " + hold.sentence());
        }
        return hold.typed().isEmpty() || hold.typed().equals(typed.strip())
                ? Optional.empty()
                : Optional.of("Wanted is “" + hold.typed() + "”, typed letter by letter. Nothing was written.");
    }

    private static Hold hold(Why why, int step, String sentence) {
        return new Hold(why, step, sentence, "", "");
    }
}
