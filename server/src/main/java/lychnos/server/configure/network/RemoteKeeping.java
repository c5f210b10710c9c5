package lychnos.server.configure.network;

import java.time.Clock;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import lychnos.core.dialogue.DialogueStep.Remote;
import lychnos.core.dialogue.Mode;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.LastStretch;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.InOrder;
import org.jboss.logging.Logger;

/**
 * Saves what was done over the network. While the database does not answer, saving is repeated and nothing else is
 * done; where another server has taken the unit over, the owner is told.
 */
final class RemoteKeeping {

    private static final Logger LOG = Logger.getLogger(RemoteKeeping.class);
    private static final long RETRY_SECONDS = 3;

    /** The work whose changes are saved. */
    interface Owner {

        long dialogueId();

        boolean wiped();

        boolean identified();

        /** The step that is next. */
        Remote next();

        /** Whether nothing is to be done here any more. */
        boolean gone();

        /** Another server has it now. */
        void lost();

        /** A change that could not be saved at first is saved now. */
        void keptLate(RemoteChange kept);
    }

    /** How the work stands. */
    record Standing(RemoteState at, Mode mode, String note) {}

    private final Owner owner;
    private final Held held;
    private final PageSurroundings around;
    private final Clock clock;
    private final InOrder inOrder;
    private final ScheduledExecutorService clockwork;
    private final LastStretch stretch = new LastStretch();

    RemoteKeeping(
            Owner owner,
            Held held,
            PageSurroundings around,
            Clock clock,
            InOrder inOrder,
            ScheduledExecutorService clockwork) {
        this.owner = owner;
        this.held = held;
        this.around = around;
        this.clock = clock;
        this.inOrder = inOrder;
        this.clockwork = clockwork;
    }

    /** Gives back whether it is saved and ours still. */
    boolean keep(Standing standing, RemoteChange kept) {
        try {
            Change.Stretch now = RemoteChange.stretch(standing.at(), owner::next);
            Change change = kept.of(owner, clock.instant(), standing, stretch.ifNew(now));
            around.save(held, change);
            stretch.kept(change.stretch());
            return true;
        } catch (HoldLost e) {
            LOG.infof("let go of the pages of run %d: %s", held.runId(), e.getMessage());
            owner.lost();
        } catch (RuntimeException e) {
            LOG.warnf("What was done on pages cannot be saved now (%s); trying again.", e.getMessage());
            clockwork.schedule(
                    () -> inOrder.addFirst(() -> keepAgain(standing, kept)), RETRY_SECONDS, TimeUnit.SECONDS);
        }
        return false;
    }

    private void keepAgain(Standing standing, RemoteChange kept) {
        if (!owner.gone() && keep(standing, kept)) {
            owner.keptLate(kept);
        }
    }
}
