package lychnos.server.allocate;

import io.quarkus.narayana.jta.QuarkusTransaction;
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
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.Prefix;
import lychnos.server.caller.Who;
import lychnos.server.live.SharedViews;
import lychnos.server.prepare.BringUps;
import lychnos.server.prepare.NetworkDefinitions;
import lychnos.server.problem.Refusal;
import lychnos.server.store.AddressRange;
import lychnos.server.store.BringUp;
import lychnos.server.store.Claim;
import lychnos.server.store.Network;
import lychnos.server.store.ReadsOnly;
import lychnos.server.store.RowsAsRead;
import lychnos.server.store.Unit;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponseSchema;
import org.hibernate.Session;

/** Stage 2: where everything sits, a proposal, the taking of it. */
@Path("/api")
@RolesAllowed("viewer")
public class AllocateResource {

    private final Claims claims;
    private final BringUps bringUps;
    private final NetworkDefinitions networkDefinitions;
    private static final int MOST_ASKED = 2048;

    private final Placings placings;
    private final AddressProbes addressProbes;
    private final Names names;
    private final Existing existing;
    private final Session db;
    private final RowsAsRead rows;
    private final Who who;
    private final SharedViews shared;

    AllocateResource(
            Claims claims,
            BringUps bringUps,
            NetworkDefinitions networkDefinitions,
            Placings placings,
            AddressProbes addressProbes,
            Names names,
            Existing existing,
            Session db,
            RowsAsRead rows,
            SharedViews shared,
            Who who) {
        this.shared = shared;
        this.placings = placings;
        this.addressProbes = addressProbes;
        this.names = names;
        this.existing = existing;
        this.claims = claims;
        this.bringUps = bringUps;
        this.networkDefinitions = networkDefinitions;
        this.db = db;
        this.rows = rows;
        this.who = who;
    }

    /** A named row of addresses on the ribbon. */
    public record Strip(String purpose, String first, String last, String note) {}

    /** An address of a unit on the ribbon. */
    public record Seat(
            long unitId,
            String unit,
            String role,
            String address,
            String hostName,
            String fqdn,
            String position,
            boolean ours,
            boolean proven) {}

    /** An address that answers although nobody here gave it out. */
    public record StrangerView(String address, String mac, String sentence, Instant firstHeard, Instant lastHeard) {}

    /** How full 256 addresses are, for a network that is too large to draw address by address. */
    public record Density(String first, int taken, int kept, int pool) {}

    /** The newest taking, while it can be undone. */
    public record Undo(UUID taking, int count) {}

    /** A network that can be looked at. */
    public record Tab(
            long id,
            String name,
            String prefix,
            String purpose,
            Integer vlan,
            boolean permanent,
            long free,
            long taken,
            long size) {}

    /** A network drawn as a ribbon. */
    public record Ribbon(
            long networkId,
            String name,
            String prefix,
            String purpose,
            String gateway,
            Integer vlan,
            List<Tab> tabs,
            List<Strip> strips,
            List<Seat> seats,
            List<StrangerView> strangers,
            List<String> cooling,
            List<Density> density,
            Undo undo,
            boolean hears) {}

    /** @param networkId which of the bring-up's networks; the first where none is named */
    @GET
    @Path("bring-ups/{id}/ribbon")
    @Transactional
    @ReadsOnly
    @APIResponseSchema(value = Ribbon.class, responseCode = "200")
    public Response ribbon(
            long id, @QueryParam("network") Long networkId, @Context Request request, @Context HttpHeaders headers) {
        return shared.of("ribbon " + id + " " + networkId, id, request, headers, () -> ribbon(id, networkId));
    }

