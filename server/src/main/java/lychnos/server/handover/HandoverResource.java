package lychnos.server.handover;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import lychnos.server.database.ReadsOnly;
import lychnos.server.handover.chain.Chaining;
import lychnos.server.identity.caller.Who;
import lychnos.server.live.SharedViews;
import lychnos.server.units.BringUps;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponseSchema;

/** Stage 5: what is handed over, signed, packed and given to others. */
@Path("/api")
@RolesAllowed("viewer")
public class HandoverResource {

    private final SharedViews shared;
    private final BringUps bringUps;
    private final Inventory inventory;
    private final SignOff signOff;
    private final OpenItems items;
    private final LifeAfter lifeAfter;
    private final Exports exports;
    private final Chaining chaining;
    private final Who who;

    HandoverResource(
            BringUps bringUps,
            Inventory inventory,
            SignOff signOff,
            OpenItems items,
            LifeAfter lifeAfter,
            Exports exports,
            Chaining chaining,
            Who who,
            SharedViews shared) {
        this.shared = shared;
        this.bringUps = bringUps;
        this.inventory = inventory;
        this.signOff = signOff;
        this.items = items;
        this.lifeAfter = lifeAfter;
        this.exports = exports;
        this.chaining = chaining;
        this.who = who;
    }

    /** One endpoint as the page shows it. */
    public record Line(
            long unitId,
            long claimId,
            String name,
            String role,
            String address,
            String serial,
            String certificate,
            Instant provenAt) {}

    /** What the page shows. */
    public record View(
            String name,
            List<Line> lines,
            List<SignOff.Standing> units,
            int proven,
            int names,
            List<OpenItems.View> items,
            List<OpenItems.Proposal> proposed,
            List<LifeAfter.Retired> retired,
            List<String> exports) {}

    @GET
    @Path("bring-ups/{id}/handover")
    @Transactional
    @ReadsOnly
    @APIResponseSchema(value = View.class, responseCode = "200")
    public Response view(long id, @Context Request request, @Context HttpHeaders headers) {
        return shared.of("handover " + id, id, request, headers, () -> view(id));
    }

    private View view(long id) {
        List<Inventory.Entry> entries = inventory.of(id, null);
        List<Line> lines = entries.stream()
                .map(each -> new Line(
                        each.unitId(),
                        each.claimId(),
                        each.endpoint().name(),
                        each.endpoint().role(),
                        each.endpoint().address(),
                        each.endpoint().serial(),
                        each.endpoint().certificate(),
                        each.endpoint().provenAt()))
                .toList();
        List<SignOff.Standing> units = signOff.standings(id, entries);
        int proven =
                (int) units.stream().filter(each -> each.provenAt() != null).count();
        return new View(
                bringUps.named(id).name(),
                lines,
                units,
                proven,
                exports.names(id),
                items.of(id),
                items.proposed(id),
                lifeAfter.retired(id),
                exports.fileNames(id));
    }

    /** What is to be signed. */
    public record Sign(List<SignOff.Seen> units) {}

    @POST
    @Path("bring-ups/{id}/signatures")
    @RolesAllowed("lead")
    public List<SignOff.Signed> sign(long id, Sign sign) {
        return signOff.sign(id, sign == null ? null : sign.units, who.person());
    }

    @POST
    @Path("bring-ups/{id}/items")
    @RolesAllowed("lead")
    public Map<String, Long> note(long id, OpenItems.Note note) {
        return Map.of("id", items.note(id, note, who.person()));
    }

    @DELETE
    @Path("items/{id}")
    @RolesAllowed("lead")
    public void close(long id) {
        items.close(id, who.person());
    }

    /** Recomputes the chain of everything that was ever signed or noted. */
    @POST
    @Path("chain/verifications")
    @RolesAllowed("engineer")
    public Chaining.Looked verify() {
        return chaining.look();
    }
}
