package lychnos.server.prepare;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DryRun;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.FactSpec;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;
import lychnos.core.learn.Certainty;
import lychnos.core.learn.Decisions;
import lychnos.core.learn.Draft;
import lychnos.core.learn.DraftYaml;
import lychnos.core.learn.LearnQuestion;
import lychnos.core.learn.Learner;
import lychnos.core.learn.LearntFact;
import lychnos.core.learn.LearntStep;
import lychnos.core.learn.Planned;
import lychnos.core.learn.SetupLog;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.bench.Recordings;
import lychnos.server.configure.model.SetupLogs;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.PrepareText;
import org.jspecify.annotations.Nullable;

/**
 * Learns the dialogue of a kind from the log of a setup that a person did by hand. The log is kept sealed, or comes
 * with each question and is not kept; what may be a password in it is in no answer.
 */
@Path("/api")
@RolesAllowed("engineer")
public class LearningResource {

    private static final String SERIAL = "serial";

    private final Recordings recordings;
    private final SetupLogs logs;
    private final Who who;

    LearningResource(Recordings recordings, SetupLogs logs, Who who) {
        this.recordings = recordings;
        this.logs = logs;
        this.who = who;
    }

    /** What a person can say of a step. */
    public enum LessonMark {
        PERMANENT,
        DESTROYS,
        TERMS,
        /** The machine does not always ask it. */
        OPTIONAL
    }

    /**
     * What was answered about a setup.
     *
     * @param texts by entry, what a text is that was not planned
     * @param commandsTold whether the commands hold no password
     * @param parts by entry, the parts of a command that are facts of the unit
     * @param values by entry, which planned value it is
     * @param marks by entry, what is particular about its step; null while it was not said
     * @param found by the name of a new fact, where people find it
     */
    public record LessonAnswers(
            @Nullable Map<Integer, Decisions.Meaning> texts,
            boolean commandsTold,
            @Nullable Map<Integer, List<String>> parts,
            @Nullable Map<Integer, String> values,
            @Nullable Map<Integer, Set<LessonMark>> marks,
            @Nullable Map<String, String> found) {

        static Decisions read(@Nullable LessonAnswers said) {
            return said == null
                    ? Decisions.NONE
                    : new Decisions(
                            orNone(said.texts),
                            said.commandsTold,
                            words(said.parts),
                            orNone(said.values),
                            Optional.ofNullable(said.marks).map(LessonAnswers::marks),
                            orNone(said.found));
        }

        private static Map<Integer, List<String>> words(@Nullable Map<Integer, List<String>> given) {
            Map<Integer, List<String>> words = orNone(given);
            words.replaceAll(
                    (entry, each) -> each.stream().filter(Objects::nonNull).toList());
            return words;
        }

        private static Map<Integer, Set<Mark>> marks(Map<Integer, Set<LessonMark>> said) {
            Map<Integer, Set<Mark>> marks = new HashMap<>();
            orNone(said)
                    .forEach((entry, each) -> marks.put(
                            entry,
                            each.stream()
                                    .filter(Objects::nonNull)
                                    .map(mark -> Mark.valueOf(mark.name()))
                                    .collect(Collectors.toSet())));
            return marks;
        }

        /** What is null in a request was not answered. */
        private static <K, V> Map<K, V> orNone(@Nullable Map<K, V> given) {
            Map<K, V> said = new HashMap<>(given == null ? Map.of() : given);
            said.values().removeIf(Objects::isNull);
            return said;
        }
    }

    /**
     * The log of a setup.
     *
     * @param description of the kind, whose dialogue is learnt
     * @param dialogue of a setup by hand that is kept here; null where a recording comes with the request
     * @param recording asciicast version 2, with the keys; null where the log is kept here
     * @param unit that was set up, for its planned values; null where the log is kept here
     * @param member of that unit; empty for a single machine
     */
    public record Lesson(
            String description,
            @Nullable Long dialogue,
            @Nullable String recording,
            @Nullable Long unit,
            @Nullable String member,
            @Nullable LessonAnswers answers) {}

    /** Lists the setups by hand of a kind that can be learnt from, the newest first. */
    @GET
    @Path("catalogue/{kind}/setup-logs")
    public List<SetupLogs.KeptSetup> logs(String kind) {
        return logs.ofKind(kind);
    }

    /** Deletes the log of a setup by hand. */
    @DELETE
    @Path("setup-logs/{dialogue}")
    public void delete(long dialogue) {
        logs.delete(dialogue, who.person());
    }

