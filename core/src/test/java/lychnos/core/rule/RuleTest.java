package lychnos.core.rule;

import static lychnos.core.rule.PlanChanges.ARRAY;
import static lychnos.core.rule.PlanChanges.DIGEST;
import static lychnos.core.rule.PlanChanges.DNS;
import static lychnos.core.rule.PlanChanges.IMAGE;
import static lychnos.core.rule.PlanChanges.NTP;
import static lychnos.core.rule.PlanChanges.OVA;
import static lychnos.core.rule.PlanChanges.and;
import static lychnos.core.rule.PlanChanges.appliance;
import static lychnos.core.rule.PlanChanges.checked;
import static lychnos.core.rule.PlanChanges.described;
import static lychnos.core.rule.PlanChanges.gateway;
import static lychnos.core.rule.PlanChanges.onAnotherHost;
import static lychnos.core.rule.PlanChanges.places;
import static lychnos.core.rule.PlanChanges.pools;
import static lychnos.core.rule.PlanChanges.servers;
import static lychnos.core.rule.PlanChanges.unit;
import static lychnos.core.rule.PlanChanges.vlan;
import static lychnos.core.rule.PlanChanges.with;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import lychnos.core.image.ImageFormat;
import lychnos.core.image.Manifest.ManifestLine;
import lychnos.core.service.Measured.State;
import lychnos.core.service.Reply;
import lychnos.core.service.ServiceKind;
import lychnos.core.site.SiteResourceSort;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;

class RuleTest {

    /** One change to a plan in which nothing is wrong, and the one finding that it causes. */
    private record Case(String code, Consumer<PlanMaker> change) {}

