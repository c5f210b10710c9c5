package lychnos.server.configure.bench;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import lychnos.core.dialogue.DryRun;
import lychnos.core.dialogue.Screen;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.SecretSearch;
import lychnos.core.kind.Recording;
import lychnos.core.sheet.MemberValues;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.Answers;
import lychnos.server.kinds.Kinds;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Recordings of lines in the asciicast format, version 2: a header, then one event a line. */
@ApplicationScoped
public class Recordings {

    private static final int NEWEST = 12;
    private static final int MOST_UNITS = 50;

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Answers answers;
    private final ConsoleReader consoleReader;
    private final ObjectMapper json;

    Recordings(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            Answers answers,
            ConsoleReader consoleReader,
            ObjectMapper json) {
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.answers = answers;
        this.consoleReader = consoleReader;
        this.json = json;
    }

    /**
     * The recording of one member's line; it holds what the line showed, without passwords, and marks at each answer.
     */
    @Transactional
    public String asciicast(long dialogueId) {
        MemberDialogue dialogue = db.find(MemberDialogue.class, dialogueId);
        if (dialogue == null) {
            throw Refusal.notFound(ConfigureText.NO_SUCH_RECORDING.said());
        }
        List<Object[]> pieces = db.createNativeQuery(
                        "select at, kind, text from line_piece where dialogue_id = :id order by number", Object[].class)
                .setParameter("id", dialogueId)
                .getResultList();
        Instant begin = pieces.isEmpty() ? Instant.EPOCH : (Instant) pieces.get(0)[0];
        StringBuilder cast = new StringBuilder();
        cast.append(text(Map.of(
                        "version",
                        2,
                        "width",
                        Screen.COLUMNS,
                        "height",
                        Screen.ROWS,
                        "timestamp",
                        begin.getEpochSecond(),
                        "title",
                        dialogue.line,
                        "lychnos",
                        answered(dialogue))))
                .append('\n');
        for (Object[] piece : pieces) {
            double seconds =
                    Math.max(0, Duration.between(begin, (Instant) piece[0]).toMillis() / 1000.0);
            cast.append(text(List.of(seconds, piece[1].toString(), piece[2]))).append('\n');
        }
        return cast.toString();
    }

    /**
     * A recording that a description can be tried on.
     *
     * @param path where it is read, below the interface
     * @param unit whose line it is; empty for the one that is shipped with the kind
     * @param at when the line was done; null for the one that is shipped
     * @param dialogue by which it can be kept with the kind; null for the one that is shipped
     */
    public record RecordingOfKind(
            String path, String unit, String member, @Nullable Instant at, @Nullable Long dialogue) {}

    /** The recordings of a kind: the one that is shipped, then those of the newest setups that came to their end. */
    @Transactional
    public List<RecordingOfKind> of(String kind) {
        List<RecordingOfKind> all = new ArrayList<>();
        if (Recording.shippedText(kind).isPresent()) {
            all.add(new RecordingOfKind("/catalogue/" + kind + "/recordings/shipped", "", "", null, null));
        }
        db.createQuery(
                        "select d from MemberDialogue d join Unit u on u.id = d.unitId where u.kind = :kind and "
                                + "d.state = DONE and d.endedAt is not null order by d.endedAt desc, d.id desc",
                        MemberDialogue.class)
                .setParameter("kind", kind)
                .setMaxResults(NEWEST)
                .getResultList()
                .forEach(dialogue -> all.add(new RecordingOfKind(
                        "/dialogues/" + dialogue.id + "/recording.cast",
                        bringUps.unit(dialogue.unitId).label(),
                        dialogue.member,
                        dialogue.endedAt,
                        dialogue.id)));
        return all;
    }

    /**
     * What the line was answered with, so that a description can be tried on the recording; of passwords the names
     * alone.
     */
    private Map<String, Object> answered(MemberDialogue dialogue) {
        Unit unit = bringUps.unit(dialogue.unitId);
        Answered answered = answered(unit, dialogue.member, dialogue.wiped, consoleReader.toldByAll(dialogue.runId));
        return Map.of(
                "kind", unit.kind,
                "member", dialogue.member,
                "values", answered.values,
                "secrets", List.copyOf(answered.secrets));
    }

