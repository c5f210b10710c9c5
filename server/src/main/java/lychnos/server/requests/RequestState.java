package lychnos.server.requests;

/** How far a request to another team is. */
public enum RequestState {
    TO_ASK("to ask"),
    ASKED("asked"),
    DONE("done"),
    NOT_NEEDED("not needed");

    private final String word;

    RequestState(String word) {
        this.word = word;
    }

    /** As people read it. */
    String word() {
        return word;
    }

    /** Whether somebody still has to do something. */
    boolean open() {
        return this == TO_ASK || this == ASKED;
    }
}
