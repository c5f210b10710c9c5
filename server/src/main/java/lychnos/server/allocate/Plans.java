package lychnos.server.allocate;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Clock;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.place.Need;
import lychnos.core.rule.Finding;
import lychnos.core.rule.Plan;
import lychnos.core.rule.PlannedNetwork;
import lychnos.core.rule.PlannedUnit;
import lychnos.core.rule.Rule;
import lychnos.core.sheet.UnitFacts;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.LychnosConfig;
import lychnos.server.database.RowsAsRead;
import lychnos.server.image.Images;
import lychnos.server.site.AddressRange;
import lychnos.server.site.BringUp;
import lychnos.server.site.MeasuredService;
import lychnos.server.site.Measures;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.site.SiteResources;
import lychnos.server.units.Facts;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** Puts together what is known of a bring-up, for the rules to look at. */
@ApplicationScoped
public class Plans {

    private static final Duration LATELY = Duration.ofDays(28);

    /** By shared rows, as long as somebody has those. */
    private final Cache<List<Claim>, Map<Long, List<PlannedSeat>>> seats =
            Caffeine.newBuilder().weakKeys().build();

    private final Session db;
    private final RowsAsRead rows;
    private final ClaimsAsRead read;
    private final NetworkDefinitions networkDefinitions;
    private final FreeAddresses freeAddresses;
    private final Facts facts;
    private final SiteResources siteResources;
    private final Images images;
    private final LychnosConfig config;
    private final Clock clock;

    Plans(
            Session db,
            RowsAsRead rows,
            ClaimsAsRead read,
            NetworkDefinitions networkDefinitions,
            FreeAddresses freeAddresses,
            Facts facts,
            SiteResources siteResources,
            Images images,
            LychnosConfig config,
            Clock clock) {
        this.db = db;
        this.rows = rows;
        this.read = read;
        this.networkDefinitions = networkDefinitions;
        this.freeAddresses = freeAddresses;
        this.facts = facts;
        this.siteResources = siteResources;
        this.images = images;
        this.config = config;
        this.clock = clock;
    }

    /** What would go wrong, gravest first; empty while there is neither a network nor a unit. */
    public List<Finding> findings(BringUp bringUp) {
        return Rule.lookAt(plan(bringUp, facts.of(bringUp)));
    }

    /** Everything that is known of a bring-up, with the sheet that was read already. */
    public Plan plan(BringUp bringUp, Map<Unit, UnitFacts> sheet) {
        return plan(bringUp, sheet, seats(bringUp.id));
    }

    /** An address that a unit bears. */
    public record PlannedSeat(
            long unitId, long networkId, String role, Address address, String hostName, String domain) {}

    /**
     * By unit, the live addresses of a bring-up in the order of their places; the first is what the unit is managed at.
     */
    public Map<Long, List<PlannedSeat>> seats(long bringUpId) {
        if (rows.suffice()) {
            List<Claim> claims = read.claims(bringUpId);
            return seats.get(
                    claims,
                    these -> Collections.unmodifiableMap(these.stream()
                            .map(claim -> new PlannedSeat(
                                    claim.unitId,
                                    claim.networkId,
                                    claim.role,
                                    claim.address,
                                    claim.hostName,
                                    claim.domain))
                            .collect(Collectors.groupingBy(PlannedSeat::unitId))));
        }
        return db.createQuery(
                        "select new lychnos.server.allocate.Plans$PlannedSeat(c.unitId, c.networkId, c.role, "
                                + "c.address, "
                                + "c.hostName, c.domain)"
                                + " from Claim c join Unit u on u.id = c.unitId where u.bringUpId = :id and "
                                + "c.releasedAt is null order by c.place",
                        PlannedSeat.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .collect(Collectors.groupingBy(PlannedSeat::unitId));
    }

    /** The live addresses of one unit, in the order of their places. */
    public List<PlannedSeat> seatsOf(long unitId) {
        return db.createQuery(
                        "select new lychnos.server.allocate.Plans$PlannedSeat(c.unitId, c.networkId, c.role, "
                                + "c.address, "
                                + "c.hostName, c.domain) from Claim c where c.unitId = :id and c.releasedAt is null "
                                + "order by c.place",
                        PlannedSeat.class)
                .setParameter("id", unitId)
                .getResultList();
    }

    /** The same, with the addresses, which were read already too. */
    public Plan plan(BringUp bringUp, Map<Unit, UnitFacts> sheet, Map<Long, List<PlannedSeat>> claims) {
        Map<String, Long> wanted = wanted(sheet, claims.keySet());
        List<Network> own = networkDefinitions.networks(bringUp);
        Set<Long> ours = own.stream().map(network -> network.id).collect(Collectors.toSet());
        Set<Long> realms = own.stream().map(network -> network.realmId).collect(Collectors.toSet());
        // what lies in another realm cannot be reached from here, and is in nobody's way
        List<Network> all = networkDefinitions.ofSite(bringUp.site.id).stream()
                .filter(network -> realms.contains(network.realmId))
                .toList();
        Map<Long, Network> byId = all.stream().collect(Collectors.toMap(network -> network.id, network -> network));
        List<PlannedNetwork> networks = all.stream()
                .map(network -> network(network, ours.contains(network.id), wanted))
                .toList();
        List<PlannedUnit> units = sheet.entrySet().stream()
                .map(entry -> unit(
                        entry.getKey(),
                        entry.getValue(),
                        claims.getOrDefault(entry.getKey().id, List.of()),
                        byId,
                        bringUp))
                .toList();
        return new Plan(
                networks,
                units,
                siteResources.of(bringUp.site.id),
                db.createQuery("from MeasuredService where key.siteId = :site", MeasuredService.class)
                        .setParameter("site", bringUp.site.id)
                        .getResultStream()
                        .map(MeasuredService::measured)
                        .toList(),
                images.checked(bringUp.site.id),
                records(bringUp),
                firmware(bringUp),
                LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC),
                config.lab());
    }

