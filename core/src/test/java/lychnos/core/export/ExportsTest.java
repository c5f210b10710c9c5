package lychnos.core.export;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.time.Instant;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.export.Flow.FlowEnd;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import org.junit.jupiter.api.Test;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;

class ExportsTest {

    private interface Writes {
        void write(Appendable out, Iterator<Endpoint> endpoints) throws IOException;
    }

    private static Endpoint endpoint(String unit, String role, String name, String address, String mac, String serial) {
        return new Endpoint(
                new Endpoint.EndpointMachine(unit, "interconnect-pair", "R1 u40", serial),
                role,
                name + ".ardal.example",
                Address.parse(address),
                new Endpoint.EndpointNetwork(
                        "Management",
                        Prefix.parse("10.40.8.0/24"),
                        408,
                        Address.parse("10.40.8.1"),
                        List.of("10.40.8.3"),
                        List.of("10.40.8.6")),
                new Endpoint.EndpointTraits(
                        mac,
                        "4.18.2",
                        "ab".repeat(32),
                        List.of("-----BEGIN CERTIFICATE-----\nMIIB\n-----END CERTIFICATE-----\n"),
                        "ssh-ed25519 AAAA"),
                443,
                Instant.parse("2026-11-27T09:14:30.5Z"),
                "hall-2 jump host");
    }

    private static final List<Endpoint> PAIR = List.of(
            endpoint("ard-fic-1", "left", "ard-fic-1-l", "10.40.8.40", "02:4c:59:a1:00:01", "PX-2207"),
            endpoint("ard-fic-1", "right", "ard-fic-1-r", "10.40.8.41", "02:4c:59:a1:00:02", "PX-2208"),
            endpoint("ard-fic-1", "shared", "ard-fic-1", "10.40.8.42", "02:4c:59:a1:00:01", "PX-2207"));

    private static String written(Writes writes, List<Endpoint> endpoints) throws IOException {
        StringBuilder out = new StringBuilder();
        writes.write(out, endpoints.iterator());
        return out.toString();
    }

    @Test
    void csvHasAHeadingAndTimesInUtc() throws IOException {
        List<String> lines = written(EndpointsCsv::write, PAIR).lines().toList();
        assertEquals(
                "name,address,role,unit,kind,place,network,vlan,gateway,"
                        + "serial,mac,firmware,certificate_sha256,proven_at,proven_from",
                lines.get(0));
        assertEquals(
                "ard-fic-1-l.ardal.example,10.40.8.40/24,left,ard-fic-1,interconnect-pair,R1 "
                        + "u40,Management,408,10.40.8.1,PX-2207,02:4c:59:a1:00:01,4.18.2,"
                        + "ab".repeat(32) + ",2026-11-27T09:14:30Z,hall-2 jump host",
                lines.get(1));
    }

    @Test
    void nothingTurnsIntoAFormula() throws IOException {
        for (String serial : List.of("=1+1", "+A1", "-2", "@SUM(A1)", "\t=1", "\r=1")) {
            String line = written(EndpointsCsv::write, List.of(endpoint("u", "left", "n", "10.40.8.40", "", serial)))
                    .split("\r\n", 2)[1];
            assertTrue(line.contains(",'" + serial) || line.contains(",\"'" + serial), line);
        }
    }

    @Test
    void eachToolGetsWhatItReads() throws IOException {
        assertEquals(
                "10.40.8.40\tard-fic-1-l.ardal.example\tard-fic-1-l",
                written(HostsFile::write, PAIR).lines().findFirst().orElseThrow());
        assertEquals(
                "ard-fic-1-l.ardal.example,10.40.8.40 ssh-ed25519 AAAA",
                written(KnownHosts::write, PAIR).lines().findFirst().orElseThrow());
        assertEquals(
                "Host ard-fic-1-l ard-fic-1-l.ardal.example\n    HostName 10.40.8.40\n    HostKeyAlias "
                        + "ard-fic-1-l.ardal.example\n    StrictHostKeyChecking yes",
                written(SshConfig::write, PAIR.subList(0, 1)).strip());
        assertTrue(written(CertificateList::write, PAIR)
                .startsWith("# ard-fic-1-l.ardal.example 10.40.8.40 sha256 " + "ab".repeat(32)
                        + "\n-----BEGIN CERTIFICATE-----\n"));
        String targets = written(TargetsFile::write, PAIR);
        assertTrue(
                targets.contains("\"targets\":[\"10.40.8.42:443\"]") && targets.contains("\"role\":\"shared\""),
                targets);
        assertTrue(written(TargetsFile::write, List.of(endpoint("u", "left", "n", "fd40:a4da:1:8::5a", "", "")))
                .contains("\"[fd40:a4da:1:8::5a]:443\""));
    }

    @Test
    void oneHardwareAddressIsReservedOnce() throws IOException {
        String kea = written(Reservations::write, PAIR);
        assertEquals(2, kea.split("hw-address", -1).length - 1, kea);
        assertTrue(kea.contains("\"ip-address\":\"10.40.8.40\"") && !kea.contains("10.40.8.42"), kea);
    }

