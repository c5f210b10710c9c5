package lychnos.server.configure.network;

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

    private static Hold hold(Why why, int step, String sentence) {
        return new Hold(why, step, sentence, "", "");
    }
}
