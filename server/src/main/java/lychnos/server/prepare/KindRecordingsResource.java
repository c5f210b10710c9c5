package lychnos.server.prepare;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import java.util.List;
import java.util.function.Supplier;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DryRun;
import lychnos.core.fact.SecretSearch;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.bench.Recordings;
import lychnos.server.identity.caller.Who;
import lychnos.server.kinds.KindPublishing;
import lychnos.server.kinds.KindRecordings;
import lychnos.server.kinds.Kinds;
import lychnos.server.text.PrepareText;
import org.jspecify.annotations.Nullable;

/** Recordings of consoles: those of a kind, and a description tried on them without a machine. */
@Path("/api")
@RolesAllowed("viewer")
public class KindRecordingsResource {

    private final Kinds kinds;
    private final Recordings recordings;
    private final KindRecordings keeping;
    private final KindPublishing publishing;
    private final KnownSecrets secrets;
    private final Who who;

    KindRecordingsResource(
            Kinds kinds,
            Recordings recordings,
            KindRecordings keeping,
            KindPublishing publishing,
            KnownSecrets secrets,
            Who who) {
        this.kinds = kinds;
        this.recordings = recordings;
        this.keeping = keeping;
        this.publishing = publishing;
        this.secrets = secrets;
        this.who = who;
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
     * A recording to keep with a kind: of a setup that has ended, or a file.
     *
     * @param name what it is to be called
     * @param dialogue whose recording it is; null for a file
     */
    public record RecordingWanted(String name, @Nullable Long dialogue, @Nullable KindTrial file) {}

    /**
     * A recording that is kept now.
     *
     * @param blanked how many passwords were found in it and blanked
     */
    public record RecordingKept(KindRecordings.KeptRecording recording, int blanked) {}

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
                .orElseThrow(() -> Refusal.notFound(PrepareText.NO_RECORDING_IS_SHIPPED_WITH_THIS_KIND.said()));
    }

    /** Lists the recordings that are kept with a kind. */
    @GET
    @Path("catalogue/{kind}/recordings/kept")
    public List<KindRecordings.KeptRecording> kept(String kind) {
        return keeping.of(kind);
    }

    /** A recording that is kept with a kind. */
    @GET
    @Path("catalogue/{kind}/recordings/kept/{id}")
    @Produces("application/x-asciicast")
    public String keptText(String kind, long id) {
        return keeping.text(kind, id);
    }

    /** Keeps a recording with a kind. Known passwords in a file are blanked first. */
    @POST
    @Path("catalogue/{kind}/recordings/kept")
    @RolesAllowed("engineer")
    public RecordingKept keep(String kind, RecordingWanted wanted) {
        Refusal.required(wanted);
        String name = wanted.name == null ? "" : wanted.name;
        try {
            Recordings.ImportedRecording text = wanted.dialogue != null
                    ? new Recordings.ImportedRecording(ofSetup(kind, wanted.dialogue), 0)
                    : ofFile(kind, Refusal.required(wanted.file));
            return new RecordingKept(keeping.keep(kind, name, text.text(), who.person()), text.found());
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(e.getMessage());
        }
    }

    private String ofSetup(String kind, long dialogue) {
        String text = recordings.asciicast(dialogue);
        if (!Recording.read(text).kind().equals(kind)) {
            throw Refusal.bad(PrepareText.SETUP_IS_OF_ANOTHER_KIND.said());
        }
        return text;
    }

    private Recordings.ImportedRecording ofFile(String kind, KindTrial file) {
        Recording recording = recording(file);
        return recordings.written(kind, recording.member(), recording, new SecretSearch(secrets.all()));
    }

    /** Removes a recording: versions that are published later need not agree with it. */
    @DELETE
    @Path("catalogue/{kind}/recordings/kept/{id}")
    @RolesAllowed("engineer")
    public void remove(String kind, long id) {
        keeping.remove(kind, id, who.person());
    }

    /** Plays every recording of a kind against its draft, or its newest version where there is none. */
    @POST
    @Path("catalogue/{kind}/recordings/trials")
    @RolesAllowed("engineer")
    public List<KindRecordings.RecordingTrial> tried(String kind) {
        return publishing.tried(kind);
    }

    private Recording recording(KindTrial trial) {
        String text = trial.recording == null ? "" : trial.recording;
        if (trial.unit == null) {
            return Recording.read(text);
        }
        String member = trial.member == null ? "" : trial.member;
        Kind kind = kind(trial, () -> recordings.kindOf(trial.unit));
        Recordings.Answered answered = recordings.answered(kind.id(), trial.unit, member);
        return Recording.imported(
                text,
                trial.timing == null ? "" : trial.timing,
                dialogue(kind),
                member,
                answered.values(),
                answered.secrets());
    }

    private Kind kind(KindTrial trial, Supplier<String> of) {
        return trial.description != null && !trial.description.isBlank()
                ? KindReader.read(trial.description)
                : kinds.newest(of.get()).kind();
    }

    private static Dialogue dialogue(Kind kind) {
        return kind.dialogue()
                .orElseThrow(
                        () -> new IllegalArgumentException(PrepareText.DESCRIPTION_HAS_NO_CONSOLE_DIALOGUE.text()));
    }

    private DryRun.Report played(KindTrial trial) {
        Recording recording = recording(trial);
        return recording.tryOn(
                dialogue(kind(trial, () -> trial.unit == null ? recording.kind() : recordings.kindOf(trial.unit))));
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
