package lychnos.wire.pages;

/** The machine answered and did not do it. */
public final class PageFault extends Exception {

    private final int status;

    PageFault(int status, String says) {
        super(says);
        this.status = status;
    }

    /** The HTTP status (RFC 9110, section 15). */
    public int status() {
        return status;
    }

    /** Whether the log-in was refused. */
    public boolean refusesLogin() {
        return status == 401;
    }
}
