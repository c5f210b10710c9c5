package lychnos.server.configure.line;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.model.StepWriter.Step;
import lychnos.server.jobs.GroupCommit;
import lychnos.server.jobs.GroupCommit.Outcome;
import lychnos.server.jobs.HoldLost;

/** Saves the steps of all lines; a line goes on once its own step is saved. */
@ApplicationScoped
public class StepQueue {

    private static final int MOST_TOGETHER = 64;

    private final ConsoleStore store;
    private final GroupCommit<Step, Void> commits;

    StepQueue(ConsoleStore store) {
        this.store = store;
        // a step that changes the plan goes alone: it writes before its fence is compared
        commits = new GroupCommit<>(MOST_TOGETHER, step -> step.change().steps() != null, this::write);
    }

    /**
     * Returns once the step is in the database.
     *
     * @throws HoldLost if this server no longer holds the unit; nothing was written
     */
    public void save(Step step) throws HoldLost {
        commits.commit(step);
    }

    private List<Outcome<Void>> write(List<Step> together) {
        if (together.size() > 1) {
            return store.saveAll(together).stream().map(StepQueue::outcome).toList();
        }
        try {
            store.save(together.get(0));
            return List.of(outcome(true));
        } catch (HoldLost e) {
            return List.of(new Outcome<>(null, e));
        }
    }

    private static Outcome<Void> outcome(boolean ours) {
        return ours ? Outcome.written(null) : Outcome.lost(ConsoleStore.LOST);
    }
}
