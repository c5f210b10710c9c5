package lychnos.server.handover;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
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
import org.eclipse.microprofile.openapi.annotations.media.Content;
import org.eclipse.microprofile.openapi.annotations.media.Schema;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponse;
import org.jspecify.annotations.Nullable;

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
    public record HandoverLine(
            long unitId,
            long claimId,
            String name,
            String role,
            String address,
            String serial,
            String certificate,
            @Nullable Instant provenAt) {}

    /** What the page shows. */
    public record HandoverView(
            String name,
            List<HandoverLine> lines,
            List<SignOff.SignStanding> units,
            int proven,
            int names,
            List<OpenItems.OpenItemView> items,
            List<OpenItems.OpenItemProposal> proposed,
            List<LifeAfter.RetiredUnit> retired,
            List<String> exports) {}

    @GET
    @Path("bring-ups/{id}/handover")
    @Transactional
    @ReadsOnly
    @APIResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_JSON,
                            schema = @Schema(implementation = HandoverView.class)))
    public Response view(long id, @Context Request request, @Context HttpHeaders headers) {
        return shared.of("handover " + id, id, request, headers, () -> view(id));
    }

    private HandoverView view(long id) {
        List<Inventory.InventoryEntry> entries = inventory.of(id, null);
        List<HandoverLine> lines = entries.stream()
                .map(each -> new HandoverLine(
                        each.unitId(),
                        each.claimId(),
                        each.endpoint().name(),
                        each.endpoint().role(),
                        each.endpoint().address().toString(),
                        each.endpoint().machine().serial(),
                        each.endpoint().seen().certificate(),
                        each.endpoint().provenAt()))
                .toList();
        List<SignOff.SignStanding> units = signOff.standings(id, entries);
        int proven =
                (int) units.stream().filter(each -> each.provenAt() != null).count();
        return new HandoverView(
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
    public record SignRequest(List<SignOff.SeenUnit> units) {}

    @POST
    @Path("bring-ups/{id}/signatures")
    @RolesAllowed("lead")
    public List<SignOff.SignedUnit> sign(long id, SignRequest sign) {
        return signOff.sign(id, sign == null ? null : sign.units, who.person());
    }

    @POST
    @Path("bring-ups/{id}/items")
    @RolesAllowed("lead")
    public Map<String, Long> note(long id, OpenItems.OpenItemNote note) {
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
    public Chaining.ChainLook verify() {
        return chaining.look();
    }
}
