package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.microsoft.playwright.assertions.LocatorAssertions;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;

/** The database away, its disk full: what is said, and that nothing is lost that was acknowledged. */
class AccidentsTest {

    private static final Duration LONG = Duration.ofSeconds(240);
    private static final List<String> OPTIONS = List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC");
    /** Longer than what a server holds is left to it. */
    private static final Duration AWAY = Duration.ofSeconds(7);

    private static final int MACHINES = 3;

    private Stage stage;
    private Api api;
    private long unit;

    /** Three servers with labels and addresses, and a host whose facts are typed. */
    private void prepare() throws Exception {
        api = new Api(stage.url());
        ask(
                "POST",
                "/api/bring-ups",
                Api.JSON.readTree("{\"name\":\"Row B\",\"siteCode\":\"ard\",\"siteName\":\"Ardal\",\"positions\":[]}"));
        ask(
                "PUT",
                "/api/bring-ups/1/network",
                Api.JSON.readTree(
                        """
                {"name":"Management","prefix":"10.40.9.0/24","gateway":"10.40.9.1",
                 "domain":"ardal.example","nameServers":["10.40.9.3","10.40.9.4"],
                 "timeServers":["10.40.9.6","10.40.9.7","10.40.9.8"],
                 "ranges":[{"purpose":"pool","run":".101-.180","note":""},
                   {"purpose":"dhcp","run":".10-.31","note":""}]}"""));
        List<String> labels = Files.readAllLines(Machines.labels());
        assertEquals(
                200,
                api.text(
                                stage.url(),
                                "/api/bring-ups/1/labels",
                                String.join("\n", labels.subList(0, MACHINES + 1)) + "\n")
                        .statusCode());
        ObjectNode taking = Api.JSON.createObjectNode();
        ArrayNode lines = taking.putArray("lines");
        ask("GET", "/api/bring-ups/1/proposal", null).path("lines").forEach(lines::add);
        ask("POST", "/api/bring-ups/1/allocations", taking);
        unit = ask(
                        "POST",
                        "/api/bring-ups/1/units",
                        Api.JSON.readTree("{\"kind\":\"hypervisor-host\",\"count\":1,\"members\":1}"))
                .path(0)
                .asLong();
    }

    private JsonNode ask(String method, String path, JsonNode body) throws IOException, InterruptedException {
        return api.ask(stage.url(), method, path, body);
    }

