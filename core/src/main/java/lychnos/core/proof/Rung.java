package lychnos.core.proof;

/** The seven rungs of the ladder; each stands on those below it. */
public enum Rung {
    ANSWERS("answers"),
    PORT("port"),
    TLS("TLS"),
    SERVICE("service"),
    IDENTITY("identity"),
    AS_PLANNED("as planned"),
    SAFE("safe");

    private final String title;

    Rung(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
