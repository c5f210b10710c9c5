package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The server in one network, the machines in another, a firewall between, and a vantage that has dialled out. */
class VantageTest {

    private static final Duration LONG = Duration.ofSeconds(90);

    private interface Look {
        boolean look() throws IOException, InterruptedException;
    }

    private static void until(String what, Look look) {
        Stage.until(what, LONG, () -> {
            try {
                return look.look();
            } catch (IOException e) {
                throw new AssertionError(e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new AssertionError(e);
            }
        });
    }

    private static ObjectNode object(Map<String, ?> values) {
        return Api.JSON.valueToTree(values);
    }

    /**
     * @param killed whether it is killed besides while nobody hears it: what it had done is handed in by the one that
     * comes after
     */
    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void aVantageWorksThroughASetupWhileItIsCutOff(boolean killed) throws Exception {
        try (Office office = new Office();
                Stage stage = Stage.ofConsolesAndOffice(Bench.HALL.formatted("-", "-"), 4000, office)) {
            Api lead = new Api(stage.url(), "hall-lead", "lead-of-the-hall");
            Bench bench = new Bench(stage.url()).ground(killed ? ".60-.75" : ".76-.91");
            lead.ask(
                    stage.url(),
                    "PUT",
                    "/api/bring-ups/1/networks",
                    object(Map.of(
                            "name",
                            "Services",
                            "prefix",
                            "10.40.8.0/24",
                            "gateway",
                            "10.40.8.1",
                            "domain",
                            "ardal.example",
                            "nameServers",
                            List.of(),
                            "timeServers",
                            List.of(),
                            "ranges",
                            List.of(),
                            "purpose",
                            "in-band")));
            JsonNode made = lead.ask(stage.url(), "POST", "/api/vantages", object(Map.of("name", "cage-4")));
            List<Long> networks = new ArrayList<>();
            lead.ask(stage.url(), "GET", "/api/vantages/networks", null)
                    .forEach(each -> networks.add(each.path("id").asLong()));
            assertEquals(2, networks.size());
            lead.ask(
                    stage.url(),
                    "PUT",
                    "/api/vantages/" + made.path("id").asLong() + "/networks",
                    object(Map.of("networks", networks)));
            Process vantage = stage.vantage(
                    "http://" + Office.SERVER + ":" + Office.PORT,
                    made.path("token").asText());
            try {
                until("it is linked", () -> lead.ask(stage.url(), "GET", "/api/vantages", null)
                        .path(0)
                        .path("linked")
                        .asBoolean());
                bench.rest();
                bench.begin("ben-fdc-1", "run");
                bench.begin("ben-hv-01", "run");
                until("it asks for the permanent value", () -> bench.waits("ben-fdc-1", "PERMANENT"));
                until("the controller restarts", () -> {
                    bench.sayYes("ben-fdc-1");
                    return stage.kept("ES-1", "seen.restarts").equals("1");
                });
                office.closed(true);
                // the server knows nothing of what happens now
                until("it logs in again while it is cut off", () -> stage.kept("ES-1", "seen.logins")
                        .equals("1"));
                until(
                        "what happens is kept in a file",
                        () -> Files.isDirectory(stage.directory().resolve("kept"))
                                && list(stage.directory().resolve("kept")) > 0);
                if (killed) {
                    vantage.descendants().forEach(ProcessHandle::destroyForcibly);
                    vantage.destroyForcibly().waitFor();
                    vantage = stage.vantage(
                            "http://" + Office.SERVER + ":" + Office.PORT,
                            made.path("token").asText());
                }
                office.closed(false);
                try {
                    until("it is handed in, and ends", () -> {
                        for (String unit : List.of("ben-fdc-1", "ben-hv-01")) {
                            bench.sayYes(unit);
                            bench.drawAgain(unit);
                        }
                        return bench.bench("ben-fdc-1")
                                        .path("runState")
                                        .asText()
                                        .equals("DONE")
                                && bench.bench("ben-hv-01")
                                        .path("runState")
                                        .asText()
                                        .equals("DONE");
                    });
                } catch (AssertionError never) {
                    throw new AssertionError(
                            bench.summary() + Files.readString(stage.directory().resolve("vantage.log")), never);
                }
                until("nothing is left to hand in", () -> list(stage.directory().resolve("kept")) == 0);
                for (String serial : List.of("ES-1", "EG-1")) {
                    assertTrue(List.of("", "1").contains(stage.kept(serial, "seen.phraseChanges")), serial);
                    assertTrue(Bench.refusedLogins(serial).contains(stage.kept(serial, "seen.refusedLogins")), serial);
                }
                assertTrue(
                        stage.sql("select 'open: ' || count(*) from dialogue_step s join dialogue d on d.id = "
                                        + "s.dialogue_id where s.progress = 'OPEN';")
                                .contains("open: 0"),
                        "every step is known of");
                checks(stage, lead, bench);
                lead.ask(
                        stage.url(),
                        "DELETE",
                        "/api/vantages/" + made.path("id").asLong(),
                        null);
                until("it is told that its token counts no more", () -> Files.readString(
                                stage.directory().resolve("vantage.log"))
                        .contains("does not know this token, or it was revoked"));
            } finally {
                vantage.descendants().forEach(ProcessHandle::destroyForcibly);
                vantage.destroyForcibly().waitFor();
            }
        }
    }

    /** What the vantage reaches is looked at from there. */
    private static void checks(Stage stage, Api lead, Bench bench) throws IOException, InterruptedException {
        long unit = bench.unit("ben-hv-01");
        lead.ask(stage.url(), "POST", "/api/bring-ups/1/checks", object(Map.of("units", List.of(unit))));
        until("it is looked at", () -> !lead.ask(stage.url(), "GET", "/api/units/" + unit + "/proof", null)
                .path("place")
                .asText("")
                .isEmpty());
        JsonNode detail = lead.ask(stage.url(), "GET", "/api/units/" + unit + "/proof", null);
        assertEquals("cage-4", detail.path("place").asText());
        assertEquals("HOLDS", detail.path("rungs").path(0).path("standing").asText(), detail::toString);
        assertEquals("HOLDS", detail.path("rungs").path(2).path("standing").asText(), detail::toString);
    }

    private static long list(Path directory) throws IOException {
        try (var files = Files.list(directory)) {
            return files.filter(each -> {
                        try {
                            return Files.size(each) > 0;
                        } catch (IOException e) {
                            return false;
                        }
                    })
                    .count();
        }
    }
}