    private Ribbon ribbon(long id, Long networkId) {
        BringUp bringUp = bringUps.get(id);
        List<Network> networks = networkDefinitions.networks(bringUp);
        Network network = networks.stream()
                .filter(each -> networkId == null || each.id.equals(networkId))
                .findFirst()
                .orElse(networks.isEmpty() ? null : networks.get(0));
        if (network == null) {
            return new Ribbon(
                    0,
                    "",
                    "",
                    "",
                    "",
                    null,
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    null,
                    addressProbes.possible());
        }
        List<AddressRange> ranges = networkDefinitions.ranges(network.id);
        Set<Long> proven = new HashSet<>(db.createQuery(
                        "select p.claimId from Proof p join Claim c on c.id = p.claimId where p.proven and "
                                + "c.networkId = :network",
                        Long.class)
                .setParameter("network", network.id)
                .getResultList());
        Map<Long, Unit> units = rows.unitsIn(network.id);
        List<Seat> seats = rows.claimsIn(network.id).stream()
                .filter(claim -> units.containsKey(claim.unitId))
                .map(claim -> seat(claim, units.get(claim.unitId), id, proven))
                .toList();
        List<StrangerView> strangers = addressProbes.strangers(network.id).stream()
                .map(each -> new StrangerView(
                        each.key.address().toString(),
                        each.mac == null ? null : each.mac.toString(),
                        each.sentence,
                        each.firstHeard,
                        each.lastHeard))
                .toList();
        return new Ribbon(
                network.id,
                network.name,
                network.prefix.toString(),
                network.purpose,
                network.gateway == null ? "" : network.gateway.toString(),
                network.vlan,
                networks.stream().map(this::tab).toList(),
                ranges.stream().map(AllocateResource::strip).toList(),
                seats,
                strangers,
                networkDefinitions.cooling(network.id).stream()
                        .map(Object::toString)
                        .toList(),
                density(network, ranges, seats),
                undo(id),
                addressProbes.possible());
    }

    private Tab tab(Network network) {
        long taken = db.createQuery(
                        "select count(*) from Claim c where c.networkId = :id and c.releasedAt is null", Long.class)
                .setParameter("id", network.id)
                .getSingleResult();
        return new Tab(
                network.id,
                network.name,
                network.prefix.toString(),
                network.purpose,
                network.vlan,
                network.permanent,
                networkDefinitions.freeSize(network),
                taken,
                network.prefix.run().size());
    }

    /** One entry a /24 where an IPv4 network is larger than a /22; else none. */
    private static List<Density> density(Network network, List<AddressRange> ranges, List<Seat> seats) {
        Prefix prefix = network.prefix;
        if (!prefix.network().isV4() || prefix.length() >= 22 || prefix.length() < 12) {
            return List.of();
        }
        int rows = 1 << 24 - prefix.length();
        int[] taken = new int[rows];
        seats.forEach(seat -> taken[(int) (Address.parse(seat.address).distanceFrom(prefix.network()) >> 8)]++);
        List<Density> density = new ArrayList<>(rows);
        for (int row = 0; row < rows; row++) {
            AddressRun run = AddressRun.of(prefix.network().plus(row * 256L), 256);
            density.add(new Density(
                    run.first().toString(), taken[row], overlap(ranges, run, false), overlap(ranges, run, true)));
        }
        return density;
    }

    private static int overlap(List<AddressRange> ranges, AddressRun run, boolean pools) {
        long sum = 0;
        for (AddressRange range : ranges) {
            if (range.purpose.equals(AddressRange.POOL) == pools && range.run().overlaps(run)) {
                Address first = range.first.compareTo(run.first()) > 0 ? range.first : run.first();
                Address last = range.last.compareTo(run.last()) < 0 ? range.last : run.last();
                sum += last.distanceFrom(first) + 1;
            }
        }
        return (int) sum;
    }

    private static Strip strip(AddressRange range) {
        return new Strip(range.purpose, range.first.toString(), range.last.toString(), range.note);
    }

    private static Seat seat(Claim claim, Unit unit, long bringUpId, Set<Long> proven) {
        return new Seat(
                unit.id,
                unit.label(),
                claim.role,
                claim.address.toString(),
                claim.hostName,
                claim.fqdn(),
                unit.place(),
                unit.bringUpId == bringUpId,
                proven.contains(claim.id));
    }

    private Undo undo(long bringUpId) {
        Map<UUID, List<Claim>> takings =
                claims.live(bringUpId).stream().collect(Collectors.groupingBy(claim -> claim.taking));
        // what was set up counts, though it may be out of use since
        takings.keySet()
                .removeAll(db.createQuery(
                                "select distinct c.taking from Run r join Claim c on c.unitId = r.unitId where "
                                        + "r.purpose = 'configure' and c.taking in :takings",
                                UUID.class)
                        .setParameterList("takings", List.copyOf(takings.keySet()))
                        .getResultList());
        return takings.values().stream()
                .max(Comparator.comparing(claims -> claims.stream()
                        .map(claim -> claim.takenAt)
                        .max(Comparator.naturalOrder())
                        .orElseThrow()))
                .map(newest -> new Undo(newest.get(0).taking, newest.size()))
                .orElse(null);
    }