    private static final List<Case> CASES = List.of(
            new Case("gateway-outside", gateway("10.40.9.1")),
            new Case("gateway-outside", gateway("10.40.8.255")),
            new Case("gateway-in-pool", gateway("10.40.8.40")),
            new Case(
                    "gateway-silent",
                    plan -> plan.service(ServiceKind.GATEWAY, "10.40.8.1", State.SILENT, "silent", Map.of())),
            new Case("pool-outside", pools("10.40.8.200-10.40.9.10")),
            new Case("no-pool", pools()),
            new Case("dhcp-in-pool", pools("10.40.8.20-200")),
            new Case("pool-too-small", places(170, 169, 0)),
            new Case("pool-runs-dry", places(10, 169, 84)),
            new Case("server-in-pool", servers(List.of("10.40.8.40", "10.40.8.4"), NTP)),
            new Case("few-name-servers", servers(DNS.subList(0, 1), NTP)),
            new Case("few-name-servers", servers(List.of(), NTP)),
            new Case("few-time-servers", servers(DNS, NTP.subList(0, 2))),
            new Case("time-server-lies", plan -> {
                plan.change(n -> with(
                        n,
                        n.gateway(),
                        n.vlan(),
                        DNS,
                        List.of("10.40.8.6", "10.40.8.7", "10.40.8.8", "10.40.8.9"),
                        n.pools(),
                        10,
                        169,
                        0));
                plan.service(
                        ServiceKind.TIME, "10.40.8.9", State.LIES, "is off by +120.0 s from 3 that agree", Map.of());
            }),
            new Case("time-server-silent", plan -> {
                plan.change(n -> with(
                        n,
                        n.gateway(),
                        n.vlan(),
                        DNS,
                        List.of("10.40.8.6", "10.40.8.7", "10.40.8.8", "10.40.8.9"),
                        n.pools(),
                        10,
                        169,
                        0));
                plan.service(ServiceKind.TIME, "10.40.8.9", State.SILENT, "silent", Map.of());
            }),
            new Case(
                    "name-server-silent",
                    plan -> plan.service(ServiceKind.NAME, "10.40.8.4", State.SILENT, "silent", Map.of())),
            new Case(
                    "name-server-odd",
                    plan -> plan.service(ServiceKind.NAME, "10.40.8.4", State.ODD, "lags", Map.of())),
            new Case(
                    "updates-refused",
                    plan -> plan.service(
                            ServiceKind.NAME,
                            "10.40.8.3",
                            State.FINE,
                            "",
                            Map.of(),
                            Reply.refused(Reply.Request.UPDATE, "ardal.example", "REFUSED"))),
            new Case("no-first-contact", plan -> {
                plan.change(n -> new PlannedNetwork(
                        n.id(),
                        n.name(),
                        n.purpose(),
                        n.prefix(),
                        n.gateway(),
                        n.vlan(),
                        n.mtu(),
                        n.domain(),
                        n.nameServers(),
                        n.timeServers(),
                        n.pools(),
                        List.of(),
                        true,
                        10,
                        169,
                        0));
                plan.unit("server-controller", "ard-x-1", 1, "serial=BF-1", "mac=02:4c:59:a1:00:01", "location=R1 u5");
            }),
            new Case("server-twice", servers(List.of("10.40.8.3", "10.40.8.4", "10.40.8.4"), NTP)),
            new Case(
                    "relay-odd",
                    plan -> plan.service(ServiceKind.RELAY, "10.40.8.20", State.SILENT, "silent", Map.of())),
            new Case(
                    "directory-odd",
                    plan -> plan.service(ServiceKind.DIRECTORY, "10.40.8.21", State.ODD, "refuses", Map.of())),
            new Case(
                    "networks-overlap",
                    plan -> plan.networks.add(
                            PlanMaker.network(3, "Old", "in-band", "10.40.0.0/20", null, 500, null, false))),
            new Case("vlan-twice", vlan(416)),
            new Case("vlan-reserved", vlan(1)),
            new Case(
                    "foreign-prefix",
                    plan -> plan.networks.add(
                            PlanMaker.network(3, "Copied", "in-band", "192.0.2.0/24", null, 500, null, true))),
            new Case("no-sources", plan -> {
                plan.things.removeIf(thing -> thing.sort() == SiteResourceSort.SOURCE);
                plan.unit("server-controller", "ard-srv-001", 1);
            }),
            new Case("network-missing", plan -> {
                plan.networks.remove(1);
                plan.unit("block-array", "ard-blk-1", 2, ARRAY);
            }),
            new Case("licence-key-missing", unit("block-array", 2, "data-mtu=9000")),
            new Case("ends-soon", unit("access-appliance", 1, "licence-key=K", "licence-end=2026-12-01")),
            new Case("mtu-mismatch", unit("block-array", 2, "licence-key=K", "data-mtu=1500")),
            new Case("manager-time", plan -> managed(plan, "10.40.9.6", "10.40.9.7", "10.40.9.8")),
            new Case("proxy-missing", unit("block-array", 2, and(ARRAY, "proxy-needed=yes"))),
            new Case("proxy-not-possible", plan -> {
                plan.resource(SiteResourceSort.PROXY, "proxy-1", Map.of("address", "10.40.8.21", "port", "3128"));
                plan.unit("access-appliance", "ard-acc-1", 1, "licence-key=K");
            }),
            new Case("sender-domain", plan -> {
                plan.unit("block-array", "ard-blk-1", 2, and(ARRAY, "mail-sender=arrays@hall.lan"));
                plan.service(
                        ServiceKind.RELAY,
                        "10.40.8.20",
                        State.FINE,
                        "answers, TLS",
                        Map.of(),
                        Reply.refused(Reply.Request.SENDER, "arrays@hall.lan", "550 unknown domain"),
                        Reply.refused(Reply.Request.MAIL_DOMAIN, "hall.lan", ""));
            }),
            new Case(
                    "members-differ",
                    unit(
                            "fabric-controller",
                            3,
                            "controller 1/control-vlan=3900",
                            "controller 2/control-vlan=3901",
                            "controller 3/control-vlan=3900")),
            new Case("units-differ", plan -> {
                for (String each : List.of("1 SE", "2 NO", "3 SE")) {
                    String[] word = each.split(" ");
                    plan.unit("wireless-controller", "ard-air-" + word[0], 1, "country=" + word[1]);
                }
            }),
            new Case(
                    "tunnel-too-small",
                    unit("fabric-controller", 1, "controller 1/tunnel-pool=10.44.0.0/29", "planned-switches=6")),
            new Case(
                    "tunnel-overlaps",
                    unit("fabric-controller", 1, "controller 1/tunnel-pool=10.40.16.0/21", "planned-switches=6")),
            new Case("control-vlan-in-use", unit("fabric-controller", 1, "controller 1/control-vlan=416")),
            new Case("no-subnet-manager", unit("infiniband-gateway", 1, "fabric=compute", "subnet-manager=0")),
            new Case("two-subnet-managers", plan -> {
                plan.unit("infiniband-gateway", "ard-iog-1", 1, "fabric=compute", "subnet-manager=15");
                plan.unit("infiniband-gateway", "ard-iog-2", 1, "fabric=compute", "subnet-manager=15");
            }),
            new Case("subnet-manager-priority", unit("infiniband-gateway", 1, "fabric=compute", "subnet-manager=16")),
            new Case("dhcp-left-on", unit("infiniband-gateway", 1, "address-by=dhcp")),
            new Case("site-resource-unknown", unit("infiniband-gateway", 1, "fabric=storage", "subnet-manager=15")),
            new Case("policy-missing", unit("infiniband-gateway", 1, "diagnostics=")),
            new Case("shared-factory-address", plan -> {
                plan.unit("access-appliance", "ard-acc-1", 1, "licence-key=K");
                plan.unit("access-appliance", "ard-acc-2", 1, "licence-key=K");
            }),
            new Case("serial-twice", unit("interconnect-pair", 2, "left/serial=FX-1", "right/serial=FX-1")),
            new Case(
                    "mac-twice",
                    unit("interconnect-pair", 2, "left/mac=02:4c:59:a1:00:01", "right/mac=02:4c:59:a1:00:01")),
            new Case("isolated-needs-internet", plan -> {
                isolated(plan);
                appliance("licence-key=K").accept(plan);
            }),
            new Case("isolated-sends-out", plan -> {
                isolated(plan);
                unit("block-array", 2, and(ARRAY, "telemetry=yes", "remote-support=no"))
                        .accept(plan);
            }),
            new Case("firmware-baseline", plan -> baseline(plan, "at least", "5.2", "5.1.9")),
            new Case("firmware-baseline", plan -> baseline(plan, "exactly", "5.1", "5.1.9")),
            new Case("firmware-baseline", plan -> baseline(plan, "at least", "5.1", "unknown")),
            new Case(
                    "switch-port-twice",
                    unit("interconnect-pair", 2, "left/switch-port=sw-1 p4", "right/switch-port=sw-1 p4")),
            new Case("line-twice", unit("interconnect-pair", 2, "left/console=2001", "right/console=2001")),
            new Case("position-twice", unit("interconnect-pair", 2, "left/location=R1 u1", "right/location=R1 u1")),
            new Case("host-memory", plan -> Stream.of("1", "2", "3", "4", "5").forEach(n -> {
                plan.things.removeIf(thing -> thing.sort() == SiteResourceSort.HOST);
                plan.resource(
                        SiteResourceSort.HOST, "hv-01", Map.of("cores", "64", "memory", "64 GiB", "disk", "8 TiB"));
                plan.unit("access-appliance", "ard-acc-" + n, 1, "licence-key=K", "host=hv-01");
            })),
            new Case("image-too-large", unit("access-appliance", 1, "licence-key=K", "host=hv-01", "image-size=2 TiB")),
            new Case("image-not-checked", appliance("image=ard-acc.img")),
            new Case("image-digest", checked(IMAGE, OVA, 1, "2".repeat(64), List.of(), null)),
            new Case(
                    "image-contradicts",
                    checked(IMAGE, OVA, 1, DIGEST, List.of(new ManifestLine(IMAGE, "3".repeat(64))), null)),
            new Case("image-size", checked(IMAGE, OVA, (3L << 30) + 1, DIGEST, List.of(), null)),
            new Case("image-format", checked(IMAGE, ImageFormat.ISO, 1, DIGEST, List.of(), null)),
            new Case("image-version", described("4.9", 4, "16 GiB", "200 GiB", "management")),
            new Case("image-wants-more", described("5.2", 8, "16 GiB", "200 GiB", "management")),
            new Case("image-wants-more", described("5.2", 4, "17 GiB", "200 GiB", "management")),
            new Case("image-wants-more", described("5.2", 4, "16 GiB", "201 GiB", "management")),
            new Case("image-networks", described("5.2", 4, "16 GiB", "200 GiB", "management", "in-band")),
            new Case(
                    "image-host-version",
                    onAnotherHost("access-appliance", Map.of("version", "7.9"))
                            .andThen(plan -> plan.image(IMAGE, OVA, 1, DIGEST, List.of(), null))),
            new Case(
                    "image-disk-format",
                    onAnotherHost("balancer-console", Map.of("disk-format", "qcow2"))
                            .andThen(plan -> plan.image(IMAGE, ImageFormat.VMDK, 1, DIGEST, List.of(), null))),
            new Case("too-little-memory", unit("hypervisor-host", 1, "memory=16 GiB")),
            new Case("too-little-disk", unit("hypervisor-host", 1, "disk=64 GiB")),
            new Case(
                    "name-long-elsewhere",
                    unit("fabric-controller", 1, "controller 1/fabric-name=ardal-hall-two-fabric")),
            new Case("name-too-long", plan -> plan.unit("hypervisor-host", "x", 1)
                    .seat("ard-hypervisor-01", "10.40.8.40")),
            new Case("name-twice", plan -> plan.unit("server-controller", "x", 1)
                    .seat("ard-a", "10.40.8.40")
                    .seat("ard-a", "10.40.8.41")),
            new Case("record-disagrees", plan -> {
                plan.unit("server-controller", "x", 1).seat("ard-a", "10.40.8.40");
                plan.records.add(new Plan.Record("ard-a.ardal.example", "10.40.8.99"));
            }));

