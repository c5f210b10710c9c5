package lychnos.e2e;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A pair of interconnects, a controller and a host on console lines: prepared and placed through the interface without
 * a browser.
 */
final class Bench {

    /** Reasons to hold that a person passes by saying so. */

    /** Model, serial, MAC address, port, group, place, address from DHCP; habits follow. */
    static final String HALL =
            """
            orrel EO-1 02:4c:59:e6:00:01 6101 one left - %s
            orrel EO-2 02:4c:59:e6:00:02 6102 one right - %s
            sallow ES-1 02:4c:59:e6:00:03 6103 two 1 - -
            greenup EG-1 02:4c:59:e6:00:04 6104 three 1 10.40.16.24 -
            """;

    private static final String FACTS =
            """
            unit,member,serial,MAC address,location,console line,tunnel endpoints,control VLAN,\
            switches planned,memory,disk,nodes in the cluster,fabric name
            ben-fic-1,left,EO-1,02:4c:59:e6:00:01,R1 u40,6101
            ben-fic-1,right,EO-2,02:4c:59:e6:00:02,R1 u41,6102
            ben-fdc-1,controller 1,ES-1,02:4c:59:e6:00:03,R1 u8,6103,10.45.0.0/16,3900,6,,,1,ben-fabric
            ben-hv-01,,EG-1,02:4c:59:e6:00:04,R1 u12,6104,,,,256 GiB,2 TiB
            """;

    private final Api api;
    private final String server;
    final Map<String, Long> units = new LinkedHashMap<>();

    Bench(String server) throws IOException, InterruptedException {
        this.server = server;
        api = new Api(server);
    }

    private static ObjectNode object(Map<String, ?> values) {
        return Api.JSON.valueToTree(values);
    }

    private JsonNode ask(String method, String path, Map<String, ?> body) throws IOException, InterruptedException {
        return api.ask(server, method, path, body == null ? null : object(body));
    }

    private void thing(String sort, String name, Map<String, String> values) throws IOException, InterruptedException {
        new Api(server, "hall-lead", "lead-of-the-hall")
                .ask(
                        server,
                        "PUT",
                        "/api/bring-ups/1/site-resources",
                        object(Map.of("sort", sort, "name", name, "values", values)));
    }

    /** Everything before the console: ground, facts, addresses, and names at the name server. */
    Bench prepare(String pool) throws IOException, InterruptedException {
        return ground(pool).rest();
    }

    /** The networks alone. */
    Bench ground(String pool) throws IOException, InterruptedException {
        ask(
                "POST",
                "/api/bring-ups",
                Map.of("name", "Bench", "siteCode", "ben", "siteName", "Ardal", "positions", List.of()));
        Map<String, Object> network = new HashMap<>(Map.of(
                "name", "Management", "prefix", "10.40.16.0/24", "gateway", "10.40.16.1", "domain", "ardal.example"));
        network.put("nameServers", List.of("10.40.8.3", "10.40.8.4"));
        network.put("timeServers", List.of("10.40.8.6", "10.40.8.7", "10.40.8.8"));
        network.put("ranges", List.of(Map.of("purpose", "pool", "run", pool, "note", "")));
        ask("PUT", "/api/bring-ups/1/network", network);
        return this;
    }

    /** Everything else. */
    Bench rest() throws IOException, InterruptedException {
        thing("lines", "lines-1", Map.of("address", Stage.LINES, "protocol", "rfc2217", "ports", "6101-6199"));
        thing(
                "policy",
                "licence-terms",
                Map.of(
                        "answer",
                        "yes",
                        "reason",
                        "bought with the hall",
                        "who",
                        "lead of the hall",
                        "when",
                        "2026-11-02"));
        thing(
                "domain",
                "ardal.example",
                Map.of(
                        "primary",
                        "10.40.8.3",
                        "key-name",
                        System.getenv("LYCHNOS_TEST_NAME_KEY_NAME"),
                        "key",
                        System.getenv("LYCHNOS_TEST_NAME_KEY"),
                        "reverse-zones",
                        "16.40.10.in-addr.arpa"));
        announce("interconnect-pair", 2);
        announce("fabric-controller", 1);
        announce("hypervisor-host", 1);
        HttpResponse<String> facts = api.text(server, "/api/bring-ups/1/facts.csv", FACTS);
        if (facts.statusCode() != 200 || facts.body().contains("\"line\":2")) {
            throw new IOException(facts.body());
        }
        for (long unit : units.values()) {
            JsonNode fits =
                    ask("GET", "/api/bring-ups/1/fits?unit=" + unit, null).path("fits");
            ObjectNode taking = Api.JSON.createObjectNode();
            taking.set("lines", fits.path(0).path("lines"));
            taking.set("growth", fits.path(0).path("growth"));
            api.ask(server, "POST", "/api/bring-ups/1/allocations", taking);
        }
        ask("POST", "/api/bring-ups/1/record-pushes", Map.of());
        return this;
    }

