package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of jobs. */
public enum JobText implements Message {
    ANOTHER_SERVER_HAS_TAKEN_THIS_OVER("another server has taken this over"),
    CANCELLED_BEFORE_ANYTHING_WAS_WRITTEN("Cancelled before anything was written to the machine."),
    CANCELLED_BEFORE_COMPLETED_STEPS_STAY(
            "Cancelled before “{doing}”. Completed steps stay; “Try again” continues with the rest."),
    INTERNAL_ERROR("Internal error: {class}."),
    RUNS_CANNOT_BE_CLAIMED("Runs cannot be claimed now"),
    SEE_THE_SERVER_LOG("See the server's log, then try again.");

    private final String pattern;

    JobText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
