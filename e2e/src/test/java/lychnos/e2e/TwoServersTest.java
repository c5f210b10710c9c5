package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

/** Two servers on one database give out the addresses of one pool at the same time. */
class TwoServersTest {

    private static final int UNITS = 40;

    private final AtomicInteger races = new AtomicInteger();

    @Test
    void neverGiveOneAddressTwice() throws Exception {
        try (Stage stage = new Stage(Machines.hallFile(Machines.rowB()), 500)) {
            List<String> servers = List.of(stage.url(), stage.startSecondServer());
            Api api = new Api(servers.get(0));
            ObjectNode bringUp = Api.JSON
                    .createObjectNode()
                    .put("name", "Row B")
                    .put("siteCode", "two")
                    .put("siteName", "Ardal");
            for (int i = 1; i <= UNITS; i++) {
                bringUp.withArray("positions").add("R1 u" + i);
            }
            api.ask(servers.get(0), "POST", "/api/bring-ups", bringUp);
            api.ask(
                    servers.get(1),
                    "PUT",
                    "/api/bring-ups/1/network",
                    Api.JSON.readTree(
                            """
                    {"name":"Management","prefix":"10.40.9.0/24","gateway":"10.40.9.1",
                     "domain":"ardal.example","nameServers":[],"timeServers":[],
                     "ranges":[{"purpose":"pool","run":".101-.140","note":""}]}"""));
            ExecutorService people = Executors.newFixedThreadPool(8);
            List<Callable<Integer>> work = new ArrayList<>();
            for (int person = 0; person < 8; person++) {
                String server = servers.get(person % 2);
                work.add(() -> takeOneByOne(server, api));
            }
            int taken = 0;
            for (Future<Integer> person : people.invokeAll(work)) {
                taken += person.get();
            }
            people.shutdown();
            assertEquals(UNITS, taken);
            Set<String> addresses = new HashSet<>();
            Set<Long> units = new HashSet<>();
            for (JsonNode seat : api.ask(servers.get(1), "GET", "/api/bring-ups/1/ribbon", null)
                    .path("seats")) {
                assertTrue(addresses.add(seat.path("address").asText()), seat.toString());
                assertTrue(units.add(seat.path("unitId").asLong()), seat.toString());
            }
            assertEquals(UNITS, addresses.size());
            assertTrue(races.get() > 0, "they never met: the test shows nothing");
        }
    }

    /** A line belongs to one server; on the other one it is watched. */
    @Test
    void aLineThatTheOtherServerHoldsIsWatchedAndNotTypedAt() throws Exception {
        try (Stage stage = Stage.ofConsoles(Bench.HALL.formatted("-", "-"), 500)) {
            List<String> servers = List.of(stage.url(), stage.startSecondServer());
            Bench bench = new Bench(stage.url()).prepare(".180-.199");
            bench.begin("ben-fic-1", "ask");
            Stage.until("it asks", Duration.ofSeconds(30), () -> bench.waits("ben-fic-1", "NEXT"));
            long dialogue = bench.bench("ben-fic-1")
                    .path("members")
                    .path(0)
                    .path("dialogueId")
                    .asLong();
            Api api = new Api(stage.url());
            int watched = 0;
            for (String server : servers) {
                String heard = api.listen(server, "/api/lines/" + dialogue, "{\"k\":\"\"}", "\"state\":\"HELD\"");
                assertTrue(heard.contains("ORREL fabric interconnect"), heard);
                boolean far = heard.contains("Another server holds this line");
                watched += far ? 1 : 0;
                int status = api.send(
                                server,
                                "POST",
                                "/api/dialogues/" + dialogue + "/decision",
                                Api.JSON.createObjectNode().put("typed", ""))
                        .statusCode();
                assertEquals(far ? 409 : 204, status, server);
            }
            assertEquals(1, watched);
        }
    }

