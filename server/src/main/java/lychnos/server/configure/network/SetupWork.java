package lychnos.server.configure.network;

import jakarta.enterprise.context.ApplicationScoped;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import lychnos.core.fact.PasswordMaker;
import lychnos.core.kind.Kind;
import lychnos.core.order.SetupStep;
import lychnos.server.LychnosConfig;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.Run;
import lychnos.server.jobs.Runs;
import lychnos.server.jobs.Work;
import lychnos.server.kinds.Kinds;
import lychnos.server.prove.Proofs;
import lychnos.server.prove.Targets;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.OwnLogins;
import lychnos.wire.vantage.Vantage;
import org.jboss.logging.Logger;

/** Sets up one machine, step by step, from where its run stands. */
@ApplicationScoped
public class SetupWork implements Work {

    private static final Logger LOG = Logger.getLogger(SetupWork.class);
    private static final int MOST_TRIES = 3;
    private static final Duration BETWEEN_TRIES = Duration.ofSeconds(2);

    private final Runs runs;
    private final Targets targets;
    private final Proofs proofs;
    private final SealedStore sealed;
    private final FirstAddress firstAddress;
    private final Clock clock;
    private final Vantage vantage;
    private final Kinds kinds;
    private final OwnLogins ownLogins;
    private final LychnosConfig config;
    private final PasswordMaker passwords = new PasswordMaker(new SecureRandom());

    SetupWork(
            Runs runs,
            Targets targets,
            Proofs proofs,
            SealedStore sealed,
            FirstAddress firstAddress,
            Clock clock,
            Vantage vantage,
            Kinds kinds,
            OwnLogins ownLogins,
            LychnosConfig config) {
        this.runs = runs;
        this.targets = targets;
        this.proofs = proofs;
        this.sealed = sealed;
        this.firstAddress = firstAddress;
        this.clock = clock;
        this.vantage = vantage;
        this.kinds = kinds;
        this.ownLogins = ownLogins;
        this.config = config;
    }

    @Override
    public String purpose() {
        return Run.CONFIGURE;
    }

    /** Small controllers are deaf for a moment now and then: what may pass is tried again before a person is called. */
    private String carryOut(Setup setup, SetupStep step, boolean resumed, Held held) throws Surprise, HoldLost {
        for (int tries = 1; ; tries++) {
            try {
                return setup.carryOut(step, resumed, () -> runs.look(held));
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
        SetupStep step = run.step == null ? SetupStep.FIND : run.step;
        try {
            Targets.Subject subject = targets.subject(held.unitId())
                    .orElseThrow(() -> new Surprise(
                            ConfigureText.UNIT_NO_LONGER_HAS_AN_ADDRESS.text(),
                            ConfigureText.ENTER_ITS_FACTS_AND_ALLOCATE_ITS_ADDRESS.text()));
            Kind kind = ownLogins.with(kinds.of(subject.unit()), held.unitId(), "");
            Duration follow = config.run().followAtMost().orElse(kind.restartAtMost());
            Setup setup =
                    new Setup(subject, kind, vantage, firstAddress, targets, proofs, sealed, passwords, follow, clock);
            setup.foundAt(run.foundAt);
            boolean resumed = run.step != null;
            while (true) {
                if (runs.cancelled(held)) {
                    return;
                }
                // begun before its effect: whether a second start may repeat it is written beside the step
                runs.begin(held, step);
                String note = carryOut(setup, step, resumed, held);
                runs.note(held, step, note, setup.foundAt());
                resumed = false;
                if (step.next().isEmpty()) {
                    runs.done(held, note);
                    return;
                }
                step = step.next().get();
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
