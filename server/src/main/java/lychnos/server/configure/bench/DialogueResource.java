package lychnos.server.configure.bench;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import lychnos.core.dialogue.Mode;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.line.OpenLine;
import lychnos.server.configure.model.AtWork;
import lychnos.server.configure.model.MachineLogs;
import lychnos.server.configure.plan.Comparisons;
import lychnos.server.configure.plan.MemberSteps;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.ConfigureText;
import org.jboss.resteasy.reactive.RestQuery;
import org.jboss.resteasy.reactive.RestResponse;

/** One member of a setup on its console or its pages: what a person decides, types, ticks and compares. */
@Path("/api")
@RolesAllowed("viewer")
public class DialogueResource {

    private static final long PATIENCE_SECONDS = 15;

    private final MemberSteps memberSteps;
    private final Comparisons comparisons;
    private final Recordings recordings;
    private final MachineLogs logs;
    private final Consoles consoles;
    private final Who who;

    DialogueResource(
            MemberSteps memberSteps,
            Comparisons comparisons,
            Recordings recordings,
            MachineLogs logs,
            Consoles consoles,
            Who who) {
        this.memberSteps = memberSteps;
        this.comparisons = comparisons;
        this.recordings = recordings;
        this.logs = logs;
        this.consoles = consoles;
        this.who = who;
    }

    /**
     * What a person decides.
     *
     * @param typed what was typed to go on; empty where saying so is enough
     * @param reason why the machine is restarted outside of its change window; empty where none is needed
     */
    public record GoOnRequest(String typed, String reason) {}

    /** Why a prerequisite is overridden. */
    public record OverrideReason(String reason) {}

    /** A step that is ticked by hand, or whose tick is taken back. */
    public record StepTick(int place, boolean done) {}

    @GET
    @Path("dialogues/{id}/recording.cast")
    @Produces("application/x-asciicast")
    public String recording(long id) {
        return recordings.asciicast(id);
    }

    @POST
    @Path("dialogues/{id}/mode")
    @RolesAllowed("engineer")
    public void mode(long id, ConsoleResource.ConsoleStart begin) {
        Mode mode = ConsoleResource.mode(begin == null ? null : begin.mode());
        if (memberSteps.letPagesBeFilledIn(id, mode, who.person())) {
            consoles.lookAgain(memberSteps.runOf(id));
            return;
        }
        decide(id, work -> work.mode(mode, login()));
    }

    @POST
    @Path("dialogues/{id}/decision")
    @RolesAllowed("engineer")
    public void goOn(long id, GoOnRequest goOn) {
        String typed = goOn == null || goOn.typed == null ? "" : goOn.typed;
        memberSteps.refuseOutsideWindow(id, goOn == null ? "" : goOn.reason, who.person());
        decide(id, line -> line.goOn(typed, login()));
    }

    /** Fetches the machine's own log; it is kept with the unit once the machine has shown it. */
    @POST
    @Path("dialogues/{id}/log")
    @RolesAllowed("engineer")
    public void fetchLog(long id) {
        decide(id, work -> work.fetchLog(login()));
    }

    /** Lists the logs of a unit's machines that were fetched. */
    @GET
    @Path("units/{id}/logs")
    public List<MachineLogs.MachineLogLine> logs(long id) {
        return logs.of(id);
    }

    /** A log that a machine has shown. */
    @GET
    @Path("machine-logs/{id}")
    @Produces(MediaType.TEXT_PLAIN)
    public String log(long id) {
        return logs.text(id);
    }

    @POST
    @Path("dialogues/{id}/stop")
    @RolesAllowed("engineer")
    public void stop(long id) {
        atWork(id).halt(login());
    }

    @POST
    @Path("dialogues/{id}/again")
    @RolesAllowed("engineer")
    public void again(long id) {
        decide(id, line -> line.again(login()));
    }

    @POST
    @Path("dialogues/{id}/take")
    @RolesAllowed("engineer")
    public void take(long id) {
        line(id).take(login());
    }

    /** Says that a setup by hand has come to its end. */
    @POST
    @Path("dialogues/{id}/finish")
    @RolesAllowed("engineer")
    public void finish(long id) {
        decide(line(id).finish(login()));
    }

    @POST
    @Path("dialogues/{id}/override")
    @RolesAllowed("engineer")
    public void override(long id, OverrideReason reason) {
        consoles.lookAgain(
                memberSteps.override(id, reason == null || reason.reason == null ? "" : reason.reason, who.person()));
    }

    @POST
    @Path("dialogues/{id}/tick")
    @RolesAllowed("engineer")
    public void tick(long id, StepTick tick) {
        if (tick == null) {
            throw Refusal.bad(ConfigureText.WHICH_STEP.said());
        }
        consoles.lookAgain(memberSteps.tick(id, tick.place, tick.done, who.person()));
    }

    /** What a person read on a machine that does not identify itself. */
    public record LabelComparison(String read) {}

    /** Compares what a person read on the machine with its label, and records it. */
    @PUT
    @Path("dialogues/{id}/comparison")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public void compare(long id, LabelComparison comparison) {
        consoles.lookAgain(comparisons.record(id, comparison == null ? null : comparison.read, who.person()));
    }

    /** A password as text, for the one who types it; the screen hides it again. */
    public record ShownPassword(String text) {}

    /** Shows the password that a step sends. Asked for on purpose, and kept in the journal. */
    @POST
    @Path("dialogues/{id}/steps/{place}/password")
    @RolesAllowed("engineer")
    public RestResponse<ShownPassword> password(long id, int place, @RestQuery @DefaultValue("") String field) {
        who.requireFreshPassword();
        return RestResponse.ResponseBuilder.ok(new ShownPassword(memberSteps.password(id, place, field, who.person())))
                .header("Cache-Control", "no-store")
                .build();
    }

    private String login() {
        return who.person().login();
    }

    private AtWork atWork(long dialogueId) {
        return consoles.atWork(dialogueId)
                .orElseThrow(() -> Refusal.conflict(ConfigureText.NOTHING_RUNS_ON_THIS_LINE.said()));
    }

    private OpenLine line(long dialogueId) {
        return consoles.line(dialogueId)
                .orElseThrow(() -> Refusal.conflict(ConfigureText.LINE_IS_NOT_OPEN_ON_THIS_SERVER.said()));
    }

    private void decide(long dialogueId, Function<AtWork, CompletableFuture<Optional<String>>> act) {
        decide(act.apply(atWork(dialogueId)));
    }

    private static void decide(CompletableFuture<Optional<String>> decided) {
        try {
            Optional<String> refused = decided.get(PATIENCE_SECONDS, TimeUnit.SECONDS);
            refused.ifPresent(sentence -> {
                throw Refusal.conflict(sentence);
            });
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw Refusal.conflict(ConfigureText.SERVER_IS_STOPPING.said());
        } catch (ExecutionException e) {
            throw new IllegalStateException(e.getCause());
        } catch (TimeoutException e) {
            throw Refusal.conflict(ConfigureText.LINE_IS_BUSY.said());
        }
    }
}
