package lychnos.server.handover;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import lychnos.core.address.Address;
import lychnos.core.export.Cabling;
import lychnos.core.export.CertificateList;
import lychnos.core.export.Endpoint;
import lychnos.core.export.EndpointsCsv;
import lychnos.core.export.Flow;
import lychnos.core.export.Flows;
import lychnos.core.export.HostsFile;
import lychnos.core.export.InventoryYaml;
import lychnos.core.export.KnownHosts;
import lychnos.core.export.Reservations;
import lychnos.core.export.SshConfig;
import lychnos.core.export.TargetsFile;
import lychnos.core.export.ZoneFile;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.api.problem.Refusal;
import lychnos.server.site.Measures;
import lychnos.server.site.SiteResourceRow;
import lychnos.server.site.SiteResources;
import lychnos.server.text.HandoverText;
import lychnos.server.units.BringUps;
import org.hibernate.Session;

/** The files that other teams are given. Each is worked out from one inventory and written as it goes. */
@ApplicationScoped
public class Exports {

    private static final String CSV = "text/csv; charset=UTF-8";
    private static final String TEXT = "text/plain; charset=UTF-8";
    private static final String JSON = "application/json";
    private static final String CABLING = "cabling.csv";

    private final Session db;
    private final BringUps bringUps;
    private final Inventory inventory;
    private final SiteResources siteResources;
    private final Cables cables;

    Exports(Session db, BringUps bringUps, Inventory inventory, SiteResources siteResources, Cables cables) {
        this.cables = cables;
        this.db = db;
        this.bringUps = bringUps;
        this.inventory = inventory;
        this.siteResources = siteResources;
    }

    /** Writes a file; what it needs was read before. */
    @FunctionalInterface
    interface Writer {
        void write(Appendable out) throws IOException;
    }

    /** A file that can be had. */
    record File(String name, String type, Writer writer) {}

    /**
     * Every file, by its name.
     *
     * @param only the units that are told of; null for all that have an address
     */
    @Transactional
    Map<String, File> of(long bringUpId, Set<Long> only) {
        Map<String, File> files = of(inventory.of(bringUpId, only), bringUpId);
        List<Cabling.Cable> cabled = cables.of(bringUpId, only);
        add(files, CABLING, CSV, out -> Cabling.write(out, cabled));
        zones(bringUpId, only).forEach((name, writer) -> add(files, zoneFile(name), "text/dns; charset=UTF-8", writer));
        return files;
    }

