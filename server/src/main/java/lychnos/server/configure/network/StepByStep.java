package lychnos.server.configure.network;

import java.time.Duration;
import java.util.List;
import lychnos.core.order.SetupStep;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.Run;
import lychnos.server.jobs.Runs;
import lychnos.server.jobs.Work;
import lychnos.server.text.ConfigureText;
import org.jboss.logging.Logger;

/** Work on one machine, from the step in which its run stands. */
abstract class StepByStep implements Work {

    private static final Logger LOG = Logger.getLogger(StepByStep.class);
    private static final int MOST_TRIES = 3;
    private static final Duration BETWEEN_TRIES = Duration.ofSeconds(2);

    private final Runs runs;

    StepByStep(Runs runs) {
        this.runs = runs;
    }

    /** The steps, in their order. */
    abstract List<SetupStep> order();

    /** What carries the steps out for a unit. */
    abstract StepWork of(long unitId) throws Surprise;

    /** Small controllers are deaf for a moment now and then: what may pass is tried again before a person is called. */
    private String carryOut(StepWork work, SetupStep step, boolean resumed, Held held) throws Surprise, HoldLost {
        for (int tries = 1; ; tries++) {
            try {
                return work.carryOut(step, resumed, () -> runs.look(held));
            } catch (Surprise e) {
                if (!e.passing()
                        || tries == MOST_TRIES
                        || Thread.currentThread().isInterrupted()) {
                    throw e;
                }
                LOG.infof("Run %d tries again: %s", held.runId(), e.getMessage());
                Setup.pause(BETWEEN_TRIES);
                runs.look(held);
            }
        }
    }

    @Override
    public void carryOut(Held held) throws HoldLost {
        Run run = runs.look(held);
        int at = run.step == null ? 0 : order().indexOf(run.step);
        try {
            StepWork work = of(held.unitId());
            work.foundAt(run.foundAt);
            boolean resumed = run.step != null;
            while (true) {
                if (runs.cancelled(held)) {
                    return;
                }
                SetupStep step = order().get(at);
                // begun before its effect: whether a second start may repeat it is written beside the step
                runs.begin(held, step);
                String note = carryOut(work, step, resumed, held);
                runs.note(held, step, note, work.foundAt());
                resumed = false;
                at++;
                if (at == order().size()) {
                    runs.done(held, note);
                    return;
                }
            }
        } catch (Surprise e) {
            if (Thread.currentThread().isInterrupted()) {
                // what looked like a surprise was this server being stopped in the middle of an exchange
                throw new HoldLost(ConfigureText.STOPS_HERE.text());
            }
            runs.stop(held, runs.look(held).step, e.getMessage(), e.advice());
        }
    }
}
