package lychnos.server.allocate;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import lychnos.core.address.Address;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.ReadsOnly;
import lychnos.server.identity.caller.Who;
import lychnos.server.live.SharedViews;
import lychnos.server.text.AllocateText;
import org.eclipse.microprofile.openapi.annotations.media.Content;
import org.eclipse.microprofile.openapi.annotations.media.Schema;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponse;

/** Stage 2: the ribbon, proposals, allocations and names. */
@Path("/api")
@RolesAllowed("viewer")
public class AllocateResource {

    private final Claims claims;
    private final Releases releases;
    private final Ribbons ribbons;
    private final ProbesOnDemand probes;
    private static final int MOST_ASKED = 2048;

    private final Placings placings;
    private final Names names;
    private final Existing existing;
    private final Who who;
    private final SharedViews shared;

    AllocateResource(
            Claims claims,
            Releases releases,
            Ribbons ribbons,
            ProbesOnDemand probes,
            Placings placings,
            Names names,
            Existing existing,
            SharedViews shared,
            Who who) {
        this.shared = shared;
        this.placings = placings;
        this.names = names;
        this.existing = existing;
        this.claims = claims;
        this.releases = releases;
        this.ribbons = ribbons;
        this.probes = probes;
        this.who = who;
    }

    /** @param networkId which of the bring-up's networks; the first where none is named */
    @GET
    @Path("bring-ups/{id}/ribbon")
    @Transactional
    @ReadsOnly
    @APIResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_JSON,
                            schema = @Schema(implementation = Ribbons.RibbonView.class)))
    public Response ribbon(
            long id, @QueryParam("network") Long networkId, @Context Request request, @Context HttpHeaders headers) {
        return shared.of("ribbon " + id + " " + networkId, id, request, headers, () -> ribbons.ribbon(id, networkId));
    }

    @GET
    @Path("bring-ups/{id}/proposal")
    public Placings.PlacementProposal propose(
            long id, @QueryParam("pattern") String pattern, @QueryParam("from") String from) {
        return placings.propose(id, pattern, from);
    }

    /** The ways to place one unit; with an address, the one that begins there or why it cannot. */
    @GET
    @Path("bring-ups/{id}/fits")
    public Placings.Fits fits(long id, @QueryParam("unit") long unit, @QueryParam("at") String at) {
        return placings.fits(id, unit, at);
    }

    /** Addresses to be asked. */
    record PlacementRequest(List<String> addresses) {}

    /**
     * Asks the wire about addresses of the bring-up's networks; what answers and is not ours becomes an unknown device.
     */
    @POST
    @Path("bring-ups/{id}/probes")
    @RolesAllowed("engineer")
    public ProbesOnDemand.Probed sound(long id, PlacementRequest ask) {
        return probes.probe(id, addresses(ask));
    }

    private static List<Address> addresses(PlacementRequest ask) {
        if (ask == null || ask.addresses == null || ask.addresses.isEmpty() || ask.addresses.size() > MOST_ASKED) {
            throw Refusal.bad(AllocateText.FROM_1_TO_ADDRESSES_ARE_ASKED_AT_ONCE.said(MOST_ASKED));
        }
        try {
            return ask.addresses.stream().map(Address::parse).distinct().toList();
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(e.getMessage());
        }
    }

    /** Brings in what is in use already, from a table, a hosts file or a lease file. */
    @POST
    @Path("bring-ups/{id}/address-imports")
    @Consumes(MediaType.TEXT_PLAIN)
    @RolesAllowed("engineer")
    public Existing.AddressReport existing(long id, @QueryParam("preview") boolean preview, String text) {
        return existing.read(id, text == null ? "" : text, preview, who.person());
    }

    /** The same from the zones of the site, by transfer. */
    @POST
    @Path("bring-ups/{id}/address-imports/transfer")
    @RolesAllowed("engineer")
    public Existing.AddressReport transfer(long id, @QueryParam("preview") boolean preview) {
        return existing.transfer(id, preview, who.person());
    }

    @POST
    @Path("bring-ups/{id}/address-imports/forget")
    @RolesAllowed("engineer")
    public void forget(long id, PlacementRequest ask) {
        existing.forget(id, addresses(ask).stream().map(Address::toString).toList(), who.person());
    }

    @GET
    @Path("bring-ups/{id}/names")
    public Names.NamesView names(long id) {
        return names.view(id);
    }

    /** @param units whose records are sent once more although they were made; null for none */
    public record RecordsAgain(Set<Long> units) {}

    @POST
    @Path("bring-ups/{id}/record-pushes")
    @RolesAllowed("engineer")
    public int push(long id, RecordsAgain again) {
        return names.push(id, again == null || again.units == null ? Set.of() : again.units, who.person());
    }

    @POST
    @Path("units/{id}/release")
    @RolesAllowed("engineer")
    public void release(long id) {
        releases.release(id, who.person());
    }

    /** The id of an allocation, by which it can be undone. */
    public record NewAllocation(UUID allocation) {}

    @POST
    @Path("bring-ups/{id}/allocations")
    @RolesAllowed("engineer")
    public NewAllocation allocate(long id, Claims.NewClaims allocation) {
        if (allocation == null) {
            throw Refusal.bad(AllocateText.NO_ADDRESSES_WERE_SENT_TO_ALLOCATE.said());
        }
        return new NewAllocation(claims.allocate(id, allocation, who.person()));
    }

    @POST
    @Path("bring-ups/{id}/allocations/{allocation}/undo")
    @RolesAllowed("engineer")
    public void undo(long id, UUID allocation) {
        releases.undo(id, allocation, who.person());
    }
}
