package lychnos.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.nullValue;
import static org.junit.jupiter.api.Assertions.assertEquals;

import io.quarkus.test.junit.QuarkusTest;
import io.quarkus.test.junit.QuarkusTestProfile;
import io.quarkus.test.junit.TestProfile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import lychnos.lab.MachineSpec;
import lychnos.lab.Plug;
import lychnos.lab.hall.Hall;
import lychnos.server.http.Json;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** Where silence can be told from an answer, the wire is asked before an address is given out. */
@QuarkusTest
@TestProfile(UnknownDeviceTest.Hears.class)
@EnabledIfEnvironmentVariable(
        named = "LYCHNOS_TEST_NAME_KEY",
        matches = ".+",
        disabledReason = "the hall's servers run only in ./lychnos test")
class UnknownDeviceTest {

    private static final Path LEASES = Path.of("target", "dhcpd.leases").toAbsolutePath();

    /** The test stands in the hall's own network, where an absent machine is silent. */
    public static class Hears implements QuarkusTestProfile {
        @Override
        public Map<String, String> getConfigOverrides() {
            return Map.of("lychnos.vantage.hears-silence", "true", "lychnos.dhcp-lease-files", LEASES.toString());
        }
    }

    @BeforeEach
    void noLeases() throws IOException {
        Files.writeString(LEASES, "# none\n");
    }

    @Tag("wording")
    @Test
    void whatAnswersIsAnUnknownDeviceAndIsNeverAllocated() {
        Client client = Client.engineer();
        long id = client.bringUp();
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.20-40"));
        int pair = client.post(
                        "/api/bring-ups/" + id + "/units",
                        Map.of("kind", "interconnect-pair", "count", 1, "members", 2))
                .json()
                .getInt("[0]");
        Json fits = client.get("/api/bring-ups/" + id + "/fits?unit=" + pair + "&at=10.40.8.20");
        // the relay of the hall lives at the first of the three, its directory at the second
        client.post("/api/bring-ups/" + id + "/allocations", Map.of("lines", fits.getList("fits[0].lines")))
                .statusCode(409)
                .body("code", equalTo("UNKNOWN_DEVICE_USES_THIS_ADDRESS"))
                .body("proposal.lines[0].address", equalTo("10.40.8.22"));
        assertEquals(
                List.of("10.40.8.20", "10.40.8.21"),
                client.get("/api/bring-ups/" + id + "/ribbon").getList("unknownDevices.address"));
        assertEquals(
                0,
                client.get("/api/bring-ups/" + id + "/ribbon").getList("seats").size(),
                "all or none");
        // a host lives at .23 and a proxy at .25: each look finds one more of them
        for (int status : new int[] {409, 409, 200}) {
            client.post(
                            "/api/bring-ups/" + id + "/allocations",
                            Map.of(
                                    "lines",
                                    client.get("/api/bring-ups/" + id + "/proposal")
                                            .getList("lines")))
                    .statusCode(status);
        }
        assertEquals(
                "10.40.8.26",
                client.get("/api/bring-ups/" + id + "/ribbon").<String>getList("seats.address").stream()
                        .min(String::compareTo)
                        .orElseThrow());
        // one that answers stays, one that is silent is forgotten
        client.post("/api/bring-ups/" + id + "/probes", Map.of("addresses", List.of("10.40.8.20", "10.40.8.40")))
                .statusCode(200)
                .body("answering.address", equalTo(List.of("10.40.8.20")));
        assertEquals(
                List.of("10.40.8.20", "10.40.8.21", "10.40.8.23", "10.40.8.25"),
                client.get("/api/bring-ups/" + id + "/ribbon").getList("unknownDevices.address"));
    }

    /** A controller without a label: found by its service root, added by its MAC address. */
    @Test
    void aControllerWithoutALabelIsFoundAndAdded() throws IOException {
        Client client = Client.engineer();
        long id = client.bringUp();
        client.network(id, Client.network("127.40.245.0/24", "127.40.245.1", "pool 127.40.245.10-20"));
        String found = "127.40.245.12";
        MachineSpec spec = MachineSpec.of("UD-1", "02:4c:59:c0:e7:01", found);
        String probes = "/api/bring-ups/" + id + "/probes";
        Hall hall = new Hall(List.of(spec), Plug.loopback(), ConfigureStage.PORT, Duration.ofMillis(50), null);
        try (hall) {
            client.post(probes, Map.of("addresses", List.of(found, "127.40.245.13")))
                    .statusCode(200)
                    .body("answering.find { it.address == '" + found + "' }.controller", containsString("1.17.0"))
                    .body("answering.find { it.address == '127.40.245.13' }.controller", nullValue());
        }
        Files.writeString(
                LEASES, "lease 127.40.245.14 {\n  binding state active;\n  hardware ethernet 02:4c:59:c0:e7:02;\n}\n");
        client.post(probes, Map.of("addresses", List.of("127.40.245.14"))).statusCode(200);
        int unit = client.post("/api/bring-ups/" + id + "/units", announced("server-controller", 1))
                .json()
                .getInt("[0]");
        Json ribbon = client.get("/api/bring-ups/" + id + "/ribbon");
        assertEquals(
                client.get("/api/bring-ups/" + id + "/prepare").getString("units.find { it.id == " + unit + " }.name"),
                ribbon.getString("unknownDevices.find { it.address == '127.40.245.14' }.unit"));
        Map.of(
                        "IS_ALREADY_USED", announced("server-controller", 1),
                        "MAC_ADDRESS_OF_ONE_UNIT", announced("server-controller", 2),
                        "IS_NOT_FOUND_BY_MAC_ADDRESS", announced("wireless-controller", 1))
                .forEach((code, asked) -> client.post("/api/bring-ups/" + id + "/units", asked)
                        .statusCode(400)
                        .body("faults.code", equalTo(List.of(code))));
    }

    private static Map<String, Object> announced(String kind, int count) {
        return Map.of("kind", kind, "count", count, "members", 0, "mac", "02:4c:59:c0:e7:02");
    }

    @Tag("wording")
    @Test
    void whatDhcpHasLeasedIsGivenToNobody() throws IOException {
        Client client = Client.engineer();
        long id = client.bringUp();
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.230-240"));
        client.post("/api/bring-ups/" + id + "/units", Map.of("kind", "hypervisor-host", "count", 1, "members", 1))
                .statusCode(200);
        Map<String, Object> taking =
                Map.of("lines", client.get("/api/bring-ups/" + id + "/proposal").getList("lines"));
        Files.deleteIfExists(LEASES);
        client.post("/api/bring-ups/" + id + "/allocations", taking)
                .statusCode(409)
                .body("code", equalTo("DHCP_LEASE_FILE_IS_CONFIGURED"));
        Files.writeString(
                LEASES,
                """
                lease 10.40.8.230 {
                  binding state active;
                  hardware ethernet 02:4c:59:00:00:77;
                  client-hostname "bench-7";
                }
                """);
        client.post("/api/bring-ups/" + id + "/allocations", taking)
                .statusCode(409)
                .body("code", equalTo("UNKNOWN_DEVICE_USES_THIS_ADDRESS"))
                .body("proposal.lines[0].address", equalTo("10.40.8.231"));
        assertEquals(
                List.of("02:4c:59:00:00:77"),
                client.get("/api/bring-ups/" + id + "/ribbon").getList("unknownDevices.mac"));
    }
}
