package lychnos.server.handover;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.export.Endpoint;
import lychnos.core.export.Endpoint.EndpointMachine;
import lychnos.core.export.Endpoint.EndpointNetwork;
import lychnos.core.export.Endpoint.EndpointTraits;
import lychnos.core.export.Flow;
import lychnos.core.export.Flow.FlowEnd;
import lychnos.core.export.Flows;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Traits;
import lychnos.core.site.SitePolicies;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.allocate.Claim;
import lychnos.server.allocate.Claims;
import lychnos.server.kinds.Kinds;
import lychnos.server.prove.Proof;
import lychnos.server.site.Network;
import lychnos.server.site.SiteResourceRow;
import lychnos.server.site.SiteResources;
import lychnos.server.text.HandoverText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** Everything that has an address in a bring-up, for exports to other teams. */
@ApplicationScoped
public class Inventory {

    private final Session db;
    private final BringUps bringUps;
    private final Claims claims;
    private final Kinds kinds;
    private final SiteResources siteResources;

    Inventory(Session db, BringUps bringUps, Claims claims, Kinds kinds, SiteResources siteResources) {
        this.db = db;
        this.bringUps = bringUps;
        this.claims = claims;
        this.kinds = kinds;
        this.siteResources = siteResources;
    }

    /** By unit, in the order of units and of their addresses. */
    @Transactional
    public List<InventoryEntry> of(long bringUpId, Set<Long> only) {
        Map<Long, Unit> units =
                bringUps.units(bringUpId).stream().collect(Collectors.toMap(unit -> unit.id, Function.identity()));
        Map<Long, Proof> proofs = db.createQuery(
                        "select p from Proof p join Unit u on u.id = p.unitId join Claim c on c.id = p.claimId where "
                                + "u.bringUpId = :id and c.releasedAt is null",
                        Proof.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .collect(Collectors.toMap(proof -> proof.claimId, Function.identity()));
        Map<Long, Map<String, String>> hardware = texts(
                "select unit_id, role, value from accepted_trait t join unit u on u.id = t.unit_id where "
                        + "u.bring_up_id = :id and t.what = '"
                        + Traits.HARDWARE + "'",
                bringUpId);
        Map<Long, Map<String, String>> serials = texts(
                "select unit_id, member, value from fact f join unit u on u.id = f.unit_id where u.bring_up_id = :id "
                        + "and f.name = 'serial'",
                bringUpId);
        Map<Long, InventoryNetwork> networks = new HashMap<>();
        Map<Long, String> names = new HashMap<>();
        List<InventoryEntry> entries = new ArrayList<>();
        for (Claim claim : claims.live(bringUpId)) {
            if (only == null || only.contains(claim.unitId)) {
                Unit unit = units.get(claim.unitId);
                InventoryNetwork network = networks.computeIfAbsent(
                        claim.networkId, id -> InventoryNetwork.of(db.find(Network.class, id)));
                // what has no name of its own goes by the one of its first address
                String name = unit.name != null ? unit.name : names.computeIfAbsent(unit.id, none -> claim.hostName);
                entries.add(new InventoryEntry(
                        unit.id,
                        claim.id,
                        endpoint(
                                name,
                                unit,
                                kinds.of(unit),
                                claim,
                                network,
                                Optional.ofNullable(proofs.get(claim.id)),
                                hardware.getOrDefault(unit.id, Map.of()),
                                serials.getOrDefault(unit.id, Map.of()))));
            }
        }
        return entries;
    }

    /** An endpoint with its ids in the database. */
    public record InventoryEntry(long unitId, long claimId, Endpoint endpoint) {}

    /**
     * What each endpoint needs to know of its network.
     *
     * @param management whether people sign in to its machines at its addresses
     */
    private record InventoryNetwork(EndpointNetwork network, boolean management) {

        static InventoryNetwork of(Network network) {
            return new InventoryNetwork(
                    new EndpointNetwork(
                            network.name,
                            network.prefix,
                            network.vlan,
                            network.gateway,
                            network.nameServers,
                            network.timeServers),
                    network.purpose.equals("management"));
        }
    }

    /** By unit, texts with their names. */
    private Map<Long, Map<String, String>> texts(String sql, long bringUpId) {
        Map<Long, Map<String, String>> texts = new HashMap<>();
        db.createNativeQuery(sql, Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .forEach(row -> texts.computeIfAbsent((Long) row[0], unit -> new HashMap<>())
                        .put((String) row[1], (String) row[2]));
        return texts;
    }

    /** The member that has an address, or nothing where it belongs to the unit. */
    private static String member(Kind kind, String role) {
        for (String label : kind.members().labels()) {
            if (role.startsWith(label) && (role.length() == label.length() || role.charAt(label.length()) == ' ')) {
                return label;
            }
        }
        return "";
    }

    private static Endpoint endpoint(
            String name,
            Unit unit,
            Kind kind,
            Claim claim,
            InventoryNetwork network,
            Optional<Proof> proof,
            Map<String, String> hardware,
            Map<String, String> serials) {
        String label = unit.mac != null && claim.place == 0 ? unit.mac.toString() : "";
        String serial = unit.serial != null
                ? unit.serial
                : serials.isEmpty() ? "" : serials.getOrDefault(member(kind, claim.role), serials.getOrDefault("", ""));
        return new Endpoint(
                new EndpointMachine(name, unit.kind, unit.place(), serial),
                claim.role,
                claim.fqdn(),
                claim.address,
                network.network,
                new EndpointTraits(
                        hardware.getOrDefault(claim.role, label),
                        proof.map(each -> each.firmware).orElse(""),
                        proof.map(each -> each.fingerprint).orElse(""),
                        proof.map(each -> each.chain).orElse(List.of()),
                        proof.map(each -> each.hostKey).orElse("")),
                network.management ? kind.port() : 0,
                proof.filter(each -> each.proven).map(each -> each.provenAt).orElse(null),
                proof.filter(each -> each.proven).map(each -> each.place).orElse(""));
    }

    /** What firewalls are to let through for these. */
    @Transactional
    public List<Flow> flows(long bringUpId, List<InventoryEntry> entries) {
        List<SiteResourceRow> rows = siteResources.rows(bringUps.get(bringUpId).site.id);
        List<FlowEnd> engineers = rows.stream()
                .filter(row -> row.sort.equals(SiteResourceSort.SOURCE.word()))
                .map(row -> new FlowEnd(row.name, row.value.getOrDefault("prefix", "")))
                .toList();
        Map<String, List<FlowEnd>> services = Map.of(
                HandoverText.MAIL_RELAY.text(),
                peers(rows, SiteResourceSort.RELAY),
                "proxy",
                peers(rows, SiteResourceSort.PROXY),
                "directory",
                peers(rows, SiteResourceSort.DIRECTORY),
                "syslog",
                peers(rows, SiteResourceSort.SYSLOG));
        Map<Long, List<Endpoint>> byUnit = entries.stream()
                .collect(Collectors.groupingBy(
                        InventoryEntry::unitId,
                        java.util.LinkedHashMap::new,
                        Collectors.mapping(InventoryEntry::endpoint, Collectors.toList())));
        Flows.Site site = new Flows.Site(
                engineers, services, SitePolicies.isolated(siteResources.policies(bringUps.get(bringUpId).site.id)));
        List<Flow> flows = new ArrayList<>();
        byUnit.forEach((id, unit) -> flows.addAll(Flows.of(kinds.of(bringUps.unit(id)), unit, site)));
        return flows;
    }

    private static List<FlowEnd> peers(List<SiteResourceRow> rows, SiteResourceSort sort) {
        List<FlowEnd> peers = rows.stream()
                .filter(row -> row.sort.equals(sort.word()))
                .map(row -> new FlowEnd(row.name, row.value.getOrDefault("address", "")))
                .toList();
        return peers.isEmpty()
                ? List.of(
                        new FlowEnd(HandoverText.NOT_STATED.text(sort.title().toLowerCase(java.util.Locale.ROOT)), ""))
                : peers;
    }
}
