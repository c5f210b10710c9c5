package lychnos.server.configure.network;

import lychnos.core.dialogue.DialogueStep.Remote;

/** Makes what carries a step out. */
@FunctionalInterface
public interface StepMaker {

    RemoteStep make(RemoteWork work, int place, Remote step);
}
