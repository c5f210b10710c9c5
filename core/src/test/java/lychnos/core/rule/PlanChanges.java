package lychnos.core.rule;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.fact.DataSize;
import lychnos.core.image.ImageDescription;
import lychnos.core.image.ImageFormat;
import lychnos.core.image.Manifest.ManifestLine;
import lychnos.core.site.SiteResourceSort;

/** Changes to a plan in which nothing is wrong. */
final class PlanChanges {

    private PlanChanges() {}

    static PlannedNetwork with(
            PlannedNetwork n,
            Address gateway,
            Integer vlan,
            List<String> dns,
            List<String> ntp,
            List<AddressRun> pools,
            long toPlace,
            long free,
            long lately) {
        return new PlannedNetwork(
                n.id(),
                n.name(),
                n.purpose(),
                n.prefix(),
                gateway,
                vlan,
                n.mtu(),
                n.domain(),
                dns,
                ntp,
                pools,
                n.dhcp(),
                true,
                toPlace,
                free,
                lately);
    }

    static Consumer<PlanMaker> gateway(String text) {
        return plan -> plan.change(
                n -> with(n, Address.parse(text), n.vlan(), n.nameServers(), n.timeServers(), n.pools(), 10, 169, 0));
    }

    static Consumer<PlanMaker> pools(String... texts) {
        return plan -> plan.change(n -> with(
                n,
                n.gateway(),
                n.vlan(),
                n.nameServers(),
                n.timeServers(),
                Stream.of(texts).map(AddressRun::parse).toList(),
                10,
                169,
                0));
    }

    static Consumer<PlanMaker> places(long toPlace, long free, long lately) {
        return plan -> plan.change(n ->
                with(n, n.gateway(), n.vlan(), n.nameServers(), n.timeServers(), n.pools(), toPlace, free, lately));
    }

    static Consumer<PlanMaker> servers(List<String> dns, List<String> ntp) {
        return plan -> plan.change(n -> with(n, n.gateway(), n.vlan(), dns, ntp, n.pools(), 10, 169, 0));
    }

    static Consumer<PlanMaker> vlan(int vlan) {
        return plan ->
                plan.change(n -> with(n, n.gateway(), vlan, n.nameServers(), n.timeServers(), n.pools(), 10, 169, 0));
    }

    static Consumer<PlanMaker> unit(String kind, int members, String... facts) {
        return plan -> plan.unit(kind, "ard-x-1", members, facts);
    }

    static final String IMAGE = "ard-acc.img";
    static final String DIGEST = "1".repeat(64);
    static final ImageFormat OVA = ImageFormat.OVA;

    static Consumer<PlanMaker> appliance(String... facts) {
        return unit(
                "access-appliance",
                1,
                and(facts, "licence-key=K", "host=hv-01", "image-digest=" + DIGEST, "image-size=3 GiB"));
    }

    static Consumer<PlanMaker> checked(
            String name,
            ImageFormat format,
            long bytes,
            String digest,
            List<ManifestLine> manifest,
            ImageDescription description) {
        return appliance("image=" + name)
                .andThen(plan -> plan.image(name, format, bytes, digest, manifest, description));
    }

    static Consumer<PlanMaker> described(String version, int cores, String memory, String disk, String... networks) {
        return checked(
                IMAGE,
                OVA,
                1,
                DIGEST,
                List.of(),
                new ImageDescription(
                        "",
                        version,
                        cores,
                        DataSize.parse(memory),
                        DataSize.parse(disk),
                        List.of(networks),
                        List.of()));
    }

    static Consumer<PlanMaker> onAnotherHost(String kind, Map<String, String> values) {
        Map<String, String> all = new HashMap<>(Map.of("cores", "16", "memory", "64 GiB", "disk", "1 TiB"));
        all.putAll(values);
        return plan -> plan.resource(SiteResourceSort.HOST, "hv-02", all)
                .unit(
                        kind,
                        "ard-x-1",
                        1,
                        "licence-key=K",
                        "host=hv-02",
                        "image=" + IMAGE,
                        "image-digest=" + DIGEST,
                        "image-size=3 GiB");
    }

    static final List<String> DNS = List.of("10.40.8.3", "10.40.8.4");
    static final List<String> NTP = List.of("10.40.8.6", "10.40.8.7", "10.40.8.8");
    static final String[] ARRAY = {"licence-key=K", "data-mtu=9000", "ports-per-path=2"};

    static String[] and(String[] some, String... more) {
        return Stream.concat(Stream.of(some), Stream.of(more)).toArray(String[]::new);
    }
}
