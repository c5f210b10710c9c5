package lychnos.server.configure.line;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.function.Consumer;
import lychnos.core.dialogue.LineSettings;
import lychnos.server.text.ConfigureText;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineEvents;

/**
 * A line whose cable is plugged into the computer of a browser. It waits for a page that has the port; one page at a
 * time has it. What was written carries a number and is never written twice; a page that goes away takes the line down,
 * whether it had confirmed what was written last or not. Safe for use by several threads.
 */
public final class CableLine implements ConsoleLine {

    private final LineSettings settings;
    private final LineEvents events;
    private final Clock clock;
    private final Consumer<CableLine> ended;
    private CablePage page;
    private boolean up;
    private boolean closed;
    private long written;
    private long confirmed;
    private long heard;
    private Instant alive;

    /** @param ended is told when the line is closed for good */
    CableLine(LineSettings settings, LineEvents events, Clock clock, Consumer<CableLine> ended) {
        this.ended = ended;
        this.settings = settings;
        this.events = events;
        this.clock = clock;
    }

    /** Takes a page that has the port; false where another page has it already, or the line has ended. */
    public synchronized boolean plug(CablePage plugged) {
        if (closed || page != null) {
            return false;
        }
        page = plugged;
        alive = clock.instant();
        page.open(settings);
        return true;
    }

    /** The page has opened its port. */
    public synchronized void opened(CablePage from) {
        if (from == page && !up) {
            alive = clock.instant();
            up = true;
            events.up();
        }
    }

    /**
     * The port has received bytes.
     *
     * @param number of this piece since the port was opened, from 1: where one is missing, the line was interrupted
     */
    public synchronized void received(CablePage from, long number, byte[] bytes) {
        if (from != page || !up) {
            return;
        }
        alive = clock.instant();
        heard++;
        if (number != heard) {
            end(ConfigureText.CABLE_LOST_BYTES.text());
        } else {
            events.received(bytes);
        }
    }

    /** The port has taken everything up to this number. */
    public synchronized void confirmed(CablePage from, long number) {
        if (from == page) {
            alive = clock.instant();
            confirmed = Math.max(confirmed, Math.min(number, written));
        }
    }

    public synchronized void isAlive(CablePage from) {
        if (from == page) {
            alive = clock.instant();
        }
    }

    /** The port goes on working, but something is wrong with what it receives. */
    public synchronized void reports(CablePage from, PortFault fault) {
        if (from == page && up) {
            events.noted(
                    fault.ofSettings()
                            ? ConfigureText.LINE_PROBABLY_OTHER_RATE.text(settings)
                            : ConfigureText.CABLE_TOO_SLOW.text());
        }
    }

    /** The page is gone, or its port is. */
    public synchronized void gone(CablePage from) {
        if (from == page) {
            end((confirmed < written ? ConfigureText.CABLE_GONE_UNCONFIRMED : ConfigureText.CABLE_GONE).text());
        }
    }

    /** Asks for a sign of life; a page that gave none for so long is taken for gone. */
    synchronized void look(Duration longest) {
        if (page != null && alive.plus(longest).isBefore(clock.instant())) {
            end(ConfigureText.CABLE_SILENT.text(longest.toSeconds()));
        } else if (page != null) {
            page.ask();
        }
    }

    private void end(String why) {
        CablePage last = page;
        boolean wasUp = up;
        page = null;
        up = false;
        written = 0;
        confirmed = 0;
        heard = 0;
        last.end();
        if (wasUp && !closed) {
            closed = true; // a new line takes its place
            events.down(why);
        }
    }

    @Override
    public synchronized void send(byte[] bytes) {
        if (up) {
            page.write(++written, new String(bytes, StandardCharsets.ISO_8859_1));
        }
    }

    @Override
    public synchronized void sendBreak() {
        if (up) {
            page.sendBreak();
        }
    }

    @Override
    public void resize(int columns, int rows) {
        // a serial port has no window
    }

    @Override
    public synchronized void close() {
        closed = true;
        if (page != null) {
            end("");
        }
        ended.accept(this);
    }
}
