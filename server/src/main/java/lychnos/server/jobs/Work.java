package lychnos.server.jobs;

import java.util.List;

/** What is done for runs of one purpose. */
public interface Work {

    /** Which runs it is for. */
    String purpose();

    /**
     * Hears of all the runs that were taken together, right before each is carried out: what they need can be read for
     * all of them at once.
     */
    default void takenOn(List<Held> together) {}

    /** Carries a run out, from where it stands to its end. */
    void carryOut(Held held) throws HoldLost;
}