    /** The names of all files that can be had of a bring-up. */
    List<String> fileNames(long bringUpId) {
        List<String> names = new ArrayList<>(of(List.of(), bringUpId).keySet());
        names.add(CABLING);
        List<Zone> zones = zones(bringUpId);
        if (zones.isEmpty()) {
            return names;
        }
        db.createNativeQuery(
                        "select distinct substr(n.owner, strpos(n.owner, '.')) from name_record n join claim c on "
                                + "c.id = n.claim_id join unit u on u.id = c.unit_id"
                                + " where u.bring_up_id = :id and c.released_at is null and n.state not in "
                                + "('WITHDRAWING', 'WITHDRAWN')",
                        String.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .flatMap(under -> zoneOf(under, zones).stream())
                .map(Zone::name)
                .distinct()
                .sorted()
                .forEach(zone -> names.add(zoneFile(zone)));
        return names;
    }

    /** The zones that the site states, the longest names first. */
    private List<Zone> zones(long bringUpId) {
        List<Zone> zones = new ArrayList<>();
        for (SiteResourceRow row : siteResources.rows(bringUps.get(bringUpId).site.id)) {
            if (row.sort.equals(SiteResourceSort.DOMAIN.word())) {
                Measures.zones(row).forEach(zone -> zones.add(new Zone(zone, row.name, row.value.get("primary"))));
            }
        }
        zones.sort(Comparator.comparingInt((Zone zone) -> -zone.name.length()).thenComparing(Zone::name));
        return zones;
    }

    /** In which of them a name lies. */
    private static Optional<Zone> zoneOf(String name, List<Zone> zones) {
        return zones.stream().filter(zone -> name.endsWith("." + zone.name)).findFirst();
    }

    private static String zoneFile(String zone) {
        return "zones/" + zone + ".zone";
    }

    /** Those that are worked out from the endpoints. */
    private Map<String, File> of(List<Inventory.InventoryEntry> entries, long bringUpId) {
        List<Endpoint> endpoints =
                entries.stream().map(Inventory.InventoryEntry::endpoint).toList();
        List<Flow> flows = inventory.flows(bringUpId, entries);
        Map<String, File> files = new LinkedHashMap<>();
        add(files, "endpoints.csv", CSV, out -> EndpointsCsv.write(out, endpoints.iterator()));
        add(files, "flows.csv", CSV, out -> Flows.write(out, flows));
        add(files, "hosts", TEXT, out -> HostsFile.write(out, endpoints.iterator()));
        add(files, "known_hosts", TEXT, out -> KnownHosts.write(out, endpoints.iterator()));
        add(files, "ssh_config", TEXT, out -> SshConfig.write(out, endpoints.iterator()));
        add(
                files,
                "certificates.pem",
                "application/x-pem-file",
                out -> CertificateList.write(out, endpoints.iterator()));
        add(files, "reservations.json", JSON, out -> Reservations.write(out, endpoints.iterator()));
        add(files, "targets.json", JSON, out -> TargetsFile.write(out, endpoints.iterator()));
        add(files, "inventory.yaml", "application/yaml", out -> InventoryYaml.write(out, endpoints.iterator()));
        return files;
    }

    private static void add(Map<String, File> files, String name, String type, Writer writer) {
        files.put(name, new File(name, type, writer));
    }

    /** How many name records there are. */
    int names(long bringUpId) {
        return ((Number) db.createNativeQuery(
                                "select count(*) from name_record n join claim c on c.id = n.claim_id join unit u on "
                                        + "u.id = c.unit_id where u.bring_up_id = :id and c.released_at is null and "
                                        + "n.state = 'MADE'",
                                Long.class)
                        .setParameter("id", bringUpId)
                        .getSingleResult())
                .intValue();
    }

    /** @throws Refusal if there is no such file */
    File file(long bringUpId, String name) {
        File file = of(bringUpId, null).get(name);
        if (file == null) {
            throw Refusal.notFound(HandoverText.NO_EXPORT.said(name));
        }
        return file;
    }

    /** By zone that the site states, what is to stand in it. */
    private Map<String, Writer> zones(long bringUpId, Set<Long> only) {
        List<Object[]> rows = db.createNativeQuery(
                        "select n.owner, n.type, n.data, c.unit_id from name_record n join claim c on c.id = "
                                + "n.claim_id join unit u on u.id = c.unit_id"
                                + " where u.bring_up_id = :id and c.released_at is null and n.state not in "
                                + "('WITHDRAWING', 'WITHDRAWN') order by n.owner, n.type, n.data",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultList();
        List<Zone> zones = zones(bringUpId);
        Map<String, List<ZoneFile.Entry>> entries = new TreeMap<>();
        for (Object[] row : rows) {
            String owner = (String) row[0];
            if (only == null || only.contains(((Number) row[3]).longValue())) {
                zoneOf(owner, zones).ifPresent(zone -> entries.computeIfAbsent(zone.name, none -> new ArrayList<>())
                        .add(new ZoneFile.Entry(owner, (String) row[1], (String) row[2])));
            }
        }
        List<String> asked = db.createNativeQuery(
                        "select distinct unnest(n.name_servers) from network n join bring_up_network b on "
                                + "b.network_id = n.id where b.bring_up_id = :id",
                        String.class)
                .setParameter("id", bringUpId)
                .getResultList();
        long serial = ((Number) db.createNativeQuery(
                                "select cast(coalesce(max(extract(epoch from n.at)), 1) as bigint) from name_record "
                                        + "n join claim c on c.id = n.claim_id join unit u on u.id = c.unit_id where "
                                        + "u.bring_up_id = :id",
                                Long.class)
                        .setParameter("id", bringUpId)
                        .getSingleResult())
                .longValue();
        Map<String, Writer> writers = new LinkedHashMap<>();
        entries.forEach((name, of) -> {
            Zone zone = zones.stream()
                    .filter(each -> each.name.equals(name))
                    .findFirst()
                    .orElseThrow();
            List<String> servers = new ArrayList<>(List.of(zone.primary));
            asked.stream()
                    .filter(server -> !server.equals(zone.primary)
                            && Address.tryParse(server).isPresent())
                    .sorted()
                    .forEach(servers::add);
            writers.put(name, out -> ZoneFile.write(out, name, zone.domain, servers, serial, of));
        });
        return writers;
    }

    private record Zone(String name, String domain, String primary) {}
}