    private void announce(String kind, int members) throws IOException, InterruptedException {
        long id = ask("POST", "/api/bring-ups/1/units", Map.of("kind", kind, "count", 1, "members", members))
                .path(0)
                .asLong();
        units.put(bench(id).path("name").asText(), id);
    }

    long unit(String name) {
        return units.get(name);
    }

    void begin(String unit, String mode) throws IOException, InterruptedException {
        ask("POST", "/api/units/" + unit(unit) + "/console", Map.of("mode", mode));
    }

    void putAway(String unit) throws IOException, InterruptedException {
        ask("POST", "/api/units/" + unit(unit) + "/console/close", Map.of());
    }

    JsonNode bench(String unit) throws IOException, InterruptedException {
        return bench(unit(unit));
    }

    /** Whether the first member waits for this. */
    boolean waits(String unit, String why) {
        try {
            return bench(unit)
                    .path("members")
                    .path(0)
                    .path("hold")
                    .path("why")
                    .asText()
                    .equals(why);
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    private JsonNode bench(long unit) throws IOException, InterruptedException {
        return ask("GET", "/api/units/" + unit + "/bench", null);
    }

    /**
     * Says yes once to everything on a unit that waits for it; gives why something waits that saying yes does not help.
     */
    List<String> sayYes(String unit) throws IOException, InterruptedException {
        List<String> stuck = new ArrayList<>();
        for (JsonNode member : bench(unit).path("members")) {
            String why = member.path("hold").path("why").asText();
            if (member.path("state").asText().equals("HELD")
                    && member.path("hold").path("passable").asBoolean()
                    && !why.equals("USED")) {
                api.send(
                        server,
                        "POST",
                        "/api/dialogues/" + member.path("dialogueId").asLong() + "/decision",
                        object(Map.of("typed", member.path("hold").path("typed").asText())));
            } else if (member.path("state").asText().equals("HELD")
                    && !why.equals("PREREQUISITE")
                    && !why.equals("PEER")) {
                stuck.add(member.path("label").asText() + ": "
                        + member.path("hold").path("sentence").asText());
            }
        }
        return stuck;
    }

    /**
     * Where what a machine asked was lost in a break, draws it again, as a person would with a key that answers
     * nothing.
     */
    void drawAgain(String unit) throws IOException, InterruptedException {
        for (JsonNode member : bench(unit).path("members")) {
            if (member.path("hold").path("why").asText().equals("SILENT")) {
                api.listen(
                        server,
                        "/api/lines/" + member.path("dialogueId").asLong(),
                        Api.JSON.createObjectNode().put("k", "\f").toString(),
                        "\"s\"");
            }
        }
    }

    /** Where every member stands, for a message. */
    String summary() throws IOException, InterruptedException {
        StringBuilder summary = new StringBuilder();
        for (Map.Entry<String, Long> unit : units.entrySet()) {
            JsonNode bench = bench(unit.getValue());
            summary.append(unit.getKey())
                    .append(' ')
                    .append(bench.path("runState").asText())
                    .append('\n');
            for (JsonNode member : bench.path("members")) {
                summary.append("  ")
                        .append(member.path("label").asText())
                        .append(' ')
                        .append(member.path("state").asText())
                        .append(' ')
                        .append(member.path("hold"))
                        .append(' ')
                        .append(member.path("note").asText());
                for (JsonNode step : member.path("steps")) {
                    if (!step.path("progress").asText().equals("DONE")) {
                        summary.append("\n    ")
                                .append(step.path("progress").asText())
                                .append(' ')
                                .append(step.path("title").asText());
                    }
                }
                summary.append('\n');
            }
        }
        return summary.toString();
    }

    /** How many steps of all members of all units are done. */
    /** The factory login of the host, which is tried again where a break has hidden its refusal. */
    static List<String> refusedLogins(String serial) {
        return serial.equals("EG-1") ? List.of("1", "2") : List.of("");
    }

    int done() throws IOException, InterruptedException {
        int done = 0;
        for (long unit : units.values()) {
            for (JsonNode member : bench(unit).path("members")) {
                for (JsonNode step : member.path("steps")) {
                    done += step.path("progress").asText().equals("DONE") ? 1 : 0;
                }
            }
        }
        return done;
    }

    /** How many units are set up. */
    int set() throws IOException, InterruptedException {
        int set = 0;
        for (long unit : units.values()) {
            set += bench(unit).path("runState").asText().equals("DONE") ? 1 : 0;
        }
        return set;
    }

    /** How many units have stopped with a sentence that a person must read. */
    int stuck() throws IOException, InterruptedException {
        int stuck = 0;
        for (String unit : units.keySet()) {
            stuck += sayYes(unit).stream().anyMatch(sentence -> sentence.length() > 20) ? 1 : 0;
        }
        return stuck;
    }

    ArrayNode reach(String unit) throws IOException, InterruptedException {
        return (ArrayNode) ask("POST", "/api/units/" + unit(unit) + "/console/reach", Map.of());
    }
}
