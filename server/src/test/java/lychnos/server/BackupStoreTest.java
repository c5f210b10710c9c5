package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.agroal.api.AgroalDataSource;
import io.quarkus.test.junit.QuarkusTest;
import io.quarkus.test.junit.QuarkusTestProfile;
import io.quarkus.test.junit.TestProfile;
import jakarta.inject.Inject;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import lychnos.core.text.Texts;
import lychnos.lab.console.Habit;
import lychnos.server.http.Json;
import lychnos.server.text.ConfigureText;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * Nodes whose controllers are found by the leases of a real DHCP server and set over Redfish, and that make a cluster
 * on their pages.
 */
@QuarkusTest
@TestProfile(BackupStoreTest.WithLeases.class)
class BackupStoreTest {

    private static final Path DHCP = Path.of(System.getProperty("java.io.tmpdir"), "dhcp-of-backup-stores");

    /** The server knows where the lease file is. */
    public static final class WithLeases implements QuarkusTestProfile {
        @Override
        public Map<String, String> getConfigOverrides() {
            return Map.of("lychnos.dhcp-lease-files", DHCP.resolve("leases.csv").toString());
        }
    }

    @Inject
    AgroalDataSource database;

    private DhcpServer dhcp;
    private ConsoleStage stage;

    @BeforeEach
    void site() throws IOException {
        dhcp = new DhcpServer(DHCP, "127.40.8.210 - 127.40.8.229");
        stage = new ConsoleStage().with(dhcp.way());
        stage.policy("telemetry");
    }

    @AfterEach
    void close() {
        stage.close();
        dhcp.close();
    }

    private String kept(int node, String name) {
        return stage.hall().kept(stage.serial(node), name);
    }

    private Map<String, Object> step(Json bench, int member, String title) {
        return bench.getMap("members[" + member + "].steps.find { it.title == '" + title + "' }");
    }

    private Map<String, Object> hold(int unit) {
        return stage.toTheEnd(unit).getMap("members[0].hold");
    }

    @Tag("wording")
    @Test
    void twoNodesAreSetUpFromTheirTagsToOneCluster() {
        int unit = stage.store(2);
        stage.ready().begin(unit, "run");
        Json bench = stage.toTheEnd(unit);
        assertEquals("DONE", bench.getString("runState"), bench::prettify);
        for (int node = 0; node < 2; node++) {
            assertTrue(kept(node, "leased").startsWith("127.40.8.2"), "it had leased " + kept(node, "leased"));
            Map<String, Object> controller = step(bench, node, "Server management controller");
            assertEquals(
                    "came from " + kept(node, "leased") + "; 9 of 9 values as planned", controller.get("evidence"));
            assertEquals("1", kept(node, "seen.controllerPhraseChanges"));
            assertEquals("0", kept(node, "seen.controllerRefusedLogins"));
            assertEquals("", kept(node, "seen.refusedWebLogins"));
            assertEquals("serves ardal-backup", kept(node, "state"));
            assertEquals("in service", kept(node, "service"));
            assertTrue(kept(node, "page/outward").contains("stays in the hall"), kept(node, "page/outward"));
        }
        assertTrue(step(bench, 1, "Join the cluster").get("sent").toString().contains("J-"), bench::prettify);
        assertEquals(null, step(bench, 1, "New cluster"), "made once");
    }

    private Json prove() {
        return stage.client.get("/api/bring-ups/" + stage.bringUp + "/prove");
    }

    private Map<String, Object> endpoint(String role) {
        return prove().getMap("endpoints.find { it.role == '" + role + "' }");
    }