    private HttpResponse<String> send(String method, String path, JsonNode body) {
        try {
            return api.send(stage.url(), method, path, body);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** Types where the host stands: each time at another height. */
    private HttpResponse<String> type(int number) {
        ObjectNode cells = Api.JSON.createObjectNode();
        cells.putArray("cells")
                .addObject()
                .put("unitId", unit)
                .put("member", "")
                .put("name", "location")
                .put("value", "R" + (1 + number / 40) + " u" + (1 + number % 40));
        return send("PUT", "/api/bring-ups/1/facts", cells);
    }

    /** Which of them is shown now. */
    private int typed() {
        String position = json(send("GET", "/api/units/" + unit + "/bench", null))
                .path("position")
                .asText();
        String[] part = position.split(" u");
        return (Integer.parseInt(part[0].substring(1)) - 1) * 40 + Integer.parseInt(part[1]) - 1;
    }

    private static JsonNode json(HttpResponse<String> answer) {
        try {
            return Api.JSON.readTree(answer.body());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private JsonNode lanes() {
        return json(send("GET", "/api/bring-ups/1/configure", null)).path("lanes");
    }

    /** How many machines are in a state now. */
    private int in(String state) {
        int in = 0;
        for (JsonNode lane : lanes()) {
            in += lane.path("state").asText().equals(state) ? 1 : 0;
        }
        return in;
    }

    private void everyMachineWasSetOnce() throws IOException {
        for (String serial : Machines.serials().subList(0, MACHINES)) {
            String machine = stage.machine(serial);
            assertTrue(
                    machine.contains("\"passwordChanges\":1")
                            && machine.contains("\"restarts\":1")
                            && machine.contains("\"factoryPhraseWorks\":false"),
                    machine);
        }
    }

    private static BooleanSupplier lasts(Duration time, BooleanSupplier holds) {
        long end = System.nanoTime() + time.toNanos();
        return () -> {
            assertTrue(holds.getAsBoolean(), "it lasts");
            return System.nanoTime() > end;
        };
    }

    @Test
    void aDatabaseThatIsAwayIsSaidAndWaitedFor() throws Exception {
        try (OwnDatabase database = new OwnDatabase("away", 400);
                Stage hall = new Stage(
                        Machines.hallFile(Machines.rowB().subList(0, MACHINES)), 1500, database.settings(), OPTIONS);
                Screen screen = new Screen()) {
            stage = hall;
            prepare();
            screen.signIn(stage.url());
            screen.page.navigate(stage.url() + "/b/1");
            assertThat(screen.text("0 proven").first()).isVisible();
            ask("POST", "/api/bring-ups/1/setups", Api.JSON.createObjectNode().put("width", 3));
            AtomicInteger last = new AtomicInteger(-1);
            Stage.until("a machine is at work, and facts are typed meanwhile", LONG, () -> {
                if (type(last.get() + 1).statusCode() == 200) {
                    last.incrementAndGet();
                }
                return last.get() >= 8 && in("RUNNING") > 0;
            });
            database.stop();
            HttpResponse<String> refused = type(last.get() + 1);
            assertEquals(503, refused.statusCode(), refused::body);
            assertTrue(refused.body().contains("cannot reach its database"), refused::body);
            assertEquals(503, send("GET", "/api/bring-ups/1/board", null).statusCode(), "nobody is signed out by it");
            screen.stage("1 Prepare");
            assertThat(screen.text("cannot reach its database").first()).isVisible();
            Stage.until(
                    "it stays away for longer than a lease",
                    LONG,
                    lasts(AWAY, () -> type(last.get() + 1).statusCode() == 503));
            database.start();
            Stage.until(
                    "facts are taken again",
                    LONG,
                    () -> send("GET", "/api/bring-ups/1/prepare", null).statusCode() == 200);
            assertTrue(typed() >= last.get(), () -> "what was acknowledged is kept: " + last.get() + ", " + typed());
            // the page has reconnected
            assertThat(screen.text("Fact sheet").first())
                    .isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(20_000));
            Stage.until("every machine is set up", LONG, () -> {
                assertEquals(0, in("STOPPED"), () -> lanes().toString());
                return in("DONE") == MACHINES;
            });
            everyMachineWasSetOnce();
        }
    }

    @Test
    void aDiskThatIsFullIsSaidAndNothingHalfIsKept() throws Exception {
        try (OwnDatabase database = new OwnDatabase("full", 260);
                Stage hall = new Stage("", 1500, database.settings(), OPTIONS)) {
            stage = hall;
            api = new Api(stage.url());
            ask(
                    "POST",
                    "/api/bring-ups",
                    Api.JSON.readTree(
                            "{\"name\":\"Row B\",\"siteCode\":\"ard\",\"siteName\":\"Ardal\",\"positions\":[]}"));
            JsonNode many = Api.JSON.readTree("{\"kind\":\"hypervisor-host\",\"count\":800,\"members\":1}");
            assertEquals(800, ask("POST", "/api/bring-ups/1/units", many).size());
            database.fill();
            HttpResponse<String> refused = send("POST", "/api/bring-ups/1/units", many);
            assertEquals(503, refused.statusCode(), refused::body);
            assertTrue(refused.body().contains("disk of the database is full"), refused::body);
            assertEquals(
                    800,
                    json(send("GET", "/api/bring-ups/1/board", null))
                            .path("units")
                            .asInt(),
                    "reading goes on, and nothing half is there");
            database.makeRoom();
            assertEquals(800, ask("POST", "/api/bring-ups/1/units", many).size());
            assertEquals(
                    1600,
                    json(send("GET", "/api/bring-ups/1/board", null))
                            .path("units")
                            .asInt());
        }
    }
}
