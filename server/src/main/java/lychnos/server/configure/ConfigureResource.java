package lychnos.server.configure;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import java.util.List;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.jobs.Run;
import lychnos.server.text.ConfigureText;

/** Stage 3: rounds of setups. */
@Path("/api")
@RolesAllowed("viewer")
public class ConfigureResource {

    private final Rounds rounds;
    private final Who who;

    ConfigureResource(Rounds rounds, Who who) {
        this.rounds = rounds;
        this.who = who;
    }

    /**
     * Which setups to start.
     *
     * @param width how many at once after the first is proven
     * @param reason why units outside of their change windows are started as well; empty to leave them out
     */
    public record SetupStart(int width, String reason) {}

    @GET
    @Path("bring-ups/{id}/configure")
    @Transactional
    public Rounds.ConfigureView view(long id) {
        return rounds.view(id);
    }

    @GET
    @Path("setups/{id}/steps")
    @Transactional
    public List<Rounds.SetupStepView> steps(long id) {
        return rounds.steps(id);
    }

    @POST
    @Path("bring-ups/{id}/setups")
    @RolesAllowed("engineer")
    public void start(long id, SetupStart start) {
        if (start == null) {
            throw Refusal.bad(ConfigureText.ENTER_HOW_MANY_RUN_IN_PARALLEL.said());
        }
        rounds.start(id, start.width, start.reason == null ? "" : start.reason, who.person());
    }

    @POST
    @Path("bring-ups/{id}/setups/cancel")
    @RolesAllowed("engineer")
    public void cancel(long id) {
        rounds.cancel(id, Run.CONFIGURE, who.person());
    }

    @POST
    @Path("setups/{id}/retry")
    @RolesAllowed("engineer")
    public void retry(long id) {
        rounds.retry(id, Run.CONFIGURE, who.person());
    }

    @POST
    @Path("setups/{id}/set-aside")
    @RolesAllowed("engineer")
    public void setAside(long id) {
        rounds.setAside(id, Run.CONFIGURE, who.person());
    }
}
