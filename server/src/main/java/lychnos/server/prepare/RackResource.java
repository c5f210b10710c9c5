package lychnos.server.prepare;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.units.RackChecks;

/** What is checked at the rack. */
@Path("/api/bring-ups/{id}/rack-checks")
@RolesAllowed("viewer")
public class RackResource {

    private final RackChecks checks;
    private final Who who;

    RackResource(RackChecks checks, Who who) {
        this.checks = checks;
        this.who = who;
    }

    /**
     * All machines with something to check.
     *
     * @param done how many checks are ticked, of {@code all}
     */
    record RackChecksView(List<RackChecks.RackMachine> machines, long done, long all) {}

    @GET
    public RackChecksView checks(long id) {
        List<RackChecks.RackMachine> machines = checks.of(id);
        return new RackChecksView(
                machines,
                machines.stream()
                        .flatMap(machine -> machine.checks().stream())
                        .filter(check -> check.at() != null)
                        .count(),
                machines.stream().mapToLong(machine -> machine.checks().size()).sum());
    }

    @PUT
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public void tick(long id, RackChecks.Tick tick) {
        checks.tick(id, Refusal.required(tick), who.person());
    }
}