    /** A vantage dials in to one of them; whatever is asked for at the other one is done where the way is. */
    @Test
    void whatAVantageReachesIsDoneByTheServerThatItIsLinkedTo() throws Exception {
        try (Stage stage = new Stage(Machines.hallFile(Machines.rowB()), 500)) {
            String other = stage.startSecondServer();
            Api lead = new Api(stage.url(), "hall-lead", "lead-of-the-hall");
            ObjectNode begin = Api.JSON
                    .createObjectNode()
                    .put("name", "Row B")
                    .put("siteCode", "two")
                    .put("siteName", "Ardal");
            begin.putArray("positions");
            lead.ask(stage.url(), "POST", "/api/bring-ups", begin);
            lead.ask(
                    stage.url(),
                    "PUT",
                    "/api/bring-ups/1/network",
                    Api.JSON.readTree(
                            """
                    {"name":"Management","prefix":"10.40.9.0/24","gateway":"10.40.9.1",
                     "domain":"ardal.example","nameServers":[],"timeServers":[],
                     "ranges":[{"purpose":"pool","run":".101-.140","note":""}]}"""));
            assertEquals(
                    200,
                    lead.text(stage.url(), "/api/bring-ups/1/labels", Files.readString(Machines.labels()))
                            .statusCode());
            ObjectNode taking = Api.JSON.createObjectNode();
            lead.ask(stage.url(), "GET", "/api/bring-ups/1/proposal", null)
                    .path("lines")
                    .forEach(taking.putArray("lines")::add);
            lead.ask(stage.url(), "POST", "/api/bring-ups/1/allocations", taking);
            JsonNode made = lead.ask(
                    stage.url(),
                    "POST",
                    "/api/vantages",
                    Api.JSON.createObjectNode().put("name", "cage-4"));
            ObjectNode networks = Api.JSON.createObjectNode();
            lead.ask(stage.url(), "GET", "/api/vantages/networks", null).forEach(each -> networks.withArray("networks")
                    .add(each.path("id").asLong()));
            lead.ask(stage.url(), "PUT", "/api/vantages/" + made.path("id").asLong() + "/networks", networks);
            Process vantage = stage.vantage(stage.url(), made.path("token").asText());
            try {
                for (String server : List.of(stage.url(), other)) {
                    Stage.until(
                            "every server knows that it is linked", Duration.ofSeconds(60), () -> linked(lead, server));
                }
                for (int round = 0; round < 3; round++) {
                    lead.ask(other, "POST", "/api/bring-ups/1/checks", Api.JSON.createObjectNode());
                    Stage.until("all are looked at", Duration.ofSeconds(90), () -> left(stage)
                            .contains("left: 0"));
                }
                assertTrue(
                        stage.sql("select 'places: ' || string_agg(distinct place, ', ') || ' ' || count(*) "
                                        + "from proof;")
                                .contains("places: cage-4 12"),
                        () -> left(stage));
            } finally {
                vantage.descendants().forEach(ProcessHandle::destroyForcibly);
                vantage.destroyForcibly().waitFor();
            }
        }
    }

    private static boolean linked(Api lead, String server) {
        return lead.look(server, "/api/vantages").path(0).path("linked").asBoolean();
    }

    private static String left(Stage stage) {
        try {
            return stage.sql("select 'left: ' || count(*) from run where purpose = 'prove' and state in ('WAITING', "
                    + "'RUNNING');");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Takes the first that is proposed, again and again; who is too late looks again. */
    private int takeOneByOne(String server, Api api) throws IOException, InterruptedException {
        int taken = 0;
        while (true) {
            JsonNode first = api.ask(server, "GET", "/api/bring-ups/1/proposal", null)
                    .path("lines")
                    .path(0);
            if (first.isMissingNode()) {
                return taken;
            }
            ObjectNode taking = Api.JSON.createObjectNode();
            taking.putArray("lines").add(first);
            int status = api.send(server, "POST", "/api/bring-ups/1/allocations", taking)
                    .statusCode();
            assertTrue(status == 200 || status == 409, "answered " + status);
            taken += status == 200 ? 1 : 0;
            races.addAndGet(status == 409 ? 1 : 0);
        }
    }
}
