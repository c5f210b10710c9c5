package lychnos.server.configure.line;

import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.time.Clock;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.core.dialogue.LineSettings;
import lychnos.server.time.Clockwork;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineEvents;

/** The open lines whose cable is plugged into the computer of a browser, by dialogue. */
@ApplicationScoped
public class Cables {

    private static final Duration LOOKED_AT_EVERY = Duration.ofSeconds(4);
    /** A laptop that sleeps does not say so. */
    private static final Duration LONGEST_SILENCE = Duration.ofSeconds(15);

    private final Clock clock;
    private final Clockwork clockwork;
    private final Map<Long, CableLine> lines = new ConcurrentHashMap<>();

    Cables(Clock clock, Clockwork clockwork) {
        this.clock = clock;
        this.clockwork = clockwork;
    }

    void start(@Observes StartupEvent event) {
        clockwork.every(LOOKED_AT_EVERY, "Cables cannot be looked at now", this::look);
    }

    /** Ends the lines whose page has gone without a word. */
    void look() {
        lines.values().forEach(line -> line.look(LONGEST_SILENCE));
    }

    /** A line that comes up once a page has opened its port for it; one that was open before is closed. */
    public ConsoleLine open(long dialogueId, LineSettings settings, LineEvents events) {
        CableLine line = new CableLine(settings, events, clock, ended -> lines.remove(dialogueId, ended));
        Optional.ofNullable(lines.put(dialogueId, line)).ifPresent(CableLine::close);
        return line;
    }

    /** The line that waits for a cable, or has one. */
    public Optional<CableLine> line(long dialogueId) {
        return Optional.ofNullable(lines.get(dialogueId));
    }
}