    /** A unit is checked as soon as it is set up: each of its addresses, by what it is. */
    @Tag("wording")
    @Test
    void everyAddressOfAClusterIsAnEndpointOfItsOwn() throws SQLException {
        int unit = stage.store(2);
        stage.ready().begin(unit, "run");
        stage.toTheEnd(unit);
        ConsoleStage.until("all are proven", () -> prove().getInt("proven") == 7);
        assertEquals(
                List.of(
                        "cluster",
                        "node 1 port 1",
                        "node 1 port 2",
                        "node 2 port 1",
                        "node 2 port 2",
                        "node 1 controller",
                        "node 2 controller"),
                prove().getList("endpoints.role"));
        Json controller = stage.proof(unit, "node 2 controller");
        assertEquals("9 of 9 values", controller.getString("rungs[5].seen"));
        assertEquals("factory password refused; 80 closed", controller.getString("rungs[6].seen"));
        assertEquals("correct to the second", controller.getString("marks.find { it.title == 'time' }.seen"));
        Json node = stage.proof(unit, "node 2 port 1");
        assertTrue(
                node.getList("rungs[4].parts.name").contains("web pages"), "its serial, on the controller's address");
        assertTrue(node.getString("rungs[5].seen").matches("\\d+ of \\d+ values on its pages"), node::prettify);
        assertEquals("factory password refused; 80 closed", node.getString("rungs[6].seen"));
        assertEquals("correct to the second", node.getString("marks.find { it.title == 'time' }.seen"));
        Json cluster = stage.proof(unit, "cluster");
        assertTrue(cluster.getString("rungs[3].seen").contains("Seathwaite ardal-backup"), cluster::prettify);
        // somebody puts another certificate there
        sql("update known_certificate set fingerprint = repeat('0', 64) where role = 'cluster' and unit_id = " + unit);
        sql("update accepted_trait set value = repeat('0', 64) where what = 'certificate' and role = 'cluster' "
                + "and unit_id = "
                + unit);
        stage.client
                .post("/api/bring-ups/" + stage.bringUp + "/checks", Map.of("units", List.of(unit)))
                .statusCode(200);
        ConsoleStage.until(
                "it is told", () -> Boolean.FALSE.equals(endpoint("cluster").get("proven")));
        assertTrue(
                Texts.says(
                        "core.proof.Trouble.CERTIFICATE_CHANGED",
                        endpoint("cluster").get("sentence").toString()),
                () -> endpoint("cluster").toString());
        assertEquals("cluster", prove().getString("changes[0].role"));
        String now = prove().getString("changes[0].now");
        String changes = "/api/endpoints/" + prove().getLong("changes[0].claimId") + "/changes";
        stage.client
                .post(changes, Map.of("what", "certificate", "now", "1".repeat(64), "accept", true))
                .statusCode(409);
        stage.client
                .post(changes, Map.of("what", "certificate", "now", now, "accept", true))
                .statusCode(204);
        ConsoleStage.until("the checks are over", () -> prove().getInt("checking") == 0);
        stage.client
                .post("/api/bring-ups/" + stage.bringUp + "/checks", Map.of("units", List.of(unit)))
                .statusCode(200);
        ConsoleStage.until("it is proven again", () -> prove().getInt("proven") == 7);
        assertEquals(3, stage.proof(unit, "cluster").getList("before").size(), "each change is kept, and nothing else");
    }

    @Test
    void checksAreRepeatedUntilToldOtherwise() throws SQLException {
        int unit = stage.store(1);
        stage.ready().begin(unit, "run");
        stage.toTheEnd(unit);
        ConsoleStage.until(
                "it is proven",
                () -> prove().getInt("proven") == prove().getList("endpoints").size());
        String pace = "/api/bring-ups/" + stage.bringUp + "/checks/pace";
        stage.client.request().body(Map.of("minutes", -1)).put(pace).statusCode(400);
        stage.client.request().body(Map.of("minutes", 60)).put(pace).statusCode(204);
        assertEquals(60, prove().getInt("minutes"));
        String last = prove().getString("lastAt");
        sql("update check_pace set next_at = now() - interval '1 second' where bring_up_id = " + stage.bringUp);
        ConsoleStage.until(
                "it was checked again automatically",
                () -> prove().getString("lastAt").compareTo(last) > 0);
        assertEquals(
                0,
                count("select count(*) from check_pace where next_at not between now() + interval '47 min' and "
                        + "now() + interval '73 min' and bring_up_id = "
                        + stage.bringUp),
                "the next time is an hour away, more or less");
        stage.client.request().body(Map.of("minutes", 0)).put(pace).statusCode(204);
        assertEquals(0, prove().getInt("minutes"));
    }

    private int count(String query) throws SQLException {
        try (Connection connection = database.getConnection();
                PreparedStatement select = connection.prepareStatement(query);
                java.sql.ResultSet rows = select.executeQuery()) {
            rows.next();
            return rows.getInt(1);
        }
    }

    private void sql(String statement) throws SQLException {
        try (Connection connection = database.getConnection();
                PreparedStatement update = connection.prepareStatement(statement)) {
            assertEquals(1, update.executeUpdate(), statement);
        }
    }

    @Tag("wording")
    @Test
    void theSecondNodeWaitsForTheCodeOfTheFirst() {
        int unit = stage.store(2);
        stage.ready().begin(unit, "run");
        Map<String, Object> waits = stage.held(unit, 1, "PEER");
        assertEquals("“Join the cluster” waits until node 1 has shown its join code.", waits.get("sentence"));
        Map<String, Object> typed = stage.held(unit, 0, "PERMANENT");
        assertEquals("ardal-backup", typed.get("typed"), typed::toString);
        assertEquals("", kept(0, "state"));
    }

    @Test
    void anotherMachinesTagStopsBeforeAnythingIsWritten() {
        int unit = stage.store(1, Habit.OTHER_SERIAL);
        stage.ready().begin(unit, "run");
        Map<String, Object> hold = hold(unit);
        assertEquals("WRONG_MACHINE", hold.get("why"), hold::toString);
        assertTrue(
                Texts.says(
                        "wire.controller.ControllerText.OTHER_MACHINE",
                        hold.get("sentence").toString()),
                hold::toString);
        assertEquals("0", kept(0, "seen.controllerWrites"));
    }

