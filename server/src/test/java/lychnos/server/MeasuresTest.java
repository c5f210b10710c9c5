package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** What services answer is kept for the site, and belongs to all of its bring-ups. */
@QuarkusTest
@EnabledIfEnvironmentVariable(
        named = "HALL",
        matches = ".+",
        disabledReason = "the mail relay runs in the hall that ./lychnos test makes")
class MeasuresTest {

    private final Client client = Client.engineer();

    private void measure(long bringUp) {
        client.post("/api/bring-ups/" + bringUp + "/measure", Map.of()).statusCode(204);
    }

    private boolean refusesTheSender(long bringUp) {
        return client.get("/api/bring-ups/" + bringUp + "/prepare")
                .getList("site.findings.code")
                .contains("sender-domain");
    }

    @Test
    void aMeasurementForOneBringUpLeavesTheFindingsOfAnother() {
        long id = client.bringUp();
        client.network(id, Client.network("127.40.8.0/24", "127.40.8.1", "pool .100-.180"));
        client.put(
                        "/api/bring-ups/" + id + "/site-resources",
                        Map.of("sort", "relay", "name", "relay", "values", Map.of("address", "10.40.8.20")))
                .statusCode(200);
        int unit = client.post(
                        "/api/bring-ups/" + id + "/units", Map.of("kind", "block-array", "count", 1, "members", 2))
                .statusCode(200)
                .json()
                .getInt("[0]");
        Map<String, Object> sender =
                Map.of("unitId", unit, "member", "", "name", "mail-sender", "value", "arrays@nowhere.example");
        client.put("/api/bring-ups/" + id + "/facts", Map.of("cells", List.of(sender)))
                .statusCode(200);
        measure(id);
        ConsoleStage.until("the relay refuses the sender", () -> refusesTheSender(id), () -> client.get(
                        "/api/bring-ups/" + id + "/prepare")
                .prettify());
        long beside = client.bringUpBeside(id);
        // a name server that only the other one has tells when its measurement is over
        Map<String, Object> network = Client.network("127.40.9.0/24", "127.40.9.1", "pool .100-.180");
        network.put("nameServers", List.of("127.40.9.3"));
        client.network(beside, network);
        measure(beside);
        ConsoleStage.until("the other bring-up was measured", () -> client.get("/api/bring-ups/" + beside + "/prepare")
                .getList("services.address")
                .contains("127.40.9.3"));
        assertTrue(refusesTheSender(id));
    }
}
