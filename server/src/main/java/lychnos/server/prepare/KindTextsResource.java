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
import lychnos.core.kind.Recording;
import lychnos.server.api.problem.Refusal;
import lychnos.server.kinds.Kinds;

/** Descriptions of kinds: those that can be added, the schema, a check of a text, a trial on a recording. */
@Path("/api")
@RolesAllowed("viewer")
public class KindTextsResource {

    private final Kinds kinds;

    KindTextsResource(Kinds kinds) {
        this.kinds = kinds;
    }

    /**
     * A recorded line, and the description that is tried on it; without one, the shipped one of the recording's kind.
     */
    public record KindTrial(String description, String recording) {}

    /**
     * What came of it: {@code open} are steps that were not reached, {@code differences} what would have been done
     * otherwise.
     */
    public record KindTried(boolean agrees, List<String> done, List<String> open, List<String> differences) {}

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

    /** Tries a description on a recorded line, without a machine. */
    @POST
    @Path("kinds/dry-run")
    @RolesAllowed("engineer")
    public KindTried dryRun(KindTrial trial) {
        Refusal.required(trial);
        try {
            Recording recording = Recording.read(trial.recording == null ? "" : trial.recording);
            Kind kind = trial.description == null || trial.description.isBlank()
                    ? kinds.newest(recording.kind()).kind()
                    : KindReader.read(trial.description);
            Dialogue dialogue = kind.dialogue()
                    .orElseThrow(() -> new IllegalArgumentException("The description has no console dialogue."));
            DryRun.Report report = recording.tryOn(dialogue);
            return new KindTried(
                    report.agrees(),
                    report.done(),
                    report.open(),
                    report.differences().stream()
                            .map(DryRun.Difference::sentence)
                            .toList());
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(e.getMessage());
        }
    }
}
