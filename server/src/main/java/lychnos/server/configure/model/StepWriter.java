package lychnos.server.configure.model;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.enterprise.context.ApplicationScoped;
import java.sql.Array;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Hold;
import lychnos.server.jobs.Held;
import org.hibernate.Session;

/**
 * Writes what every step writes, in one statement: with two hundred lines at once, round trips are what costs. The
 * run's row is locked in the weakest way there is: that does not wait for its lease being renewed, but a server that
 * takes the run over waits for it, and later writers find another fence.
 */
@ApplicationScoped
public class StepWriter {

    private static final String WRITE =
            """
            with held as (select 1 from run where id = ? and fence = ? and state = 'RUNNING' for key share),
            kept as (
                insert into line_piece (dialogue_id, number, at, kind, text)
                select p.* from held, unnest(cast(? as bigint[]), cast(? as bigint[]), cast(? as timestamptz[]),
                    cast(? as text[]), cast(? as text[])) as p
                on conflict do nothing),
            moved as (
                update dialogue_step s
                set progress = g.progress,
                    evidence = case when g.evidence = '' then s.evidence else g.evidence end,
                    times_sent = s.times_sent + g.sent,
                    sent_at = case when g.sent = 1 then given.at else s.sent_at end,
                    answer = case when g.sent = 1 then g.answer else s.answer end,
                    by_whom = case when g.sent = 1 then given.by_whom else s.by_whom end,
                    done_at = case when g.progress = 'DONE' then given.at end
                from held, (select cast(? as timestamptz) as at, cast(? as text) as by_whom) as given,
                    unnest(cast(? as int[]), cast(? as text[]), cast(? as text[]), cast(? as int[]), cast(? as text[]))
                    as g (place, progress, evidence, sent, answer)
                where s.dialogue_id = ? and s.place = g.place)
            update dialogue d set state = ?, hold = cast(? as jsonb), mode = ?, wiped = ?, identified = ?, note = ?,
                ended_at = cast(? as timestamptz)
            from held where d.id = ?""";

    /** Ends the stretch of time that a line is in, and begins the next where there is one. */
    private static final String STRETCH =
            """
            with ended as (update dialogue_stretch set ended_at = cast(? as timestamptz)
                where dialogue_id = ? and ended_at is null)
            insert into dialogue_stretch (dialogue_id, kind, title, began_at, about, at_most)
            select s.* from (select cast(? as bigint), cast(? as text) as kind, cast(? as text),
                cast(? as timestamptz), cast(? as bigint), cast(? as bigint)) as s where s.kind <> ''""";

    /** What is kept of one line, under the fence of its unit's run. */
    public record Step(Held held, Change change, List<Change.RecordingPiece> pieces) {}

    private final Session db;
    private final ObjectMapper json;

    StepWriter(Session db, ObjectMapper json) {
        this.db = db;
        this.json = json;
    }

    /**
     * Writes steps of any number of lines; gives back for each whether its unit is still ours. Nothing was written of
     * one that is not.
     */
    List<Boolean> write(List<Step> steps) {
        return db.doReturningWork(connection -> {
            try (PreparedStatement statement = connection.prepareStatement(WRITE)) {
                for (Step step : steps) {
                    fill(new Arguments(connection, statement), step);
                    statement.addBatch();
                }
                return Arrays.stream(statement.executeBatch())
                        .mapToObj(count -> count == 1)
                        .toList();
            }
        });
    }

    /** What the time of these lines goes to from now on. */
    void stretches(List<Change> changes) {
        if (changes.isEmpty()) {
            return;
        }
        db.doWork(connection -> {
            try (PreparedStatement statement = connection.prepareStatement(STRETCH)) {
                for (Change change : changes) {
                    Change.Stretch now = change.stretch();
                    new Arguments(connection, statement)
                            .next(change.at().toString())
                            .next(change.dialogueId())
                            .next(change.dialogueId())
                            .next(now.kind())
                            .next(now.title())
                            .next(change.at().toString())
                            .next(now.about())
                            .next(now.atMost());
                    statement.addBatch();
                }
                statement.executeBatch();
            }
        });
    }

    private void fill(Arguments given, Step step) throws SQLException {
        Change change = step.change;
        List<Change.RecordingPiece> pieces = step.pieces;
        given.next(step.held.runId()).next(step.held.fence());
        given.array("int8", pieces, Change.RecordingPiece::dialogueId)
                .array("int8", pieces, Change.RecordingPiece::number)
                .array("text", pieces, piece -> piece.at().toString());
        given.array("text", pieces, piece -> String.valueOf(piece.kind()))
                .array("text", pieces, Change.RecordingPiece::storable);
        given.next(change.at().toString()).next(change.answered().by());
        List<Map.Entry<Integer, Change.StepMoved>> moved =
                List.copyOf(change.moved().entrySet());
        given.array("int4", moved, Map.Entry::getKey)
                .array("text", moved, each -> each.getValue().progress().name())
                .array("text", moved, each -> each.getValue().evidence());
        given.array("int4", moved, each -> change.answered().sends().containsKey(each.getKey()) ? 1 : 0)
                .array("text", moved, each -> change.answered().sends().get(each.getKey()));
        given.next(change.dialogueId());
        given.next(change.stands().state().name())
                .next(text(change.stands().hold()))
                .next(change.stands().mode().name())
                .next(change.stands().wiped())
                .next(change.stands().identified())
                .next(change.stands().note());
        given.next(
                        change.stands().state() == Conversation.State.DONE
                                ? change.at().toString()
                                : null)
                .next(change.dialogueId());
    }

    private String text(Hold hold) {
        try {
            return hold == null ? null : json.writeValueAsString(hold);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("why a line is held can be written", e);
        }
    }

    /** The question marks of a statement, one after the other. */
    private static final class Arguments {
        private final Connection connection;
        private final PreparedStatement statement;
        private int at;

        Arguments(Connection connection, PreparedStatement statement) {
            this.connection = connection;
            this.statement = statement;
        }

        Arguments next(Object value) throws SQLException {
            if (value == null) {
                statement.setString(++at, null);
            } else {
                statement.setObject(++at, value);
            }
            return this;
        }

        <T> Arguments array(String type, List<T> rows, Function<T, Object> value) throws SQLException {
            Array array =
                    connection.createArrayOf(type, rows.stream().map(value).toArray());
            statement.setArray(++at, array);
            return this;
        }
    }
}
