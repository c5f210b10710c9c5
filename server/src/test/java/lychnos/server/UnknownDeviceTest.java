package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;

import io.quarkus.test.junit.QuarkusTest;
import io.quarkus.test.junit.QuarkusTestProfile;
import io.quarkus.test.junit.TestProfile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
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
