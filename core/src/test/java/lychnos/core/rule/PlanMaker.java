package lychnos.core.rule;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Fact;
import lychnos.core.image.CheckedImage;
import lychnos.core.image.ImageDescription;
import lychnos.core.image.ImageFormat;
import lychnos.core.image.Manifest;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import lychnos.core.service.Measured;
import lychnos.core.service.Reply;
import lychnos.core.service.ServiceKind;
import lychnos.core.sheet.UnitFacts;
import lychnos.core.site.SiteResource;
import lychnos.core.site.SiteResourceSort;

/** Puts plans together for the tests of the rules. It begins with one in which nothing is wrong. */
final class PlanMaker {

    static final LocalDate TODAY = LocalDate.of(2026, 11, 23);
    private static final Instant AT = Instant.parse("2026-11-23T09:20:00Z");

    final List<PlannedNetwork> networks = new ArrayList<>();
    final List<SiteResource> things = new ArrayList<>();
    final List<CheckedImage> images = new ArrayList<>();
    final List<Measured> services = new ArrayList<>();
    final List<Plan.Record> records = new ArrayList<>();
    private final List<Plan.SeenFirmware> firmware = new ArrayList<>();
    private final List<PlannedUnit> units = new ArrayList<>();
    boolean lab;

    PlanMaker() {
        networks.add(network(1, "Management", "management", "10.40.8.0/24", "10.40.8.1", 408, null, true));
        networks.add(network(2, "Storage data", "storage-data", "10.40.16.0/24", null, 416, 9000, true));
        resource(SiteResourceSort.SOURCE, "operations", Map.of("prefix", "10.40.250.0/24"));
        resource(SiteResourceSort.FABRIC, "compute", Map.of());
        resource(SiteResourceSort.HOST, "hv-01", Map.of("cores", "16", "memory", "64 GiB", "disk", "1 TiB"));
    }

    static PlannedNetwork network(
            long id,
            String name,
            String purpose,
            String prefix,
            String gateway,
            Integer vlan,
            Integer mtu,
            boolean ours) {
        Prefix network = Prefix.parse(prefix);
        AddressRun pool =
                new AddressRun(network.network().plus(32), network.network().plus(200));
        return new PlannedNetwork(
                id,
                name,
                purpose,
                network,
                gateway == null ? null : Address.parse(gateway),
                vlan,
                mtu,
                "ardal.example",
                List.of("10.40.8.3", "10.40.8.4"),
                List.of("10.40.8.6", "10.40.8.7", "10.40.8.8"),
                List.of(pool),
                List.of(new AddressRun(
                        network.network().plus(10), network.network().plus(31))),
                ours,
                10,
                169,
                0);
    }

    /** The management network leans on these name servers. */
    PlanMaker nameServers(String... servers) {
        PlannedNetwork n = networks.get(0);
        networks.set(
                0,
                new PlannedNetwork(
                        n.id(),
                        n.name(),
                        n.purpose(),
                        n.prefix(),
                        n.gateway(),
                        n.vlan(),
                        n.mtu(),
                        n.domain(),
                        List.of(servers),
                        n.timeServers(),
                        n.pools(),
                        n.dhcp(),
                        n.ours(),
                        n.toPlace(),
                        n.free(),
                        n.takenLately()));
        return this;
    }

    PlanMaker resource(SiteResourceSort sort, String name, Map<String, String> values) {
        things.add(new SiteResource(sort, name, values));
        return this;
    }

    PlanMaker service(
            ServiceKind kind,
            String address,
            Measured.State state,
            String sentence,
            Map<String, String> detail,
            Reply... replies) {
        services.add(new Measured(kind, address, state, sentence, detail, List.of(replies), AT));
        return this;
    }

    /**
     * A unit with its facts as {@code name=value} or {@code member/name=value}; policies are answered and members
     * numbered well.
     */
    PlanMaker unit(String kindId, String name, int members, String... facts) {
        Kind kind = KindReader.shipped(kindId);
        Map<String, Map<String, Fact>> values = new HashMap<>();
        kind.facts().stream()
                .filter(fact -> fact.is(lychnos.core.fact.FactSpec.Trait.POLICY))
                .forEach(fact -> put(values, "", fact.name(), "no"));
        for (String text : facts) {
            String[] parts = text.split("=", 2);
            int slash = parts[0].indexOf('/');
            put(values, slash < 0 ? "" : parts[0].substring(0, slash), parts[0].substring(slash + 1), parts[1]);
        }
        units.add(new PlannedUnit(
                units.size() + 1, name, UnitFacts.resolve(kind, members, values, Map.of()), List.of(), 1L, false));
        return this;
    }

    /** What the unit that was added last runs, as a check has read it. */
    PlanMaker runs(String role, String version) {
        firmware.add(new Plan.SeenFirmware(units.size(), role, version));
        return this;
    }

    PlanMaker seat(String hostName, String address) {
        PlannedUnit last = units.remove(units.size() - 1);
        List<PlannedUnit.Seat> seats = new ArrayList<>(last.seats());
        seats.add(new PlannedUnit.Seat("management", "management", Address.parse(address), hostName, "ardal.example"));
        units.add(new PlannedUnit(last.id(), last.name(), last.known(), seats, last.networkId(), last.firstKnown()));
        return this;
    }

    /** The unit that was added last takes its addresses from this network. */
    PlanMaker in(long networkId) {
        PlannedUnit last = units.remove(units.size() - 1);
        units.add(new PlannedUnit(last.id(), last.name(), last.known(), last.seats(), networkId, last.firstKnown()));
        return this;
    }

    /** An image that was read to its end, with what came with it. */
    PlanMaker image(
            String name,
            ImageFormat format,
            long bytes,
            String digest,
            List<Manifest.ManifestLine> manifest,
            ImageDescription description) {
        images.add(new CheckedImage(name, bytes, digest, format, List.of(), manifest, description));
        return this;
    }

    private static void put(Map<String, Map<String, Fact>> values, String member, String name, String value) {
        Map<String, Fact> facts = values.computeIfAbsent(member, key -> new LinkedHashMap<>());
        if (value.isEmpty()) {
            facts.remove(name);
        } else {
            facts.put(name, new Fact(value, Fact.Source.TYPED));
        }
    }

    PlanMaker change(java.util.function.UnaryOperator<PlannedNetwork> change) {
        networks.set(0, change.apply(networks.get(0)));
        return this;
    }

    Plan plan() {
        return new Plan(networks, units, things, services, images, records, firmware, TODAY, lab);
    }

    List<Finding> findings() {
        return Rule.lookAt(plan());
    }

    List<String> codes() {
        return findings().stream().map(Finding::code).toList();
    }
}
