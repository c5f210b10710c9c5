package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import io.restassured.path.json.JsonPath;
import io.vertx.core.Vertx;
import java.util.Map;
import java.util.Set;
import lychnos.lab.console.AnyName;
import lychnos.lab.console.Directory;
import org.junit.jupiter.api.Test;

/** What is particular about single kinds of machines, through the interface that screens use. */
@QuarkusTest
class ConsoleKindsTest {

    private static final String NAME_SERVER = "127.40.8.3";
    private static final String DIRECTORY = "127.40.8.44";

    @Test
    void aBundleWaitsUntilTheNetworkTeamHasSaidSo() {
        Vertx vertx = Vertx.vertx();
        try (AnyName names = new AnyName(vertx, NAME_SERVER);
                Directory directory = new Directory(
                        vertx, DIRECTORY, Map.of("joins-arrays", "peat-and-heather", "visitor", "over-the-fell"));
                ConsoleStage stage = new ConsoleStage().withDataNetwork()) {
            int unit = stage.single(
                    "file-array",
                    "skeggle",
                    "-",
                    Map.of(
                            "data VLAN",
                            "416",
                            "data ports as one bundle",
                            "yes",
                            "directory",
                            DIRECTORY,
                            "account that joins",
                            "joins-arrays",
                            "its password",
                            "peat-and-heather",
                            "group that may manage",
                            "storage-team",
                            "account that tries the directory",
                            "visitor",
                            "the visitor's password",
                            "over-the-fell"));
            stage.ready().begin(unit, "run");
            Map<String, Object> hold = stage.held(unit, 0, "GATE");
            assertTrue(hold.get("sentence").toString().contains("bundled-at-switch"), hold::toString);
            stage.fact(unit, "bundled-at-switch", "yes");
            JsonPath bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertEquals("storage-team", stage.hall().kept(stage.serial(0), "group"));
            assertEquals("", stage.hall().kept(stage.serial(0), "seen.refusedLogins"));
        } finally {
            vertx.close().toCompletionStage().toCompletableFuture().join();
        }
    }

    @Test
    void theControllerThatStandsByIsLeftOut() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.chassis();
            stage.ready().begin(unit, "run");
            JsonPath bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertEquals(Set.of("LEFT_OUT"), Set.copyOf(bench.getList("members[0].steps.progress")));
            assertTrue(bench.getString("members[0].note").contains("stands by"), bench::prettify);
            assertEquals("", stage.hall().kept(stage.serial(0) + "-1", "seen.logins"));
            assertEquals("2", stage.hall().kept(stage.serial(0) + "-2", "seen.logins"));
            assertEquals("yes", stage.hall().kept(stage.serial(0) + "-2", "hardened"));
        }
    }

    @Test
    void aServersScreenIsWorkedOnThePageOfItsController() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.single("server-controller-by-hand", "ullock", "-", Map.of());
            stage.ready().begin(unit, "run");
            Map<String, Object> hold = stage.held(unit, 0, "RESTARTS");
            assertTrue(hold.get("sentence").toString().contains("The server itself restarts"), hold::toString);
            JsonPath bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertEquals("", stage.hall().kept(stage.serial(0), "host.Address"));
            assertTrue(stage.hall().kept(stage.serial(0), "controller.Address").startsWith("127.40.8."));
        }
    }

    @Test
    void aVirtualMachinesLineIsOpenedOnceItIsThere() {
        try (ConsoleStage stage = new ConsoleStage()) {
            int unit = stage.wireless();
            stage.ready().begin(unit, "run");
            ConsoleStage.until(
                    "it is taken up",
                    () -> stage.bench(unit).getString("runState").equals("RUNNING"));
            assertEquals(
                    "opens when what comes before it is ticked",
                    stage.bench(unit).getString("members[0].gate"));
            for (int place : stage.bench(unit)
                    .<Integer>getList("members[0].steps.findAll { it.marks.contains('FIRST') }.place")) {
                stage.decide(stage.dialogue(unit, 0), "tick", Map.of("place", place, "done", true))
                        .then()
                        .statusCode(204);
            }
            JsonPath bench = stage.toTheEnd(unit);
            assertEquals("DONE", bench.getString("runState"), bench::prettify);
            assertEquals("hv-11 line port 2003", bench.getString("members[0].line"));
            assertEquals("", stage.hall().kept(stage.serial(0), "first"), "left for later");
        }
    }
}