    private static void isolated(PlanMaker plan) {
        plan.resource(SiteResourceSort.POLICY, "isolated", Map.of("answer", "yes"));
    }

    private static PlanMaker baseline(PlanMaker plan, String rule, String version, String runs) {
        plan.resource(SiteResourceSort.FIRMWARE, "interconnect-pair", Map.of("rule", rule, "version", version));
        unit("interconnect-pair", 2).accept(plan);
        return plan.runs("left", runs);
    }

    @Test
    void firmwareOfTheBaselineIsNotAFinding() {
        assertEquals(
                List.of(), baseline(new PlanMaker(), "at least", "5.1", "5.10").codes());
        assertEquals(
                List.of(),
                baseline(new PlanMaker(), "exactly", "5.1", "release 5.1.0").codes());
    }

    @TestFactory
    Stream<DynamicTest> findsEachThingAndThatAlone() {
        return CASES.stream()
                .map(each -> DynamicTest.dynamicTest(each.code, () -> {
                    PlanMaker plan = new PlanMaker();
                    each.change.accept(plan);
                    Set<String> codes = new HashSet<>(plan.codes());
                    assertTrue(codes.remove(each.code), () -> each.code + " is not among " + plan.codes());
                    // two masters and five guests share what a lone one has for itself
                    codes.removeAll(Set.of("shared-factory-address", "policy-missing"));
                    assertEquals(Set.of(), codes);
                }));
    }

