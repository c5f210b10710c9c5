package lychnos.server.prepare;

import jakarta.annotation.security.PermitAll;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DryRun;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFault;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.KindSummary;
import lychnos.core.kind.Recording;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.bench.Recordings;
import lychnos.server.kinds.Kinds;
import org.jspecify.annotations.Nullable;

/** Descriptions of kinds: those that can be added, the schema, a check of a text, a trial on a recording. */
@Path("/api")
@RolesAllowed("viewer")
public class KindTextsResource {

    private final Kinds kinds;
    private final Recordings recordings;

    KindTextsResource(Kinds kinds, Recordings recordings) {
        this.kinds = kinds;
        this.recordings = recordings;
    }

    /**
     * A recorded line, and the description that is tried on it; without one, the newest of the kind.
     *
     * @param recording asciicast version 2, or a log that another program has kept
     * @param timing of a log; it may be left out
     * @param unit whose values the line was answered with; only for a recording that does not have them
     * @param member of that unit; it may be left out
     */
    public record KindTrial(String description, String recording, String timing, Long unit, String member) {}

    /**
     * What came of it: {@code open} are steps that were not reached, {@code differences} what would have been done
     * otherwise, {@code moments} what happened when.
     */
    public record KindTried(
            boolean agrees,
            List<String> done,
            List<String> open,
            List<String> differences,
            List<DryRun.StepReached> steps,
            List<TriedMoment> moments) {}

    /**
     * A moment of a dry run.
     *
     * @param at seconds since the recording began
     * @param step the place of the step that it is about; null where it is about none
     */
    public record TriedMoment(double at, @Nullable Integer step, DryRun.Event event, String text, List<String> screen) {

        static TriedMoment of(DryRun.Moment moment) {
            return new TriedMoment(
                    moment.at().toMillis() / 1000.0,
                    moment.step() < 0 ? null : moment.step(),
                    moment.event(),
                    moment.text(),
                    moment.screen());
        }
    }

    /**
     * A text of a kind as it would read.
     *
     * @param summary null while the text has faults
     * @param way how it is set up; empty while the text has faults
     */
    public record KindPreview(List<KindFault> faults, @Nullable KindSummary summary, String way) {}

    @GET
    @Path("kinds")
    public List<PrepareViews.KindBrief> kinds() {
        return kinds.offered().stream()
                .map(each -> PrepareViews.KindBrief.of(each.version(), each.kind()))
                .toList();
    }

    @GET
    @Path("kinds/kind.schema.json")
    @Produces("application/schema+json")
    @PermitAll
    public String schema() {
        return KindReader.schema();
    }

    /** Looks a description of a kind over. */
    @POST
    @Path("kinds/check")
    @Consumes(MediaType.TEXT_PLAIN)
    public List<KindFault> check(String yaml) {
        try {
            KindReader.read(yaml == null ? "" : yaml);
            return List.of();
        } catch (KindFaults e) {
            return e.faults();
        }
    }

    /** Looks a description over and says how it would read. */
    @POST
    @Path("kinds/preview")
    @Consumes(MediaType.TEXT_PLAIN)
    public KindPreview preview(String yaml) {
        try {
            Kind kind = KindReader.read(yaml == null ? "" : yaml);
            return new KindPreview(List.of(), KindSummary.of(kind), kind.setup().by());
        } catch (KindFaults e) {
            return new KindPreview(e.faults(), null, "");
        }
    }

    /** Lists recordings that a description of a kind can be tried on. */
    @GET
    @Path("catalogue/{kind}/recordings")
    public List<Recordings.RecordingOfKind> recordings(String kind) {
        return recordings.of(kind);
    }

    /** The recording that is shipped with a kind. */
    @GET
    @Path("catalogue/{kind}/recordings/shipped")
    @Produces("application/x-asciicast")
    public String shippedRecording(String kind) {
        return Recording.shippedText(kind)
                .orElseThrow(() -> Refusal.notFound("No recording is shipped with this kind."));
    }

    private DryRun.Report played(KindTrial trial) {
        String text = trial.recording == null ? "" : trial.recording;
        boolean described = trial.description != null && !trial.description.isBlank();
        if (trial.unit == null) {
            Recording recording = Recording.read(text);
            Kind kind = described
                    ? KindReader.read(trial.description)
                    : kinds.newest(recording.kind()).kind();
            return recording.tryOn(dialogue(kind));
        }
        String member = trial.member == null ? "" : trial.member;
        Kind kind = described
                ? KindReader.read(trial.description)
                : kinds.newest(recordings.kindOf(trial.unit)).kind();
        Recordings.Answered answered = recordings.answered(kind.id(), trial.unit, member);
        Dialogue dialogue = dialogue(kind);
        return Recording.imported(
                        text,
                        trial.timing == null ? "" : trial.timing,
                        dialogue,
                        member,
                        answered.values(),
                        answered.secrets())
                .tryOn(dialogue);
    }

    private static Dialogue dialogue(Kind kind) {
        return kind.dialogue()
                .orElseThrow(() -> new IllegalArgumentException("The description has no console dialogue."));
    }

    /** Lists the newest units of a kind, whose values a recording of another program can be tried with. */
    @GET
    @Path("catalogue/{kind}/units")
    public List<Recordings.UnitOfKind> units(String kind) {
        return recordings.units(kind);
    }

    /** Tries a description on a recorded line, without a machine. */
    @POST
    @Path("kinds/dry-run")
    @RolesAllowed("engineer")
    public KindTried dryRun(KindTrial trial) {
        Refusal.required(trial);
        try {
            DryRun.Report report = played(trial);
            return new KindTried(
                    report.agrees(),
                    report.done(),
                    report.open(),
                    report.differences().stream()
                            .map(DryRun.Difference::sentence)
                            .toList(),
                    report.steps(),
                    report.moments().stream().map(TriedMoment::of).toList());
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(e.getMessage());
        }
    }
}
