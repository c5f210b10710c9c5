package lychnos.server.run;

/** What is done for runs of one purpose. */
public interface Work {

    /** Which runs it is for. */
    String purpose();

    /** Carries a run out, from where it stands to its end. */
    void carryOut(Held held) throws HoldLost;
}
