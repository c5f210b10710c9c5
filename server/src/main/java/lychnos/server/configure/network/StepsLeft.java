package lychnos.server.configure.network;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Remote;

/** The steps of a member in order, how far each is, and the one in hand. For one thread at a time. */
final class StepsLeft {

    static final int NONE = -1;

    private final List<DialogueStep> steps;
    private final List<Progress> progress;
    private RemoteStep doing;
    private int doingStep = NONE;

    StepsLeft(List<DialogueStep> steps, List<Progress> progress) {
        this.steps = steps;
        this.progress = new ArrayList<>(progress);
    }

    List<DialogueStep> steps() {
        return steps;
    }

    /** How far each step is, as it is at any time. */
    List<Progress> progress() {
        return progress;
    }

    Remote step(int place) {
        return (Remote) steps.get(place);
    }

    /** Whether a step was begun, and perhaps broken off. */
    boolean begun(int place) {
        return progress.get(place) == Progress.SENT;
    }

    void moved(int place, Progress to) {
        progress.set(place, to);
    }

    /** The first step that the program carries out and that is not done; {@link #NONE}, if there is none left. */
    int next() {
        for (int i = 0; i < steps.size(); i++) {
            boolean open = progress.get(i) == Progress.OPEN || progress.get(i) == Progress.SENT;
            if (open && steps.get(i) instanceof Remote remote && remote.driven() && !remote.first()) {
                return i;
            }
        }
        return NONE;
    }

    /** The step in hand; it knows what it has seen so far. */
    RemoteStep doing(RemoteWork work, StepMaker maker, int place) {
        if (doing == null || doingStep != place) {
            doingStep = place;
            doing = maker.make(work, place, step(place));
        }
        return doing;
    }

    /** Values have changed: the step in hand is made again. */
    void forgetDoing() {
        doing = null;
    }
}
