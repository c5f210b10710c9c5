package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/**
 * The server, the machines and a line are killed while dialogues go on: what was done stays done, and nothing goes
 * wrong by it.
 */
class ConsoleKillTest {

    /** More of them with LYCHNOS_KILLS. */
    private static final int KILLS = Integer.parseInt(System.getenv().getOrDefault("LYCHNOS_KILLS", "4"));

    private static final int STANDSTILLS = 3;
    private static final String HELD =
            "select 'held: ' || count(*) from run where purpose = 'console' and state = 'RUNNING' and lease_until > "
                    + "now()";

    /** Never twice. */
    private static final List<String> ONCE = List.of("", "1");

    private static final Duration LONG = Duration.ofSeconds(240);

    @Test
    void theServerIsKilledAgainAndAgainAndALineIsCut() throws Exception {
        Random random = new Random(20261123);
        try (Stage stage = Stage.ofConsoles(Bench.HALL.formatted("-", "line-cut"), 1500)) {
            Bench bench = new Bench(stage.url()).prepare(".200-.215");
            for (String unit : bench.units.keySet()) {
                bench.begin(unit, "run");
            }
            for (int kill = 0; kill < KILLS; kill++) {
                int enough = bench.done() + 3 + random.nextInt(5);
                Stage.until(
                        "the work goes on after " + kill + " kills",
                        LONG,
                        () -> quietly(() -> {
                            yes(bench);
                            return bench.done() >= enough || bench.set() + bench.stuck() == bench.units.size();
                        }));
                stage.killServer();
                stage.startServer();
            }
            try {
                Stage.until(
                        "each is set up, or says why not",
                        LONG,
                        () -> quietly(() -> {
                            yes(bench);
                            return bench.set() + bench.stuck() == bench.units.size();
                        }));
            } catch (AssertionError e) {
                throw new AssertionError(bench.summary(), e);
            }
            assertEquals(bench.units.size(), bench.set(), bench.summary());
            for (String serial : List.of("EO-1", "EO-2", "ES-1", "EG-1")) {
                assertTrue(ONCE.contains(stage.kept(serial, "seen.phraseChanges")), serial);
                // the host restarts once more, when it has been installed
                List<String> restarts = serial.equals("EG-1") ? List.of("2") : ONCE;
                assertTrue(restarts.contains(stage.kept(serial, "seen.restarts")), serial);
                assertTrue(Bench.refusedLogins(serial).contains(stage.kept(serial, "seen.refusedLogins")), serial);
            }
            for (String unit : bench.units.keySet()) {
                for (JsonNode answer : bench.reach(unit)) {
                    assertTrue(
                            answer.path("sentence").asText().contains("answers ping, port 443 is open")
                                    || answer.path("address").asText().contains(":"),
                            answer::toString);
                }
            }
        }
    }

    /** Saying yes; a server that is just being killed answers nothing. */
    private static void yes(Bench bench) throws IOException, InterruptedException {
        for (String unit : bench.units.keySet()) {
            bench.sayYes(unit);
            bench.drawAgain(unit);
        }
    }

    private interface Look {
        boolean look() throws IOException, InterruptedException;
    }

    private static boolean quietly(Look look) {
        try {
            return look.look();
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    /** Its leases run out, it finds its own setups without a holder, and takes them up again. */
    @Test
    void aServerThatStoodStillGoesOnWithItsOwnSetups() throws Exception {
        try (Stage stage = Stage.ofConsoles(Bench.HALL.formatted("-", "-"), 800)) {
            Bench bench = new Bench(stage.url()).prepare(".44-.59");
            for (String unit : bench.units.keySet()) {
                bench.begin(unit, "run");
            }
            for (int times = 1; times <= STANDSTILLS; times++) {
                int enough = 2 * times;
                Stage.until(
                        "answers were sent",
                        LONG,
                        () -> quietly(() -> {
                            yes(bench);
                            return bench.done() >= enough;
                        }));
                stage.standStill(true);
                Stage.until(
                        "every lease has run out",
                        LONG,
                        () -> quietly(() -> stage.sql(HELD).contains("held: 0")));
                stage.standStill(false);
            }
            Stage.until(
                    "each is set up",
                    LONG,
                    () -> quietly(() -> {
                        yes(bench);
                        return bench.set() == bench.units.size();
                    }));
            for (String serial : List.of("EO-1", "EO-2", "ES-1", "EG-1")) {
                assertTrue(ONCE.contains(stage.kept(serial, "seen.phraseChanges")), serial);
                assertTrue(Bench.refusedLogins(serial).contains(stage.kept(serial, "seen.refusedLogins")), serial);
            }
        }
    }

    @Test
    void machinesThatLosePowerInTheMiddleAreToldFromThoseThatDoNot() throws Exception {
        try (Stage stage = Stage.ofConsoles(Bench.HALL.formatted("-", "-"), 1000)) {
            Bench bench = new Bench(stage.url()).prepare(".216-.231");
            bench.begin("ben-fdc-1", "run");
            Stage.until(
                    "it asks for the permanent value",
                    LONG,
                    () -> quietly(() -> bench.bench("ben-fdc-1")
                            .path("members")
                            .path(0)
                            .path("hold")
                            .path("why")
                            .asText()
                            .equals("PERMANENT")));
            stage.killHall();
            Stage.until(
                    "the line is gone",
                    LONG,
                    () -> quietly(() -> bench.bench("ben-fdc-1")
                            .path("members")
                            .path(0)
                            .path("state")
                            .asText()
                            .equals("CUT")));
            stage.startHall();
            // it asks from its first question again, which was answered: nothing is sent, and a person is told
            Stage.until(
                    "it is told",
                    LONG,
                    () -> quietly(() -> {
                        String why = bench.bench("ben-fdc-1")
                                .path("members")
                                .path(0)
                                .path("hold")
                                .path("why")
                                .asText();
                        if (why.equals("CUT")) {
                            bench.sayYes("ben-fdc-1");
                        }
                        return why.equals("AGAIN");
                    }));
            assertEquals("", stage.kept("ES-1", "overlay"));
            bench.putAway("ben-fdc-1");
            bench.begin("ben-fdc-1", "run");
            Stage.until(
                    "it is set up from the beginning",
                    LONG,
                    () -> quietly(() -> {
                        assertEquals(List.of(), bench.sayYes("ben-fdc-1"));
                        return bench.bench("ben-fdc-1")
                                .path("runState")
                                .asText()
                                .equals("DONE");
                    }));
            assertEquals("10.45.0.0/16", stage.kept("ES-1", "overlay"));
        }
    }
}
