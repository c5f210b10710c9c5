package lychnos.server.configure.network;

import java.util.Optional;
import lychnos.core.dialogue.DialogueStep.Remote;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.server.text.ConfigureText;
import lychnos.wire.fault.WireFault;

/** What work over the network asks a person for. */
final class RemoteHolds {

    private RemoteHolds() {}

    static Hold otherForm(int step, Remote remote) {
        return hold(Why.PAGE, step, ConfigureText.SHOWS_ANOTHER_FORM_THAN_ITS_DESCRIPTION_SAYS.text(remote.title()));
    }

    static Hold overdue(int step, Remote remote) {
        return hold(
                Why.OVERDUE,
                step,
                ConfigureText.TAKES_LONGER_THAN_MIN.text(
                        remote.title(),
                        remote.longest().toMinutes(),
                        remote.usually().toMinutes()));
    }

    /** @param what is not reached, such as “the controller” */
    static Hold unreached(int step, Remote remote, String what, WireFault fault) {
        return hold(
                Why.UNREACHED, step, ConfigureText.STEP_CANNOT_REACH.text(remote.title(), what, fault.getMessage()));
    }

    /** Said while a step that cannot be reached is tried again. */
    static String tryingAgain(Remote remote, String what, WireFault fault) {
        return ConfigureText.STEP_CANNOT_REACH_NOW.text(remote.title(), what, fault.getMessage());
    }

    /** Why a person cannot go on at a hold, or nothing; null stands for no hold. */
    static Optional<String> refusal(Hold hold, String typed) {
        if (hold == null) {
            return Optional.of(ConfigureText.NO_DECISION_IS_NEEDED.text());
        }
        if (!hold.why().passable()) {
            return Optional.of(ConfigureText.CANNOT_BE_SKIPPED.text(hold.sentence()));
        }
        if (hold.why() == Why.CONSENT && typed.strip().length() < Hold.SHORTEST_REASON) {
            return Optional.of(ConfigureText.ENTER_THE_REASON_OF_YOUR_CONSENT.text(Hold.SHORTEST_REASON));
        }
        return hold.typed().isEmpty() || hold.typed().equals(typed.strip())
                ? Optional.empty()
                : Optional.of(ConfigureText.TYPE_IT_TO_WRITE.text(hold.typed()));
    }

    private static Hold hold(Why why, int step, String sentence) {
        return new Hold(why, step, sentence, "", "");
    }
}
