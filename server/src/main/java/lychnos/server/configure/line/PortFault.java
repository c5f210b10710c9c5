package lychnos.server.configure.line;

import java.util.Arrays;
import java.util.Optional;

/** What a browser reports of a serial port that goes on working (Web Serial, section 4.4). */
public enum PortFault {
    /** A stop bit was not where it should be. */
    FRAMING,
    PARITY,
    /** Bytes came faster than the port was read; some are lost. */
    OVERRUN;

    public static Optional<PortFault> named(String word) {
        return Arrays.stream(values())
                .filter(fault -> fault.name().equalsIgnoreCase(word))
                .findFirst();
    }

    /** Whether the settings of the port are probably not those of the machine. */
    boolean ofSettings() {
        return this != OVERRUN;
    }
}
