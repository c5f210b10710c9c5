package lychnos.server.configure;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.jobs.Run;

/** The passwords of machines in use are replaced: by leads alone, as they give credentials to others. */
@Path("/api")
@RolesAllowed("viewer")
public class PasswordChangesResource {

    private final PasswordChanges changes;
    private final Rounds rounds;
    private final Who who;

    PasswordChangesResource(PasswordChanges changes, Rounds rounds, Who who) {
        this.changes = changes;
        this.rounds = rounds;
        this.who = who;
    }

    /**
     * Which passwords to change.
     *
     * @param width how many at once after the first is proven
     */
    public record PasswordChangeStart(List<Long> units, int width) {}

    @GET
    @Path("bring-ups/{id}/password-changes")
    public PasswordChanges.PasswordChangesView view(long id) {
        return changes.of(id);
    }

    @POST
    @Path("bring-ups/{id}/password-changes")
    @RolesAllowed("lead")
    public void start(long id, PasswordChangeStart start) {
        Set<Long> units = Refusal.required(start).units == null
                ? Set.of()
                : start.units.stream().filter(unit -> unit != null).collect(Collectors.toSet());
        changes.start(id, units, start.width, who.person());
    }

    @POST
    @Path("bring-ups/{id}/password-changes/cancel")
    @RolesAllowed("lead")
    public void cancel(long id) {
        rounds.cancel(id, Run.PASSWORD, who.person());
    }

    @POST
    @Path("password-changes/{id}/retry")
    @RolesAllowed("lead")
    public void retry(long id) {
        rounds.retry(id, Run.PASSWORD, who.person());
    }

    @POST
    @Path("password-changes/{id}/set-aside")
    @RolesAllowed("lead")
    public void setAside(long id) {
        rounds.setAside(id, Run.PASSWORD, who.person());
    }
}