    @Test
    @Tag("wording")
    void eachFindingCanStandAlone() {
        CASES.forEach(each -> {
            PlanMaker plan = new PlanMaker();
            each.change.accept(plan);
            plan.findings().forEach(RuleTest::canStandAlone);
        });
    }

    @Test
    void aTemporaryKeyBridgesTheTimeUntilThePermanentOne() {
        PlanMaker bridged = new PlanMaker();
        unit("access-appliance", 1, "host=hv-01", "temporary-key=T2-ARD-1").accept(bridged);
        assertEquals(
                List.of(),
                bridged.codes().stream().filter("licence-key-missing"::equals).toList());
        PlanMaker neither = new PlanMaker();
        unit("access-appliance", 1, "host=hv-01").accept(neither);
        assertTrue(neither.codes().contains("licence-key-missing"));
    }

    /** As on the Board, where a finding is shown without its network or unit. */
    private static void canStandAlone(Finding finding) {
        assertFalse(finding.what().matches("(It|Its) .*"), finding.what());
        assertTrue(finding.what().length() <= 200 && finding.why().length() <= 200, finding.what());
        assertTrue(finding.why().matches("(?s).*[.?]"), finding.why());
    }

    @Test
    void findsNothingWhereNothingIsWrong() {
        PlanMaker plan = new PlanMaker();
        plan.unit("server-controller", "ard-srv-001", 1, "serial=BF-1", "mac=02:4c:59:a1:00:01")
                .seat("ard-srv-001-oob", "10.40.8.101");
        plan.unit("block-array", "ard-blk-1", 2, ARRAY);
        plan.unit("infiniband-gateway", "ard-iog-1", 1, "fabric=compute", "subnet-manager=15");
        plan.unit(
                "fabric-controller",
                "ard-fdc",
                3,
                "controller 1/tunnel-pool=10.44.0.0/21",
                "controller 2/tunnel-pool=10.44.0.0/21",
                "planned-switches=6");
        plan.unit("access-appliance", "ard-acc-1", 1, "licence-key=K", "host=hv-01", "image-size=4 GiB");
        plan.records.add(new Plan.Record("ard-srv-001-oob.ardal.example", "10.40.8.101"));
        assertEquals(List.of(), plan.codes());
    }

    @Test
    void knowsThirtyFindingsAndMore() {
        assertTrue(new HashSet<>(CASES.stream().map(Case::code).toList()).size() >= 45);
        assertTrue(Rule.ALL.size() >= 45);
        assertEquals(
                Rule.ALL.size(),
                new HashSet<>(Rule.ALL.stream().map(Object::getClass).toList()).size());
    }

