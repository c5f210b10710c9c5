package lychnos.wire.icmp;

import java.time.Duration;

/**
 * What came of an ICMP echo.
 *
 * @param state whether it was answered
 * @param roundTrip how long it took, null unless answered
 */
public record Echo(State state, Duration roundTrip) {

    /** Whether an echo was answered. */
    public enum State {
        ANSWERED,
        SILENT,
        /** This process may not send ICMP. */
        NOT_PERMITTED
    }
}
