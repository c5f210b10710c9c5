package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.microsoft.playwright.APIRequestContext;
import com.microsoft.playwright.APIResponse;
import com.microsoft.playwright.options.RequestOptions;
import java.nio.file.Files;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The server is killed again and again while it sets up twelve machines; in the end every one is right. */
class KillTest {

    private static final int KILLS = 4;

    @Test
    void everyMachineEndsRight() throws Exception {
        Random random = new Random(20261123);
        try (Stage stage = new Stage(Machines.hallFile(Machines.rowB()), 1200);
                Screen screen = new Screen()) {
            screen.signIn(stage.url());
            APIRequestContext api = screen.page.request();
            ready(api, stage.url());
            post(api, stage.url() + "/api/bring-ups/1/setups", Map.of("width", 6));
            int killed = 0;
            while (killed < KILLS) {
                int progress = 2 + killed * 2 + random.nextInt(2);
                Stage.until("work goes on", Duration.ofSeconds(240), () -> steps(api, stage.url()) >= progress * 8);
                stage.killServer();
                killed++;
                stage.startServer();
            }
            Stage.until("all are done or one stopped", Duration.ofSeconds(240), () -> {
                List<String> states = states(api, stage.url());
                return states.contains("STOPPED") || states.stream().allMatch("DONE"::equals);
            });
            assertEquals(java.util.Collections.nCopies(12, "DONE"), states(api, stage.url()), () -> api.get(
                            stage.url() + "/api/bring-ups/1/configure")
                    .text());
            for (String serial : Machines.serials()) {
                String machine = stage.machine(serial);
                assertTrue(machine.contains("\"passwordChanges\":1"), "its password was set once: " + machine);
                assertTrue(machine.contains("\"restarts\":1"), "it moved once: " + machine);
                assertTrue(machine.contains("\"factoryPhraseWorks\":false"), machine);
                assertTrue(machine.contains("\"address\":\"10.40.9.1"), machine);
            }
        }
    }

    private static void ready(APIRequestContext api, String url) throws Exception {
        post(
                api,
                url + "/api/bring-ups",
                Map.of("name", "Row B", "siteCode", "ard", "siteName", "Ardal", "positions", List.of()));
        APIResponse network = api.put(
                url + "/api/bring-ups/1/network",
                RequestOptions.create()
                        .setData(Map.of(
                                "name",
                                "Management",
                                "prefix",
                                "10.40.9.0/24",
                                "gateway",
                                "10.40.9.1",
                                "domain",
                                "ardal.example",
                                "nameServers",
                                List.of("10.40.9.3", "10.40.9.4"),
                                "timeServers",
                                List.of("10.40.9.6", "10.40.9.7", "10.40.9.8"),
                                "ranges",
                                List.of(
                                        Map.of("purpose", "pool", "run", ".101-.180", "note", ""),
                                        Map.of("purpose", "dhcp", "run", ".10-.31", "note", "")))));
        assertEquals(204, network.status(), network.text());
        APIResponse labels = api.post(
                url + "/api/bring-ups/1/labels",
                RequestOptions.create()
                        .setHeader("Content-Type", "text/plain")
                        .setData(Files.readString(Machines.labels())));
        assertEquals(200, labels.status(), labels.text());
        String proposal = api.get(url + "/api/bring-ups/1/proposal").text();
        List<Map<String, Object>> lines = new ArrayList<>();
        var matcher = Pattern.compile("\"unitId\":(\\d+).*?\"address\":\"([^\"]+)\",\"hostName\":\"([^\"]+)\"")
                .matcher(proposal);
        while (matcher.find()) {
            lines.add(Map.of(
                    "unitId",
                    Long.valueOf(matcher.group(1)),
                    "address",
                    matcher.group(2),
                    "hostName",
                    matcher.group(3)));
        }
        assertEquals(12, lines.size(), proposal);
        post(api, url + "/api/bring-ups/1/allocations", Map.of("lines", lines));
    }

    private static void post(APIRequestContext api, String url, Object body) {
        APIResponse answer = api.post(url, RequestOptions.create().setData(body));
        assertTrue(answer.ok(), url + ": " + answer.status() + " " + answer.text());
    }

    private static List<String> states(APIRequestContext api, String url) {
        List<String> states = new ArrayList<>();
        var matcher = Pattern.compile("\"state\":\"([A-Z_]+)\"")
                .matcher(api.get(url + "/api/bring-ups/1/configure").text());
        while (matcher.find()) {
            states.add(matcher.group(1));
        }
        return states;
    }

    /** How many steps all runs together have come. */
    private static int steps(APIRequestContext api, String url) {
        int sum = 0;
        var matcher = Pattern.compile("\"stepNumber\":(\\d+)")
                .matcher(api.get(url + "/api/bring-ups/1/configure").text());
        while (matcher.find()) {
            sum += Integer.parseInt(matcher.group(1));
        }
        return sum;
    }
}
