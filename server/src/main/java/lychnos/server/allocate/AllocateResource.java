package lychnos.server.allocate;

import jakarta.annotation.security.RolesAllowed;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import lychnos.server.account.Who;
import lychnos.server.prepare.BringUps;
import lychnos.server.prepare.Groundworks;
import lychnos.server.problem.Refusal;
import lychnos.server.store.AddressRange;
import lychnos.server.store.BringUp;
import lychnos.server.store.Claim;
import lychnos.server.store.Network;

/** Stage 2: where everything sits, a proposal, the taking of it. */
@Path("/api")
@RolesAllowed("viewer")
public class AllocateResource {

    private final Claims claims;
    private final BringUps bringUps;
    private final Groundworks groundworks;
    private final Session db;
    private final Who who;

    AllocateResource(Claims claims, BringUps bringUps, Groundworks groundworks, Session db, Who who) {
        this.claims = claims;
        this.bringUps = bringUps;
        this.groundworks = groundworks;
        this.db = db;
        this.who = who;
    }

    /** A named row of addresses on the ribbon. */
    public record Strip(String purpose, String first, String last, String note) {}

    /** A unit on the ribbon. */
    public record Seat(long unitId, String address, String hostName, String fqdn, String position, boolean ours, boolean proven) {}

    /** The newest taking, while it can be undone. */
    public record Undo(UUID taking, int count) {}

    /** The network drawn as a ribbon. */
    public record Ribbon(String name, String prefix, String gateway, Integer vlan, List<Strip> strips, List<Seat> seats, Undo undo) {}

    @GET
    @Path("bring-ups/{id}/ribbon")
    @Transactional
    public Ribbon ribbon(long id) {
        BringUp bringUp = bringUps.get(id);
        Network network = bringUp.network;
        if (network == null) {
            return new Ribbon("", "", "", null, List.of(), List.of(), null);
        }
        List<Strip> strips = groundworks.ranges(network.id).stream().map(AllocateResource::strip).toList();
        Set<Long> proven = new HashSet<>(db.createQuery("select p.unitId from Proof p where p.proven", Long.class).getResultList());
        List<Seat> seats = db.createQuery("select c, u from Claim c join Unit u on u.id = c.unitId where c.networkId = :id and c.releasedAt is null order by c.address", Object[].class)
                .setParameter("id", network.id)
                .getResultStream()
                .map(row -> seat((Claim) row[0], (lychnos.server.store.Unit) row[1], id, proven))
                .toList();
        return new Ribbon(network.name, network.prefix.toString(), network.gateway == null ? "" : network.gateway.toString(), network.vlan, strips, seats, undo(id));
    }

    private static Strip strip(AddressRange range) {
        return new Strip(range.purpose, range.first.toString(), range.last.toString(), range.note);
    }

    private static Seat seat(Claim claim, lychnos.server.store.Unit unit, long bringUpId, Set<Long> proven) {
        return new Seat(unit.id, claim.address.toString(), claim.hostName, claim.fqdn(), unit.position().toString(), unit.bringUpId == bringUpId, proven.contains(unit.id));
    }

    private Undo undo(long bringUpId) {
        return db.createNativeQuery(
                        "select cast(c.taking as text), count(*) from claim c join unit u on u.id = c.unit_id where u.bring_up_id = :id and c.released_at is null"
                                + " and not exists (select 1 from run r join claim d on d.unit_id = r.unit_id where d.taking = c.taking and r.purpose = 'configure')"
                                + " group by c.taking order by max(c.taken_at) desc limit 1",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .map(row -> new Undo(UUID.fromString((String) row[0]), ((Number) row[1]).intValue()))
                .findFirst()
                .orElse(null);
    }

    @GET
    @Path("bring-ups/{id}/proposal")
    public Claims.Proposal propose(long id, @QueryParam("pattern") String pattern, @QueryParam("from") String from) {
        return claims.propose(id, pattern, from);
    }

    /** The id of a taking, by which it can be undone. */
    public record Taken(UUID taking) {}

    @POST
    @Path("bring-ups/{id}/takings")
    @RolesAllowed("engineer")
    public Taken take(long id, Claims.Taking taking) {
        if (taking == null) {
            throw Refusal.bad("There is nothing to take.");
        }
        return new Taken(claims.take(id, taking, who.person()));
    }

    @POST
    @Path("bring-ups/{id}/takings/{taking}/undo")
    @RolesAllowed("engineer")
    public void undo(long id, UUID taking) {
        claims.undo(id, taking, who.person());
    }
}
