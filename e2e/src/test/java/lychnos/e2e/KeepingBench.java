package lychnos.e2e;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Measures how fast the running server keeps what checks come to: endpoints that are silent are judged at once, so that
 * saving is most of the time.
 */
public final class KeepingBench {

    private final Stage stage;
    private final Api api;
    private long bringUp;

    private KeepingBench(Stage stage) throws Exception {
        this.stage = stage;
        api = new Api(stage.url());
    }

    public static void main(String[] args) throws Exception {
        // behind a router that says nothing
        new ProcessBuilder("ip", "route", "add", "10.42.0.0/16", "via", "10.40.8.1")
                .inheritIO()
                .start()
                .waitFor();
        try (Stage stage = new Stage("", 500, Map.of("LYCHNOS_VANTAGE_HEARS_SILENCE", "true"), List.of())) {
            new KeepingBench(stage).measure(BenchSize.of(5000, 40));
        }
    }

    private JsonNode ask(String method, String path, JsonNode body) throws IOException, InterruptedException {
        return api.ask(stage.url(), method, "/api/bring-ups/" + bringUp + "/" + path, body);
    }

    private void measure(int count) throws Exception {
        ObjectNode begin = Api.JSON
                .createObjectNode()
                .put("name", "Silent")
                .put("siteCode", "ard")
                .put("siteName", "Ardal");
        begin.putArray("positions");
        bringUp =
                api.ask(stage.url(), "POST", "/api/bring-ups", begin).path("id").asLong();
        ask(
                "PUT",
                "network",
                Api.JSON.readTree(
                        """
                {"name":"Management","prefix":"10.42.0.0/16","gateway":"10.42.0.1","vlan":500,
                 "domain":"ardal.example","nameServers":[],"timeServers":[],
                 "ranges":[{"purpose":"pool","run":"10.42.1.0-10.42.250.255","note":""}]}"""));
        StringBuilder labels = new StringBuilder("serial,mac,rack position,model\n");
        for (int i = 0; i < count; i++) {
            labels.append(String.format(
                    Locale.ROOT, "SI-%d,02:4c:59:f0:%02x:%02x,R%d u%d,C4%n", i, i / 256, i % 256, i / 40, 1 + i % 40));
        }
        if (api.text(stage.url(), "/api/bring-ups/" + bringUp + "/labels", labels.toString())
                        .statusCode()
                != 200) {
            throw new IllegalStateException("the labels were not taken");
        }
        ObjectNode taking = Api.JSON.createObjectNode();
        ArrayNode lines = taking.putArray("lines");
        ask("GET", "proposal", null).path("lines").forEach(lines::add);
        ask("POST", "allocations", taking);
        System.out.println();
        for (String what : List.of("for the first time", "again, with nothing new")) {
            long start = System.nanoTime();
            ask("POST", "checks", Api.JSON.createObjectNode());
            int left = count;
            while (left > 0) {
                Thread.sleep(100);
                left = Integer.parseInt(
                        stage.sql("select 'left ' || count(*) from run where purpose = 'prove' and state in "
                                        + "('WAITING', 'RUNNING');")
                                .replaceAll("(?s).*left (\\d+).*", "$1"));
            }
            double seconds = (System.nanoTime() - start) / 1e9;
            System.out.printf(
                    Locale.ROOT,
                    "%,d silent endpoints judged and kept %s: %.1f s, %.0f a second%n",
                    count,
                    what,
                    seconds,
                    count / seconds);
        }
        System.out.printf(Locale.ROOT, "server after that: %d MB resident%n", stage.residentMegabytes());
    }
}
