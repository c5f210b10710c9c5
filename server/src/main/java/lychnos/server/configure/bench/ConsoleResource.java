package lychnos.server.configure.bench;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import java.util.Locale;
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
import lychnos.server.configure.plan.Comparisons;
import lychnos.server.configure.plan.MemberSteps;
import lychnos.server.configure.plan.Setups;
import lychnos.server.database.ReadsOnly;
import lychnos.server.identity.caller.Who;
import org.jboss.resteasy.reactive.RestQuery;
import org.jboss.resteasy.reactive.RestResponse;

/** Stage 3 on console lines. */
@Path("/api")
@RolesAllowed("viewer")
public class ConsoleResource {

    private static final long PATIENCE_SECONDS = 15;

    private final Setups setups;
    private final MemberSteps memberSteps;
    private final Comparisons comparisons;
    private final BenchViews views;
    private final Recordings recordings;
    private final Consoles consoles;
    private final Reach reach;
    private final Who who;

    ConsoleResource(
            Setups setups,
            MemberSteps memberSteps,
            Comparisons comparisons,
            BenchViews views,
            Recordings recordings,
            Consoles consoles,
            Reach reach,
            Who who) {
        this.reach = reach;
        this.setups = setups;
        this.memberSteps = memberSteps;
        this.comparisons = comparisons;
        this.views = views;
        this.recordings = recordings;
        this.consoles = consoles;
        this.who = who;
    }

    /**
     * How to begin: the way to work, a lead's reason to begin although it is not the first of its kind, and which units
     * where several are begun.
     */
    public record Begin(String mode, String reason, List<Long> units) {}

    /** What a person typed to go on; empty where saying so is enough. */
    public record GoOn(String typed) {}

    /** Why a prerequisite is overridden. */
    public record Reason(String reason) {}

    /** A step that is ticked by hand, or whose tick is taken back. */
    public record Tick(int place, boolean done) {}

    @GET
    @Path("bring-ups/{id}/lanes")
    @Transactional
    @ReadsOnly
    public BenchViews.Lanes lanes(long id) {
        return views.lanes(id);
    }

    @GET
    @Path("units/{id}/bench")
    @Transactional
    @ReadsOnly
    public BenchViews.View bench(long id) {
        return views.view(id);
    }

    @GET
    @Path("dialogues/{id}/recording.cast")
    @Produces("application/x-asciicast")
    public String recording(long id) {
        return recordings.asciicast(id);
    }

    @POST
    @Path("units/{id}/console")
    @RolesAllowed("engineer")
    public void begin(long id, Begin begin) {
        begin(views.bringUpOf(id), List.of(id), begin);
    }

    /** Begins several units at once, all of them or none. */
    @POST
    @Path("bring-ups/{id}/consoles")
    @RolesAllowed("engineer")
    public void beginAll(long id, Begin begin) {
        if (begin == null || begin.units == null || begin.units.isEmpty()) {
            throw Refusal.bad("Which units?");
        }
        begin(id, begin.units, begin);
    }

    private void begin(long bringUpId, List<Long> units, Begin begin) {
        setups.refuseBlocked(bringUpId, units);
        setups.begin(
                bringUpId,
                units,
                mode(begin == null ? null : begin.mode),
                begin == null || begin.reason == null ? "" : begin.reason,
                who.person());
    }

