package lychnos.server.configure.network;

import jakarta.inject.Singleton;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import lychnos.core.order.SetupStep;
import lychnos.server.LychnosConfig;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.jobs.Run;
import lychnos.server.jobs.Runs;

/** Sets up one machine. */
@Singleton
public class SetupWork extends StepByStep {

    private final ControllerWorks works;
    private final FirstAddress firstAddress;
    private final LychnosConfig config;
    private final Clock clock;

    SetupWork(Runs runs, ControllerWorks works, FirstAddress firstAddress, LychnosConfig config, Clock clock) {
        super(runs);
        this.works = works;
        this.firstAddress = firstAddress;
        this.config = config;
        this.clock = clock;
    }

    @Override
    public String purpose() {
        return Run.CONFIGURE;
    }

    @Override
    List<SetupStep> order() {
        return SetupStep.SETUP;
    }

    @Override
    StepWork of(long unitId) throws Surprise {
        ControllerWork.Means means = works.of(unitId);
        Duration follow = config.run().followAtMost().orElse(means.kind().restartAtMost());
        return new Setup(means, firstAddress, follow, clock);
    }
}