    /** What machines run, where the site has a baseline to compare it with. */
    private List<Plan.SeenFirmware> firmware(BringUp bringUp) {
        boolean compared = siteResources.of(bringUp.site.id).stream()
                .anyMatch(resource -> resource.sort() == SiteResourceSort.FIRMWARE);
        return compared
                ? db.createNativeQuery(
                                "select unit_id, role, firmware from checked_firmware where bring_up_id = :id",
                                Object[].class)
                        .setParameter("id", bringUp.id)
                        .getResultStream()
                        .map(row ->
                                new Plan.SeenFirmware(((Number) row[0]).longValue(), (String) row[1], (String) row[2]))
                        .toList()
                : List.of();
    }

    /** What a name server answered for planned names when it was last asked. */
    private List<Plan.Record> records(BringUp bringUp) {
        return db.createQuery(
                        "from MeasuredService where key.siteId = :site and key.kind = NAME", MeasuredService.class)
                .setParameter("site", bringUp.site.id)
                .getResultStream()
                .flatMap(service -> service.detail.entrySet().stream())
                .filter(entry -> entry.getKey().startsWith(Measures.RECORD))
                .map(entry -> new Plan.Record(entry.getKey().substring(Measures.RECORD.length()), entry.getValue()))
                .distinct()
                .toList();
    }

    /** How many addresses units that are not placed want, by the purpose of the network. */
    private static Map<String, Long> wanted(Map<Unit, UnitFacts> sheet, Set<Long> placed) {
        Map<String, Long> wanted = new HashMap<>();
        sheet.forEach((unit, known) -> {
            if (!placed.contains(unit.id)) {
                for (Need need : known.kind().needs(known.members(), known.unitValues())) {
                    need.networks()
                            .forEach(purpose ->
                                    wanted.merge(purpose, (long) need.roles().size(), Long::sum));
                }
            }
        });
        return wanted;
    }

    private PlannedNetwork network(Network network, boolean ours, Map<String, Long> wanted) {
        List<AddressRange> ranges = networkDefinitions.ranges(network.id);
        long lately = ours
                ? db.createQuery(
                                "select count(*) from Claim c where c.networkId = :id and c.takenAt > :since",
                                Long.class)
                        .setParameter("id", network.id)
                        .setParameter("since", clock.instant().minus(LATELY))
                        .getSingleResult()
                : 0;
        boolean v4 = network.prefix.network().isV4();
        return new PlannedNetwork(
                network.id,
                network.name,
                network.purpose,
                network.prefix,
                network.gateway,
                network.vlan,
                network.mtu,
                network.domain,
                network.nameServers,
                network.timeServers,
                runs(ranges, AddressRange.POOL),
                runs(ranges, AddressRange.DHCP),
                ours,
                ours && v4 ? wanted.getOrDefault(network.purpose, 0L) : 0,
                ours ? freeAddresses.count(network) : 0,
                lately);
    }

    private static List<AddressRun> runs(List<AddressRange> ranges, String purpose) {
        return ranges.stream()
                .filter(range -> range.purpose.equals(purpose))
                .map(AddressRange::run)
                .toList();
    }

    private static PlannedUnit unit(
            Unit unit, UnitFacts known, List<PlannedSeat> claims, Map<Long, Network> networks, BringUp bringUp) {
        List<PlannedUnit.Seat> seats = claims.stream()
                .map(claim -> new PlannedUnit.Seat(
                        claim.role(),
                        networks.containsKey(claim.networkId()) ? networks.get(claim.networkId()).purpose : "",
                        claim.address(),
                        claim.hostName(),
                        claim.domain()))
                .toList();
        return new PlannedUnit(
                unit.id,
                unit.label(),
                known,
                seats,
                bringUp.network == null ? null : bringUp.network.id,
                unit.firstAddress != null);
    }
}
