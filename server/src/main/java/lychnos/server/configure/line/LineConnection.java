package lychnos.server.configure.line;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import lychnos.core.fact.Secret;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.fault.WireFault;

/** Whether a line is up, what is sent on it, and when it is opened again after it went down. For one thread. */
final class LineConnection {

    private static final long LONGEST_PAUSE_SECONDS = 10;
    private static final int MOST_DOUBLED = 4;

    private ConsoleLine line;
    private boolean up;
    private boolean wasUp;
    private int tried;

    /** Opens a line, unless it is up. */
    void open(LineSurroundings around, MemberLine owner) throws WireFault {
        if (!up) {
            line = around.open(owner);
        }
    }

    boolean up() {
        return up;
    }

    /** It is up now. */
    void cameUp() {
        up = true;
        wasUp = true;
        tried = 0;
    }

    /** It is down, or could not be opened; true, if it was up before. */
    boolean wentDown() {
        up = false;
        return wasUp;
    }

    /** The line that was open no longer exists. */
    void ended() {
        line = null;
    }

    /** How long to wait before it is opened again: twice as long each time, up to 10 s. */
    Duration pause() {
        return Duration.ofSeconds(Math.min(LONGEST_PAUSE_SECONDS, 1L << Math.min(tried++, MOST_DOUBLED)));
    }

    /** Sends text, one byte a character; what is sent while the line is down is lost, as it would be on a cable. */
    void send(String text) {
        if (line != null && up) {
            line.send(text.getBytes(StandardCharsets.ISO_8859_1));
        }
    }

    /** Sends a password, and Enter. */
    void send(Secret secret) {
        secret.use(word -> {
            send(word + "\r");
            return null;
        });
    }

    /** Sends a break; false, if there is no line. */
    boolean sendBreak() {
        if (line != null) {
            line.sendBreak();
        }
        return line != null;
    }

    void resize(int columns, int rows) {
        if (line != null) {
            line.resize(columns, rows);
        }
    }

    void close() {
        if (line != null) {
            line.close();
        }
    }
}