    @Test
    void aPasswordThatIsNotTheOneOnTheTagIsTriedOnce() {
        int unit = stage.store(1);
        stage.ready();
        stage.fact(unit, "node 1", "controller-password", "read-in-bad-light");
        stage.begin(unit, "run");
        Map<String, Object> hold = stage.held(unit, 0, "PAGE");
        assertTrue(
                Texts.says(
                        ConfigureText.BOTH_PASSWORDS_ARE_REFUSED,
                        hold.get("sentence").toString()),
                hold::toString);
        assertEquals("0", kept(0, "seen.controllerWrites"));
        stage.fact(
                unit,
                "node 1",
                "controller-password",
                "tag-of-node-" + stage.serial(0).replaceFirst(".*-", ""));
        assertEquals("DONE", stage.toTheEnd(unit).getString("runState"));
    }

    @Test
    void aControllerThatComesBackWhereItWasIsTold() {
        int unit = stage.store(1, Habit.OLD_ADDRESS);
        stage.ready(Duration.ofSeconds(3), null).begin(unit, "run");
        Map<String, Object> hold = stage.held(unit, 0, "PAGE");
        assertTrue(
                Texts.says(
                        "wire.controller.ControllerText.NOT_KEPT",
                        hold.get("sentence").toString()),
                hold::toString);
    }

    @Test
    void aNodeWithoutALeaseIsLookedForAgain() throws IOException {
        int unit = stage.store(1);
        stage.ready();
        ConsoleStage.until("it has its lease", () -> !kept(0, "leased").isEmpty());
        String leases = Files.readString(DHCP.resolve("leases.csv"));
        Files.writeString(DHCP.resolve("leases.csv"), leases.lines().findFirst().orElseThrow() + "\n");
        stage.begin(unit, "run");
        Map<String, Object> hold = stage.held(unit, 0, "UNREACHED");
        assertTrue(
                Texts.says(
                        ConfigureText.NO_CONTROLLER_ANSWERS_SET_IT_AT_ITS_SCREEN,
                        hold.get("sentence").toString()),
                hold::toString);
        Files.writeString(DHCP.resolve("leases.csv"), leases);
        assertEquals("DONE", stage.toTheEnd(unit).getString("runState"));
    }

    /** In a hall without DHCP, with a screen and a keyboard at the node. */
    @Test
    void aPersonSetsTheControllerAtItsScreenWhereNothingLeasesIt() throws IOException {
        int unit = stage.store(1);
        stage.ready();
        ConsoleStage.until("it has its lease", () -> !kept(0, "leased").isEmpty());
        Path leases = DHCP.resolve("leases.csv");
        Files.writeString(leases, Files.readAllLines(leases).get(0) + "\n");
        stage.begin(unit, "run");
        assertEquals("UNREACHED", stage.held(unit, 0, "UNREACHED").get("why"));
        String planned = step(stage.bench(unit), 0, "Server management controller")
                .get("fields")
                .toString()
                .replaceFirst("(?s).*Address=([0-9.]+).*", "$1");
        stage.hall().setControllerAtScreen(stage.serial(0), planned, "255.255.255.0", "127.40.8.1");
        ConsoleStage.until("it is there", () -> kept(0, "controller").equals(planned));
        assertEquals("DONE", stage.toTheEnd(unit).getString("runState"));
        assertEquals("1", kept(0, "seen.controllerPhraseChanges"));
    }

    /** As when a server dies: the server that takes the unit over does not know how far the controller had come. */
    @Test
    void whoeverTakesAControllerOverChangesItsPasswordOnce() throws SQLException {
        int unit = stage.store(2);
        stage.ready().begin(unit, "run");
        for (String moment : List.of("seen.controllerPhraseChanges", "seen.webPhraseChanges", "state")) {
            ConsoleStage.until(moment, () -> {
                stage.yes(unit);
                return !List.of("", "0").contains(kept(0, moment));
            });
            sql("update run set lease_until = now() - interval '1 second' where state = 'RUNNING' and purpose = "
                    + "'console' and unit_id = "
                    + unit);
        }
        Json bench = stage.toTheEnd(unit);
        assertEquals("DONE", bench.getString("runState"), bench::prettify);
        for (int node = 0; node < 2; node++) {
            assertEquals("1", kept(node, "seen.controllerPhraseChanges"));
            assertOnceAtMost(kept(node, "seen.controllerRefusedLogins"));
            assertEquals("1", kept(node, "seen.webPhraseChanges"));
            assertOnceAtMost(kept(node, "seen.refusedWebLogins"));
        }
    }

    /** Cut between the sending of a new password and its answer, one log-in has to find out which of the two counts. */
    private static void assertOnceAtMost(String refused) {
        assertTrue(List.of("", "0", "1").contains(refused), refused);
    }
}
