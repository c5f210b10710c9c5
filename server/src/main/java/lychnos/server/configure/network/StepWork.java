package lychnos.server.configure.network;

import lychnos.core.address.Address;
import lychnos.core.order.SetupStep;
import lychnos.server.jobs.HoldLost;
import org.jspecify.annotations.Nullable;

/** Carries the steps of a run out on one machine. */
interface StepWork {

    /** Asks whether this server still holds the run. */
    @FunctionalInterface
    interface Hold {
        void look() throws HoldLost;
    }

    /**
     * Carries a step out.
     *
     * @param resumed whether the step was begun before and interrupted
     * @return what was seen, for the record
     */
    String carryOut(SetupStep step, boolean resumed, Hold hold) throws Surprise, HoldLost;

    /** Where the machine answers, as far as it was looked for; null before. */
    @Nullable
    Address foundAt();

    /** Where it answered before an interruption. */
    void foundAt(@Nullable Address address);
}
