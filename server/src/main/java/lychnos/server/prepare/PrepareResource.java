package lychnos.server.prepare;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.MediaType;
import java.time.LocalDate;
import java.util.List;
import lychnos.server.account.Who;
import lychnos.server.problem.Refusal;
import lychnos.server.store.BringUp;

/** Stage 1: bring-ups, label lists, the network. */
@Path("/api")
@RolesAllowed("viewer")
public class PrepareResource {

    private final BringUps bringUps;
    private final Labels labels;
    private final Groundworks groundworks;
    private final Who who;

    PrepareResource(BringUps bringUps, Labels labels, Groundworks groundworks, Who who) {
        this.bringUps = bringUps;
        this.labels = labels;
        this.groundworks = groundworks;
        this.who = who;
    }

    /** One line of the list of bring-ups. */
    public record Brief(long id, String name, LocalDate due, String site) {

        static Brief of(BringUp bringUp) {
            return new Brief(bringUp.id, bringUp.name, bringUp.due, bringUp.site.name);
        }
    }

    /** A fact-sheet row. */
    public record UnitFacts(long id, int number, String position, String serial, String mac, String model, String firstAddress) {}

    /** A network that may be chosen. */
    public record Choice(long id, String name, String prefix, Integer vlan) {}

    /** What the stage shows. */
    public record Sheet(Groundworks.View groundwork, List<Choice> choices, List<UnitFacts> units) {}

    record Chosen(long networkId) {}

    @GET
    @Path("bring-ups")
    @Transactional
    public List<Brief> list() {
        return bringUps.all().stream().map(Brief::of).toList();
    }

    @POST
    @Path("bring-ups")
    @RolesAllowed("engineer")
    public Brief begin(BringUps.Begin request) {
        return Brief.of(bringUps.begin(required(request), who.person()));
    }

    @GET
    @Path("bring-ups/{id}/prepare")
    @Transactional
    public Sheet sheet(long id) {
        BringUp bringUp = bringUps.get(id);
        List<UnitFacts> units = bringUps.units(id).stream()
                .map(unit -> new UnitFacts(
                        unit.id,
                        unit.number,
                        unit.position().toString(),
                        unit.serial,
                        unit.mac == null ? null : unit.mac.toString(),
                        unit.model,
                        unit.firstAddress == null ? null : unit.firstAddress.toString()))
                .toList();
        List<Choice> choices = bringUp.network != null
                ? List.of()
                : groundworks.ofRealm(bringUp.realmId).stream().map(n -> new Choice(n.id, n.name, n.prefix.toString(), n.vlan)).toList();
        return new Sheet(groundworks.view(bringUp, labels.undoable(id)), choices, units);
    }

    @POST
    @Path("bring-ups/{id}/labels")
    @Consumes(MediaType.TEXT_PLAIN)
    @RolesAllowed("engineer")
    public Labels.Report readLabels(long id, @QueryParam("preview") boolean preview, String text) {
        return labels.read(id, text == null ? "" : text, preview, who.person());
    }

    @POST
    @Path("label-imports/{id}/undo")
    @RolesAllowed("engineer")
    public void undoLabels(long id) {
        labels.undo(id, who.person());
    }

    @PUT
    @Path("bring-ups/{id}/network")
    @RolesAllowed("engineer")
    public void stateNetwork(long id, Groundworks.Statement statement) {
        groundworks.state(id, required(statement), who.person());
    }

    @POST
    @Path("bring-ups/{id}/network/choice")
    @RolesAllowed("engineer")
    public void chooseNetwork(long id, Chosen chosen) {
        groundworks.choose(id, required(chosen).networkId, who.person());
    }

    private static <T> T required(T body) {
        if (body == null) {
            throw Refusal.bad("The request has no body.");
        }
        return body;
    }
}
