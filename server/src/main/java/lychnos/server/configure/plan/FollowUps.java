package lychnos.server.configure.plan;

import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.PageFill;
import lychnos.core.order.RunState;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.jobs.Run;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.text.ConfigureText;
import lychnos.server.time.Clockwork;
import lychnos.server.units.BringUps;
import org.hibernate.Session;
import org.jboss.logging.Logger;

/**
 * Takes setups up again that ended without a page whose value was not known, such as a permanent licence key behind a
 * temporary one. A signed unit stays as it is until it is opened again.
 */
@ApplicationScoped
public class FollowUps {

    private static final Logger LOG = Logger.getLogger(FollowUps.class);
    private static final Duration LOOKED_FOR_EVERY = Duration.ofSeconds(3);

    private final Session db;
    private final BringUps bringUps;
    private final Openings openings;
    private final ConsoleStore store;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final Clockwork clockwork;

    FollowUps(
            Session db,
            BringUps bringUps,
            Openings openings,
            ConsoleStore store,
            Journal journal,
            Live live,
            Clock clock,
            Clockwork clockwork) {
        this.db = db;
        this.bringUps = bringUps;
        this.openings = openings;
        this.store = store;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
        this.clockwork = clockwork;
    }

    void start(@Observes StartupEvent event) {
        clockwork.every(LOOKED_FOR_EVERY, "Pages that were left for later cannot be looked for now", this::look);
    }

    private void look() {
        for (long runId : left()) {
            try {
                takeUp(runId);
            } catch (RuntimeException e) {
                // the others are not to wait for it
                LOG.warnf("What was left of run %d cannot be taken up now (%s); trying again.", runId, e.getMessage());
            }
        }
    }

    /** Setups that ended without a page; of units that a person may change. */
    @Transactional
    List<Long> left() {
        return db.createNativeQuery(
                        "select distinct r.id from dialogue_step s join dialogue d on d.id = s.dialogue_id and not "
                                + "d.earlier join run r on r.id = d.run_id and r.state = 'DONE' and not r.earlier "
                                + "join unit u on u.id = r.unit_id and u.retired_at is null where s.progress = "
                                + "'LATER' and not exists (select 1 from signed_unit g where g.unit_id = u.id) "
                                + "order by r.id",
                        Long.class)
                .getResultList();
    }

    /** Takes a setup up again where every value of a page is known now. */
    @Transactional
    boolean takeUp(long runId) {
        Run run = db.find(Run.class, runId, LockModeType.PESSIMISTIC_WRITE);
        db.refresh(run);
        if (run.state != RunState.DONE) {
            return false; // another server was first
        }
        boolean any = false;
        for (Openings.LineOpening opening : openings.of(runId, run.unitId)) {
            Optional<String> page = known(opening);
            if (page.isPresent()) {
                store.takeUpLeft(opening.kept().dialogue().id);
                journal.writeWork(
                        bringUps.unit(run.unitId).bringUpId,
                        run.unitId,
                        ConfigureText.CONTINUES_WITH_WHAT_WAS_LEFT.text(page.get()));
                any = true;
            }
        }
        if (any) {
            run.become(RunState.WAITING, clock.instant());
            run.note = "";
            live.tell(bringUps.unit(run.unitId).bringUpId, "configure");
        }
        return any;
    }

    /** The first page that was left and can be filled in now, by its title. */
    private static Optional<String> known(Openings.LineOpening opening) {
        List<DialogueStep> steps = opening.dialogue()
                .withPages(opening.kept().dialogue().member, opening.kept().dialogue().wiped);
        List<Progress> progress = opening.kept().progress();
        for (int i = 0; i < steps.size() && i < progress.size(); i++) {
            if (progress.get(i) == Progress.LATER
                    && steps.get(i) instanceof DialogueStep.Page page
                    && new PageFill(page, opening.values()).lacking().isEmpty()) {
                return Optional.of(page.title());
            }
        }
        return Optional.empty();
    }
}
