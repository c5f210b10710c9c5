package lychnos.core.order;

import java.util.List;

/**
 * The steps that work on a machine over a standard interface, in the order of a first setup. A run keeps the step it is in; after an
 * interruption that step is begun again, so each says whether it is noted before its effect or after it.
 */
public enum SetupStep {
    FIND("finding it", Noted.AFTER),
    IDENTIFY("is it the machine on the label", Noted.AFTER),
    SEAL_PASSWORD("sealing a new password", Noted.AFTER),
    /** Noted before: the new password lies sealed, and a second start tries it first. */
    SET_PASSWORD("replacing the password", Noted.BEFORE),
    PROVE_PASSWORD("logging in again with the new password", Noted.AFTER),
    SET_TIME("setting time servers", Noted.AFTER),
    /** Noted before: the connection may die with the old address; a second start looks at the new address first. */
    SET_NETWORK("setting name and address", Noted.BEFORE),
    FOLLOW("waiting for it at its new address", Noted.AFTER),
    READ_BACK("reading back", Noted.AFTER),
    PROVE("climbing the ladder", Noted.AFTER);

    /** All of them: a first setup. */
    public static final List<SetupStep> SETUP = List.of(values());

    /** Those that replace the password of a machine in use. */
    public static final List<SetupStep> PASSWORD_CHANGE =
            List.of(FIND, IDENTIFY, SEAL_PASSWORD, SET_PASSWORD, PROVE_PASSWORD, PROVE);

    /** When a step is committed: before what it does to the machine, or after. */
    public enum Noted {
        BEFORE,
        AFTER
    }

    private final String doing;
    private final Noted noted;

    SetupStep(String doing, Noted noted) {
        this.doing = doing;
        this.noted = noted;
    }

    /** What is being done, for the screen. */
    public String doing() {
        return doing;
    }

    public Noted noted() {
        return noted;
    }

    /** Its place in an order of steps, from 1. */
    public int number(List<SetupStep> order) {
        return order.indexOf(this) + 1;
    }

    /** Whether the machine may have been changed once this step has begun. */
    public boolean writes() {
        return compareTo(SET_PASSWORD) >= 0;
    }
}
