package lychnos.wire.fault;

/** An exchange that did not come to its end, sorted by what may have happened at the other side. */
public class WireFault extends Exception {

    /** What went wrong. */
    public enum Kind {
        /** The address lies in no declared network; nothing was sent. */
        NOT_DECLARED,
        /** The place that is to reach it is not linked; nothing was sent. */
        NO_VANTAGE,
        /** Nothing answered in time; nothing was sent that could have changed anything. */
        SILENT,
        /** The connection was refused. */
        REFUSED,
        /** The peer speaks no TLS, or no version of it that we do. */
        NO_TLS,
        /** Another certificate than the one remembered; nothing was sent. */
        OTHER_CERTIFICATE,
        /** The request was sent, then the connection ended or the time was over: it may have been carried out. */
        UNKNOWN_OUTCOME,
        /** The answer breaks the protocol or a limit. */
        GARBAGE
    }

    private final Kind kind;

    public WireFault(Kind kind, String message) {
        super(message);
        this.kind = kind;
    }

    public WireFault(Kind kind, String message, Throwable cause) {
        super(message, cause);
        this.kind = kind;
    }

    public Kind kind() {
        return kind;
    }

    /** Whether it is about us and not about the machine: nothing was sent to it. */
    public boolean ours() {
        return kind == Kind.NOT_DECLARED || kind == Kind.NO_VANTAGE;
    }

    /** Whether trying again later may help without a person doing anything. */
    public boolean passing() {
        return kind == Kind.SILENT
                || kind == Kind.NO_VANTAGE
                || kind == Kind.REFUSED
                || kind == Kind.UNKNOWN_OUTCOME
                || kind == Kind.NO_TLS;
    }
}