    @Test
    void theInventoryIsYamlInWhichNoTextTurnsIntoSomethingElse() throws IOException {
        Object read = new Load(LoadSettings.builder().build())
                .loadFromString(written(
                        InventoryYaml::write,
                        List.of(endpoint("no", "left", "n", "10.40.8.40", "02:4c:59:a1:00:01", "0x10"), PAIR.get(1))));
        List<?> units = (List<?>) ((Map<?, ?>) read).get("units");
        assertEquals(2, units.size());
        assertEquals("no", ((Map<?, ?>) units.get(0)).get("unit"));
        assertEquals(
                "0x10", ((Map<?, ?>) ((List<?>) ((Map<?, ?>) units.get(0)).get("endpoints")).get(0)).get("serial"));
        assertEquals(
                "{units=[]}",
                new Load(LoadSettings.builder().build())
                        .loadFromString(written(InventoryYaml::write, List.of()))
                        .toString());
    }

    @Test
    void aZoneNamesItsServersAndEscapesWhatMeansSomethingThere() throws IOException {
        StringBuilder out = new StringBuilder();
        ZoneFile.write(
                out,
                "ardal.example",
                "ardal.example",
                List.of("10.40.8.3", "fd40:a4da:1:8::3"),
                7,
                List.of(
                        new ZoneFile.Entry("ard-fic-1.ardal.example", "A", "10.40.8.42"),
                        new ZoneFile.Entry("odd;$name.ardal.example", "CNAME", "ard-fic-1.ardal.example")));
        assertEquals(
                """
                $ORIGIN ardal.example.
                $TTL 3600
                @ IN SOA ns1.ardal.example. hostmaster.ardal.example. ( 7 3600 900 1209600 300 )
                @ IN NS ns1.ardal.example.
                @ IN NS ns2.ardal.example.
                ns1 IN A 10.40.8.3
                ns2 IN AAAA fd40:a4da:1:8::3
                ard-fic-1.ardal.example. IN A 10.40.8.42
                odd\\;\\$name.ardal.example. IN CNAME ard-fic-1.ardal.example.
                """,
                out.toString());
    }

    @Test
    void flowsGoFromEachEndpointToWhereItLeans() throws IOException {
        Kind kind = KindReader.shipped("interconnect-pair");
        List<Flow> flows = Flows.of(
                kind, PAIR, new Flows.Site(List.of(new FlowEnd("operations", "10.40.200.0/24")), Map.of(), false));
        assertEquals(9, flows.size(), flows::toString);
        assertTrue(flows.contains(new Flow(
                new FlowEnd("ard-fic-1-l.ardal.example", "10.40.8.40"),
                new FlowEnd("name server", "10.40.8.3"),
                "udp 53",
                FlowPurpose.NAMES)));
        assertTrue(flows.contains(new Flow(
                new FlowEnd("operations", "10.40.200.0/24"),
                new FlowEnd("ard-fic-1.ardal.example", "10.40.8.42"),
                "tcp 443",
                FlowPurpose.MANAGEMENT)));
        List<Flow> cluster =
                Flows.of(KindReader.shipped("fabric-controller"), PAIR, new Flows.Site(List.of(), Map.of(), false));
        assertEquals(
                6,
                cluster.stream()
                        .filter(flow -> flow.purpose() == FlowPurpose.CLUSTER)
                        .count());
        assertTrue(
                cluster.stream()
                        .anyMatch(flow -> flow.source().name().equals("engineers")
                                && flow.source().address().isEmpty()),
                "where nobody said from where");
        StringBuilder out = new StringBuilder();
        Flows.write(out, flows);
        assertEquals(
                "ard-fic-1-l.ardal.example,10.40.8.40,name server,10.40.8.3,udp,53,names,out,",
                out.toString().lines().skip(1).findFirst().orElseThrow());
    }

    @Test
    void eachMachineHasALineForItsCables() throws IOException {
        StringBuilder out = new StringBuilder();
        Cabling.write(
                out,
                List.of(
                        new Cabling.Cable(
                                "ard-fic-1", "left", "interconnect-pair", "R1 u40", "sw-r1-a 17", "M-0417", "2007"),
                        new Cabling.Cable("ard-srv-1", "", "server-controller", "R1 u5", "=sw-r1-a 18", "", "")));
        assertEquals(
                "unit,member,kind,place,switch_port,cable,console_line\r\n"
                        + "ard-fic-1,left,interconnect-pair,R1 u40,sw-r1-a 17,M-0417,2007\r\n"
                        + "ard-srv-1,,server-controller,R1 u5,'=sw-r1-a 18,,\r\n",
                out.toString());
    }

    @Test
    void anIsolatedSiteAsksForNoFlowToTheInternet() {
        Kind kind = KindReader.shipped("access-appliance");
        List<Endpoint> one = List.of(endpoint("ard-acc-1", "management", "ard-acc-1", "10.40.8.50", "", "AC-1"));
        Flows.Site open = new Flows.Site(List.of(), Map.of(), false);
        Flows.Site isolated = new Flows.Site(List.of(), Map.of(), true);
        assertTrue(Flows.of(kind, one, open).stream()
                .anyMatch(flow -> flow.purpose() == FlowPurpose.INTERNET
                        && flow.destination().name().equals("activate.rossett.example")
                        && flow.fallback().equals("tcp 8443")));
        assertEquals(
                Flows.of(kind, one, open).stream()
                        .filter(flow -> flow.purpose() != FlowPurpose.INTERNET && flow.purpose() != FlowPurpose.PROXY)
                        .toList(),
                Flows.of(kind, one, isolated),
                "the others are asked for as before");
    }
}
