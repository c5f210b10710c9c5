package lychnos.server.configure.line;

import java.util.List;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.text.ConfigureText;
import org.jboss.logging.Logger;

/**
 * A line that another server holds, for one screen that looks at it here: what the database keeps of it, a moment
 * later. It is watched only; its keyboard is where its line is.
 */
public final class FarLine implements AutoCloseable {

    public static final String ELSEWHERE = ConfigureText.ANOTHER_SERVER_HOLDS_THIS_LINE.text();

    private static final Logger LOG = Logger.getLogger(FarLine.class);
    private static final long MILLIS = 400;

    private final ConsoleReader consoleReader;
    private final long dialogueId;
    private final Onlooker onlooker;
    private final BooleanSupplier here;
    private final Runnable ended;
    private final ScheduledFuture<?> looking;
    private long next;
    private LineStanding last;

    /**
     * Begins to watch.
     *
     * @param here whether this server has the line by now
     * @param ended what is to be done once no other server has it
     */
    public FarLine(
            ConsoleReader consoleReader,
            long dialogueId,
            Onlooker onlooker,
            ScheduledExecutorService clockwork,
            BooleanSupplier here,
            Runnable ended) {
        this.consoleReader = consoleReader;
        this.dialogueId = dialogueId;
        this.onlooker = onlooker;
        this.here = here;
        this.ended = ended;
        looking = clockwork.scheduleWithFixedDelay(this::look, 0, MILLIS, TimeUnit.MILLISECONDS);
    }

    private void look() {
        try {
            ConsoleReader.FarDialogue far = here.getAsBoolean()
                    ? null
                    : consoleReader.far(dialogueId, next).orElse(null);
            if (far == null) {
                close();
                ended.run();
                return;
            }
            next = far.next();
            if (!far.shown().isEmpty()) {
                onlooker.shown(far.shown());
            }
            LineStanding now = new LineStanding(
                    far.state(),
                    far.mode(),
                    far.hold(),
                    ELSEWHERE,
                    "",
                    !far.state().equals("CUT"),
                    far.identified(),
                    List.copyOf(far.progress()),
                    -1);
            if (!now.equals(last)) {
                last = now;
                onlooker.changed(now);
            }
        } catch (RuntimeException e) {
            LOG.debugf(e, "dialogue %d cannot be looked at now", dialogueId);
        }
    }

    @Override
    public void close() {
        looking.cancel(false);
    }
}
