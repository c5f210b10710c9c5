package lychnos.server.allocate;

import jakarta.enterprise.context.ApplicationScoped;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;
import lychnos.server.site.AddressRange;
import lychnos.server.site.BringUp;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** A network drawn as a ribbon: who has which address, what is kept, and what answers without being ours. */
@ApplicationScoped
public class Ribbons {

    private final Claims claims;
    private final BringUps bringUps;
    private final NetworkDefinitions networkDefinitions;
    private final FreeAddresses freeAddresses;
    private final AddressProbes addressProbes;
    private final Session db;
    private final ClaimsAsRead rows;

    Ribbons(
            Claims claims,
            BringUps bringUps,
            NetworkDefinitions networkDefinitions,
            FreeAddresses freeAddresses,
            AddressProbes addressProbes,
            Session db,
            ClaimsAsRead rows) {
        this.claims = claims;
        this.bringUps = bringUps;
        this.networkDefinitions = networkDefinitions;
        this.freeAddresses = freeAddresses;
        this.addressProbes = addressProbes;
        this.db = db;
        this.rows = rows;
    }

    /** A named row of addresses on the ribbon. */
    public record RibbonStrip(String purpose, String first, String last, String note) {}

    /** An address of a unit on the ribbon. */
    public record RibbonSeat(
            long unitId,
            String unit,
            String role,
            String address,
            String hostName,
            String fqdn,
            String position,
            boolean ours,
            boolean proven) {}

    /**
     * An address that answers but was not allocated here.
     *
     * @param controller what its Redfish service root says about it
     * @param unit whose label bears its MAC address, by what people call it
     */
    public record UnknownDeviceView(
            String address,
            @Nullable String mac,
            String sentence,
            @Nullable String controller,
            @Nullable String unit,
            @Nullable Instant firstHeard,
            @Nullable Instant lastHeard) {}

    /** How full 256 addresses are, for a network that is too large to draw address by address. */
    public record Density(String first, int taken, int kept, int pool) {}

    /** The newest allocation, while it can be undone. */
    public record UndoableAllocation(UUID allocation, int count) {}

    /** A network that can be looked at. */
    public record NetworkTab(
            long id,
            String name,
            String prefix,
            String purpose,
            @Nullable Integer vlan,
            boolean permanent,
            long free,
            long taken,
            long size) {}

    /** A network drawn as a ribbon. */
    public record RibbonView(
            long networkId,
            String name,
            String prefix,
            String purpose,
            String gateway,
            @Nullable Integer vlan,
            List<NetworkTab> tabs,
            List<RibbonStrip> strips,
            List<RibbonSeat> seats,
            List<UnknownDeviceView> unknownDevices,
            List<String> cooling,
            List<Density> density,
            @Nullable UndoableAllocation undo,
            boolean hears) {}

    /** A network as it is used now; the first of the bring-up where none is chosen. Called in a transaction. */
    RibbonView ribbon(long id, Long networkId) {
        BringUp bringUp = bringUps.get(id);
        List<Network> networks = networkDefinitions.networks(bringUp);
        Network network = networks.stream()
                .filter(each -> networkId == null || each.id.equals(networkId))
                .findFirst()
                .orElse(networks.isEmpty() ? null : networks.get(0));
        if (network == null) {
            return new RibbonView(
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
        Set<Long> proven = new HashSet<>(db.createNativeQuery(
                        "select p.claim_id from checked_address p join claim c on c.id = p.claim_id where p.proven "
                                + "and c.network_id = :network",
                        Long.class)
                .setParameter("network", network.id)
                .getResultList());
        Map<Long, Unit> units = rows.unitsIn(network.id);
        List<RibbonSeat> seats = rows.claimsIn(network.id).stream()
                .filter(claim -> units.containsKey(claim.unitId))
                .map(claim -> seat(claim, units.get(claim.unitId), id, proven))
                .toList();
        List<UnknownDevice> heard = addressProbes.unknownDevices(network.id);
        Map<Mac, String> labelled = labelled(heard);
        List<UnknownDeviceView> unknownDevices = heard.stream()
                .map(each -> new UnknownDeviceView(
                        each.key.address().toString(),
                        each.mac == null ? null : each.mac.toString(),
                        each.sentence,
                        each.controller,
                        each.mac == null ? null : labelled.get(each.mac),
                        each.firstHeard,
                        each.lastHeard))
                .toList();
        return new RibbonView(
                network.id,
                network.name,
                network.prefix.toString(),
                network.purpose,
                network.gateway == null ? "" : network.gateway.toString(),
                network.vlan,
                networks.stream().map(this::tab).toList(),
                ranges.stream().map(Ribbons::strip).toList(),
                seats,
                unknownDevices,
                freeAddresses.cooling(network.id).stream().map(Object::toString).toList(),
                density(network, ranges, seats),
                undo(id),
                addressProbes.possible());
    }

    /** Units whose labels have the MAC addresses of unknown devices. */
    private Map<Mac, String> labelled(List<UnknownDevice> heard) {
        Set<Mac> macs =
                heard.stream().map(each -> each.mac).filter(Objects::nonNull).collect(Collectors.toSet());
        return macs.isEmpty()
                ? Map.of()
                : db.createQuery("from Unit where mac in (:macs) and retiredAt is null", Unit.class)
                        .setParameter("macs", macs)
                        .getResultStream()
                        .collect(Collectors.toMap(unit -> unit.mac, Unit::label));
    }

    private NetworkTab tab(Network network) {
        long taken = db.createQuery(
                        "select count(*) from Claim c where c.networkId = :id and c.releasedAt is null", Long.class)
                .setParameter("id", network.id)
                .getSingleResult();
        return new NetworkTab(
                network.id,
                network.name,
                network.prefix.toString(),
                network.purpose,
                network.vlan,
                network.permanent,
                freeAddresses.count(network),
                taken,
                network.prefix.run().size());
    }

    /** One entry a /24 where an IPv4 network is larger than a /22; else none. */
    private static List<Density> density(Network network, List<AddressRange> ranges, List<RibbonSeat> seats) {
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

    private static RibbonStrip strip(AddressRange range) {
        return new RibbonStrip(range.purpose, range.first.toString(), range.last.toString(), range.note);
    }

    private static RibbonSeat seat(Claim claim, Unit unit, long bringUpId, Set<Long> proven) {
        return new RibbonSeat(
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

    private UndoableAllocation undo(long bringUpId) {
        Map<UUID, List<Claim>> takings =
                claims.live(bringUpId).stream().collect(Collectors.groupingBy(claim -> claim.allocation));
        // what was set up counts, though it may be out of use since
        takings.keySet()
                .removeAll(db.createNativeQuery(
                                "select distinct c.allocation from unit_run r join claim c on c.unit_id = r.unit_id "
                                        + "where r.purpose = 'configure' and c.allocation in :takings",
                                UUID.class)
                        .setParameterList("takings", List.copyOf(takings.keySet()))
                        .getResultList());
        return takings.values().stream()
                .max(Comparator.comparing(claims -> claims.stream()
                        .map(claim -> claim.takenAt)
                        .max(Comparator.naturalOrder())
                        .orElseThrow()))
                .map(newest -> new UndoableAllocation(newest.get(0).allocation, newest.size()))
                .orElse(null);
    }
}