    @GET
    @Path("bring-ups/{id}/proposal")
    public Placings.Proposal propose(long id, @QueryParam("pattern") String pattern, @QueryParam("from") String from) {
        return placings.propose(id, pattern, from);
    }

    /** The ways to place one unit; with an address, the one that begins there or why it cannot. */
    @GET
    @Path("bring-ups/{id}/fits")
    public Placings.Fits fits(long id, @QueryParam("unit") long unit, @QueryParam("at") String at) {
        return placings.fits(id, unit, at);
    }

    /** What the wire said about addresses. */
    public record Sounded(int asked, boolean possible, List<StrangerView> answering) {}

    /** Addresses to be asked. */
    record Ask(List<String> addresses) {}

    /** Asks the wire about addresses of the bring-up's networks; what answers and is not ours becomes a stranger. */
    @POST
    @Path("bring-ups/{id}/soundings")
    @RolesAllowed("engineer")
    public Sounded sound(long id, Ask ask) {
        List<Address> addresses = addresses(ask);
        List<Network> networks =
                QuarkusTransaction.requiringNew().call(() -> networkDefinitions.networks(bringUps.get(id)));
        Map<Address, AddressProbes.Heard> heard = addressProbes.heard(
                addresses.stream()
                        .filter(address -> networks.stream().anyMatch(network -> network.prefix.contains(address)))
                        .toList(),
                networks);
        Set<Address> ours = QuarkusTransaction.requiringNew().call(() -> networkDefinitions.taken(networks));
        for (Network network : networks) {
            Map<Address, AddressProbes.Heard> strange = new LinkedHashMap<>(heard);
            strange.keySet().removeIf(address -> ours.contains(address) || !network.prefix.contains(address));
            if (!strange.isEmpty()) {
                addressProbes.note(network, id, strange);
            }
            if (addressProbes.possible()) {
                addresses.stream()
                        .filter(address -> network.prefix.contains(address) && !heard.containsKey(address))
                        .forEach(address -> addressProbes.forget(network.id, address, id));
            }
        }
        List<StrangerView> answering = heard.entrySet().stream()
                .map(each -> new StrangerView(
                        each.getKey().toString(),
                        each.getValue().mac() == null
                                ? null
                                : each.getValue().mac().toString(),
                        each.getValue().sentence(),
                        null,
                        null))
                .toList();
        return new Sounded(addresses.size(), addressProbes.possible(), answering);
    }

    private static List<Address> addresses(Ask ask) {
        if (ask == null || ask.addresses == null || ask.addresses.isEmpty() || ask.addresses.size() > MOST_ASKED) {
            throw Refusal.bad("From 1 to " + MOST_ASKED + " addresses are asked at once.");
        }
        try {
            return ask.addresses.stream().map(Address::parse).distinct().toList();
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(e.getMessage());
        }
    }

    /** Brings in what is in use already, from a table, a hosts file or a lease file. */
    @POST
    @Path("bring-ups/{id}/existing")
    @Consumes(MediaType.TEXT_PLAIN)
    @RolesAllowed("engineer")
    public Existing.Report existing(long id, @QueryParam("preview") boolean preview, String text) {
        return existing.read(id, text == null ? "" : text, preview, who.person());
    }

    /** The same from the zones of the site, by transfer. */
    @POST
    @Path("bring-ups/{id}/existing/transfer")
    @RolesAllowed("engineer")
    public Existing.Report transfer(long id, @QueryParam("preview") boolean preview) {
        return existing.transfer(id, preview, who.person());
    }

    @POST
    @Path("bring-ups/{id}/existing/forget")
    @RolesAllowed("engineer")
    public void forget(long id, Ask ask) {
        existing.forget(id, addresses(ask).stream().map(Address::toString).toList(), who.person());
    }

    @GET
    @Path("bring-ups/{id}/names")
    public Names.View names(long id) {
        return names.view(id);
    }

    /** @param units whose records are sent once more although they were made; null for none */
    public record Again(Set<Long> units) {}

    @POST
    @Path("bring-ups/{id}/names/push")
    @RolesAllowed("engineer")
    public int push(long id, Again again) {
        return names.push(id, again == null || again.units == null ? Set.of() : again.units, who.person());
    }

    @POST
    @Path("units/{id}/release")
    @RolesAllowed("engineer")
    public void release(long id) {
        claims.release(id, who.person());
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