    /** A learnt step. */
    public record LessonStep(
            int entry,
            LearntStep.StepSort sort,
            String title,
            String answer,
            List<String> marks,
            Map<String, String> fields,
            long seconds,
            Certainty certainty,
            String why) {

        static LessonStep of(LearntStep step) {
            return new LessonStep(
                    step.entry(),
                    step.sort(),
                    step.title(),
                    step.answer(),
                    step.marks().stream().sorted().map(Enum::name).toList(),
                    step.fields(),
                    step.about().toSeconds(),
                    step.certainty(),
                    step.why().text());
        }
    }

    /** What was typed where; null where the machine did not show it. */
    public record LessonLine(int entry, List<String> shown, String question, @Nullable String typed, boolean leftOut) {

        static LessonLine of(Learner.Line line) {
            return new LessonLine(
                    line.index(), line.shown(), line.question(), line.typed().orElse(null), line.leftOut());
        }
    }

    /**
     * What was learnt.
     *
     * @param complete whether all of the log was read
     * @param identified whether the machine said which one it is before anything was typed that it could have kept
     * @param wakes whether the log shows a key that makes a silent line speak
     * @param description the description with the dialogue; null while questions are open
     * @param faults what is wrong with that description
     * @param agrees whether it does on the same log what the person did; null while questions are open
     * @param differences what it would have done otherwise
     * @param open titles of the steps that were not reached
     */
    public record LessonView(
            boolean complete,
            boolean identified,
            boolean wakes,
            List<LessonLine> lines,
            List<LessonStep> steps,
            List<LearntFact> facts,
            List<LearnQuestion> questions,
            @Nullable String description,
            List<String> faults,
            @Nullable Boolean agrees,
            List<String> differences,
            List<String> open) {}

    /**
     * Learns from a log, with what was answered so far. It tells whether something typed is a password of the unit, and
     * no token may read those.
     */
    @POST
    @Path("kinds/lessons")
    public LessonView learn(Lesson lesson) {
        who.requireSession();
        Refusal.required(lesson);
        try {
            return learnt(lesson);
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(e.getMessage());
        }
    }

    private LessonView learnt(Lesson lesson) {
        Kind kind = KindReader.read(Refusal.required(lesson.description));
        Logged logged = lesson.dialogue == null ? sent(lesson) : kept(lesson.dialogue);
        Values values = recordings.values(logged.unit, logged.member);
        Learner learner = new Learner(
                logged.log,
                Planned.of(kind, values),
                values.text(SERIAL)
                        .orElseThrow(() -> new IllegalArgumentException(PrepareText.UNIT_HAS_NO_SERIAL_NUMBER.text())),
                kind.facts().stream().map(FactSpec::name).collect(Collectors.toSet()),
                LessonAnswers.read(lesson.answers));
        Draft draft = learner.draft();
        String text = draft.settled()
                ? DraftYaml.into(
                        lesson.description,
                        draft,
                        kind.dialogue()
                                .map(Dialogue::line)
                                .orElse(LineSettings.USUAL)
                                .toString())
                : null;
        return view(learner, draft, text, values);
    }

    private record Logged(SetupLog log, long unit, String member) {}

    private Logged kept(long dialogue) {
        SetupLogs.KeptSetup setup = logs.setup(dialogue);
        return new Logged(logs.of(dialogue), setup.unitId(), setup.member());
    }

    private static Logged sent(Lesson lesson) {
        String member = lesson.member == null ? "" : lesson.member;
        if (!Refusal.required(lesson.recording).startsWith("{")) {
            throw new IllegalArgumentException(PrepareText.NO_RECORDING_WITH_KEYS.text());
        }
        Recording recording = Recording.imported(lesson.recording, "", null, member, Map.of(), Set.of());
        return new Logged(SetupLog.recorded(recording.heard()), Refusal.required(lesson.unit), member);
    }

    private static LessonView view(Learner learner, Draft draft, @Nullable String text, Values values) {
        List<String> faults = List.of();
        DryRun.Report report = null;
        if (text != null) {
            try {
                report = learner.tryOn(KindReader.read(text).dialogue().orElseThrow(), values);
            } catch (KindFaults e) {
                faults = e.faults().stream().map(Object::toString).toList();
            }
        }
        return new LessonView(
                draft.complete(),
                draft.see().isPresent(),
                draft.redraws(),
                learner.lines().stream().map(LessonLine::of).toList(),
                Stream.concat(draft.logIn().stream(), draft.steps().stream())
                        .map(LessonStep::of)
                        .toList(),
                draft.facts(),
                draft.questions(),
                text,
                faults,
                report == null ? null : report.agrees(),
                report == null
                        ? List.of()
                        : report.differences().stream()
                                .map(DryRun.Difference::sentence)
                                .toList(),
                report == null ? List.of() : report.open());
    }
}
