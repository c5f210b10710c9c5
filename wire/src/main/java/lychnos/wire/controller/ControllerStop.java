package lychnos.wire.controller;

/** Setting up a controller has stopped: a person must look at it first. */
public final class ControllerStop extends Exception {

    /** Why it stopped. The program decides by this; the sentence is for people. */
    public enum Cause {
        /** The machine that answers is not the one on the label. */
        ANOTHER_MACHINE,
        /** Neither its serial nor its MAC address can be seen before its password is changed. */
        NOT_IDENTIFIED,
        /** Another device has the planned address. */
        ADDRESS_IN_USE,
        /** The controller restarted and came back at the address it had before. */
        BACK_AT_OLD_ADDRESS,
        /** What was read back is not what was planned. */
        NOT_AS_PLANNED
    }

    private final Cause cause;
    private final String advice;

    ControllerStop(Cause cause, String sentence, String advice) {
        super(sentence);
        this.cause = cause;
        this.advice = advice;
    }

    public Cause why() {
        return cause;
    }

    /** What to do about it. */
    public String advice() {
        return advice;
    }
}