    /**
     * What a line is answered with.
     *
     * @param secrets names of passwords
     */
    public record Answered(Map<String, String> values, Set<String> secrets) {}

    private Answered answered(Unit unit, String member, boolean wiped, Map<String, String> told) {
        MemberValues known = of(unit, member, told);
        Map<String, String> values = new TreeMap<>(Map.of("unit", unit.label()));
        Set<String> secrets = new TreeSet<>();
        for (String name :
                kinds.of(unit).dialogue().map(asks -> asks.names(member, wiped)).orElse(Set.of())) {
            if (known.secret(name).isPresent()) {
                secrets.add(name);
            } else {
                known.text(name).ifPresent(text -> values.put(name, text));
            }
        }
        return new Answered(values, secrets);
    }

    /**
     * Everything that is known of a member.
     *
     * @throws Refusal if there is no such unit or member
     */
    @Transactional
    public Values values(long unitId, String member) {
        return of(bringUps.unit(unitId), member, Map.of());
    }

    private MemberValues of(Unit unit, String member, Map<String, String> told) {
        MemberValues known = answers.of(unit, told).get(member);
        if (known == null) {
            throw Refusal.bad(ConfigureText.UNIT_HAS_NO_MEMBER_CALLED.said(member));
        }
        return known;
    }

    /**
     * What the line of a unit would be answered with, for a recording that another program has made.
     *
     * @throws Refusal if there is no such unit or member, or it is of another kind
     */
    @Transactional
    public Answered answered(String kind, long unitId, String member) {
        Unit unit = bringUps.unit(unitId);
        if (!unit.kind.equals(kind)) {
            throw Refusal.bad(ConfigureText.IS_NO_UNIT_OF_THIS_KIND.said(unit.label()));
        }
        return answered(unit, member, true, Map.of());
    }

    /**
     * A recording that another program has made, as one of ours: without the passwords that are known, and without
     * what was typed, which may be another password.
     *
     * @param found how many passwords were blanked
     */
    public record ImportedRecording(String text, int found) {}

    /** Writes a recording in the asciicast format. */
    public ImportedRecording written(String kind, String member, Recording recording, SecretSearch secrets) {
        StringBuilder all = new StringBuilder();
        recording.heard().stream().filter(DryRun.Heard::fromMachine).forEach(each -> all.append(each.text()));
        SecretSearch.Blanked blanked = secrets.blank(all.toString());
        StringBuilder cast = new StringBuilder(text(Map.of(
                        "version",
                        2,
                        "width",
                        Screen.COLUMNS,
                        "height",
                        Screen.ROWS,
                        "lychnos",
                        Map.of(
                                "kind",
                                kind,
                                "member",
                                member,
                                "values",
                                new TreeMap<>(recording.values()),
                                "secrets",
                                recording.secrets().stream().sorted().toList()))))
                .append('\n');
        int from = 0;
        for (DryRun.Heard each : recording.heard()) {
            double seconds = each.at().toMillis() / 1000.0;
            if (each.fromMachine()) {
                int to = from + each.text().length();
                cast.append(text(List.of(seconds, "o", blanked.text().substring(from, to))));
                from = to;
            } else {
                cast.append(text(List.of(seconds, "m", "")));
            }
            cast.append('\n');
        }
        return new ImportedRecording(cast.toString(), blanked.found());
    }

    /** The kind of a unit. */
    @Transactional
    public String kindOf(long unitId) {
        return bringUps.unit(unitId).kind;
    }

    /**
     * A unit whose values a recording can be tried with.
     *
     * @param members their names; one empty name where it is a single machine
     */
    public record UnitOfKind(long id, String name, String bringUp, List<String> members) {}

    /** The newest units of a kind. */
    @Transactional
    public List<UnitOfKind> units(String kind) {
        return db.createQuery("from Unit where kind = :kind and retiredAt is null order by id desc", Unit.class)
                .setParameter("kind", kind)
                .setMaxResults(MOST_UNITS)
                .getResultStream()
                .map(unit -> new UnitOfKind(
                        unit.id,
                        unit.label(),
                        bringUps.named(unit.bringUpId).name(),
                        answers.of(unit, Map.of()).keySet().stream().sorted().toList()))
                .toList();
    }

    private String text(Object value) {
        try {
            return json.writeValueAsString(value);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("an event can be written", e);
        }
    }
}