    @Test
    void aDocumentationPrefixIsInOrderInALab() {
        PlanMaker plan = new PlanMaker();
        plan.lab = true;
        plan.networks.add(PlanMaker.network(3, "Copied", "in-band", "192.0.2.0/24", null, 500, null, true));
        assertEquals(List.of(), plan.codes());
    }

    @Test
    void tellsBlockingThingsFirst() {
        PlanMaker plan = new PlanMaker();
        vlan(1).accept(plan);
        plan.unit("block-array", "ard-blk-1", 2, "data-mtu=1500");
        List<Boolean> blocks =
                new ArrayList<>(plan.findings().stream().map(Finding::blocks).toList());
        List<Boolean> sorted = new ArrayList<>(blocks);
        sorted.sort((a, b) -> Boolean.compare(b, a));
        assertEquals(sorted, blocks);
        assertTrue(blocks.contains(true) && blocks.contains(false));
    }

    @Test
    void offersAFixWhereOneExists() {
        assertEquals("arrays@ardal.example", fix("sender-domain").value());
        assertEquals("10.40.8.41-10.40.8.200", fix("gateway-in-pool").value());
        assertEquals("9000", fix("mtu-mismatch").value());
        assertEquals("3900", fix("members-differ").value());
        assertEquals("SE", fix("units-differ").value());
        assertEquals("14", fix("two-subnet-managers").value());
    }

    private static Fix fix(String code) {
        PlanMaker plan = new PlanMaker();
        CASES.stream()
                .filter(each -> each.code.equals(code))
                .findFirst()
                .orElseThrow()
                .change
                .accept(plan);
        Fix fix = plan.findings().stream()
                .filter(finding -> finding.code().equals(code))
                .findFirst()
                .orElseThrow()
                .fix();
        assertNotNull(fix);
        return fix;
    }

    @Test
    void offersATimeServerThatAnswers() {
        PlanMaker plan = new PlanMaker().resource(SiteResourceSort.TIME, "ntp-4", Map.of("address", "10.40.8.9"));
        servers(DNS, NTP.subList(0, 2)).accept(plan);
        plan.service(ServiceKind.TIME, "10.40.8.9", State.FINE, "+0.2 ms", Map.of());
        Finding finding = plan.findings().get(0);
        assertEquals(RuleText.ADD_IT_ANSWERS.text("10.40.8.9"), finding.fix().label());
    }

    /** A cluster manager whose fleet manager is in a network with these time servers. */
    private static PlanMaker managed(PlanMaker plan, String... time) {
        PlannedNetwork other = PlanMaker.network(3, "Managers", "management", "10.40.9.0/24", null, 409, null, false);
        plan.networks.add(with(other, other.gateway(), other.vlan(), DNS, List.of(time), other.pools(), 10, 169, 0));
        return plan.unit("fleet-manager", "ard-flt-1", 1)
                .in(3)
                .seat("ard-flt-1", "10.40.9.40")
                .unit("cluster-manager", "ard-clm-1", 1, "fleet-manager=10.40.9.40");
    }

    @Test
    void aManagerWithOneTimeServerInCommonIsInStep() {
        assertEquals(
                List.of(),
                managed(new PlanMaker(), "10.40.9.6", "10.40.9.7", NTP.get(1)).codes());
    }

    @Test
    void aManagerOfAnotherBringUpIsKnownByItsNetwork() {
        PlanMaker plan = managed(new PlanMaker(), "10.40.9.6", "10.40.9.7", "10.40.9.8")
                .unit("cluster-manager", "ard-clm-2", 1, "fleet-manager=10.40.9.77")
                .unit("cluster-manager", "ard-clm-3", 1, "fleet-manager=10.44.1.1");
        assertEquals(List.of("manager-time", "manager-time"), plan.codes());
        PlanMaker common = managed(new PlanMaker(), "10.40.9.6", "10.40.9.7", NTP.get(1))
                .unit("cluster-manager", "ard-clm-2", 1, "fleet-manager=10.40.9.77");
        assertEquals(List.of(), common.codes());
    }

    @Test
    void theCableOfABrowserGoesFromOneMachineToTheNext() {
        PlanMaker plan = new PlanMaker();
        unit("interconnect-pair", 2, "left/console=browser", "right/console=browser")
                .accept(plan);
        assertEquals(List.of(), plan.codes());
    }
}
