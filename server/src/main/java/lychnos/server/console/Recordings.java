package lychnos.server.console;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import lychnos.core.dialogue.Screen;
import lychnos.server.problem.Refusal;
import lychnos.server.store.MemberDialogue;
import org.hibernate.Session;

/** Recordings of lines in the asciicast format, version 2: a header, then one event a line. */
@ApplicationScoped
public class Recordings {

    private final Session db;
    private final ObjectMapper json;

    Recordings(Session db, ObjectMapper json) {
        this.db = db;
        this.json = json;
    }

    /** The recording of one member's line; it holds what the line showed, without passwords, and marks at each answer. */
    @Transactional
    public String asciicast(long dialogueId) {
        MemberDialogue dialogue = db.find(MemberDialogue.class, dialogueId);
        if (dialogue == null) {
            throw Refusal.notFound("There is no such recording.");
        }
        List<Object[]> pieces = db.createNativeQuery("select at, kind, text from line_piece where dialogue_id = :id order by number", Object[].class).setParameter("id", dialogueId).getResultList();
        Instant begin = pieces.isEmpty() ? Instant.EPOCH : (Instant) pieces.get(0)[0];
        StringBuilder cast = new StringBuilder();
        cast.append(text(Map.of("version", 2, "width", Screen.COLUMNS, "height", Screen.ROWS, "timestamp", begin.getEpochSecond(), "title", dialogue.line))).append('\n');
        for (Object[] piece : pieces) {
            double seconds = Math.max(0, Duration.between(begin, (Instant) piece[0]).toMillis() / 1000.0);
            cast.append(text(List.of(seconds, piece[1].toString(), piece[2]))).append('\n');
        }
        return cast.toString();
    }

    private String text(Object value) {
        try {
            return json.writeValueAsString(value);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("an event can be written", e);
        }
    }
}