    private static Mode mode(String word) {
        try {
            return Mode.valueOf(String.valueOf(word).toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw Refusal.bad("Ways to work are watch, ask and run, not “" + word + "”.");
        }
    }

    /** Asks a unit's addresses once, from here: ping, and the ports of its page and of SSH. */
    @POST
    @Path("units/{id}/console/reach")
    @RolesAllowed("engineer")
    public List<Reach.Answer> reach(long id) {
        return reach.ask(id);
    }

    @POST
    @Path("units/{id}/console/close")
    @RolesAllowed("engineer")
    public void putAway(long id) {
        setups.putAway(id, who.person());
    }

    @POST
    @Path("dialogues/{id}/mode")
    @RolesAllowed("engineer")
    public void mode(long id, Begin begin) {
        Mode mode = mode(begin == null ? null : begin.mode);
        if (memberSteps.letPagesBeFilledIn(id, mode, who.person())) {
            consoles.lookAgain(memberSteps.runOf(id));
            return;
        }
        decide(id, work -> work.mode(mode, login()));
    }

    @POST
    @Path("dialogues/{id}/decision")
    @RolesAllowed("engineer")
    public void goOn(long id, GoOn goOn) {
        String typed = goOn == null || goOn.typed == null ? "" : goOn.typed;
        decide(id, line -> line.goOn(typed, login()));
    }

    @POST
    @Path("dialogues/{id}/stop")
    @RolesAllowed("engineer")
    public void stop(long id) {
        atWork(id).halt(login());
    }

    /** Halts every line of a bring-up at once. */
    @POST
    @Path("bring-ups/{id}/consoles/stop")
    @RolesAllowed("engineer")
    public void stopAll(long id) {
        consoles.ofBringUp(id).forEach(work -> work.halt(login()));
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

    @POST
    @Path("dialogues/{id}/override")
    @RolesAllowed("engineer")
    public void override(long id, Reason reason) {
        consoles.lookAgain(
                memberSteps.override(id, reason == null || reason.reason == null ? "" : reason.reason, who.person()));
    }

    @POST
    @Path("dialogues/{id}/tick")
    @RolesAllowed("engineer")
    public void tick(long id, Tick tick) {
        if (tick == null) {
            throw Refusal.bad("Which step?");
        }
        consoles.lookAgain(memberSteps.tick(id, tick.place, tick.done, who.person()));
    }

    /** What a person read on a machine that does not identify itself. */
    public record Comparison(String read) {}

    /** Compares what a person read on the machine with its label, and records it. */
    @PUT
    @Path("dialogues/{id}/comparison")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public void compare(long id, Comparison comparison) {
        consoles.lookAgain(comparisons.record(id, comparison == null ? null : comparison.read, who.person()));
    }

    /** A password as text, for the one who types it; the screen hides it again. */
    public record Shown(String text) {}

    /** Shows the password that a step sends. Asked for on purpose, and kept in the journal. */
    @POST
    @Path("dialogues/{id}/steps/{place}/password")
    @RolesAllowed("engineer")
    public RestResponse<Shown> password(long id, int place, @RestQuery @DefaultValue("") String field) {
        who.requireFreshPassword();
        return RestResponse.ResponseBuilder.ok(new Shown(memberSteps.password(id, place, field, who.person())))
                .header("Cache-Control", "no-store")
                .build();
    }

    private String login() {
        return who.person().login();
    }

    private AtWork atWork(long dialogueId) {
        return consoles.atWork(dialogueId)
                .orElseThrow(() -> Refusal.conflict(
                        "Nothing runs on this line here: the setup has ended, a prerequisite blocks it, a person "
                                + "does it by hand, or another server has it."));
    }

    private OpenLine line(long dialogueId) {
        return consoles.line(dialogueId)
                .orElseThrow(() -> Refusal.conflict(
                        "This line is not open on this server: its setup has ended, a prerequisite blocks it, or "
                                + "another server has it."));
    }

    private void decide(long dialogueId, Function<AtWork, CompletableFuture<Optional<String>>> act) {
        try {
            Optional<String> refused = act.apply(atWork(dialogueId)).get(PATIENCE_SECONDS, TimeUnit.SECONDS);
            refused.ifPresent(sentence -> {
                throw Refusal.conflict(sentence);
            });
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw Refusal.conflict("This server is stopping.");
        } catch (ExecutionException e) {
            throw new IllegalStateException(e.getCause());
        } catch (TimeoutException e) {
            throw Refusal.conflict("The line is busy, and it is not known whether this was done. Look at the console.");
        }
    }
}
