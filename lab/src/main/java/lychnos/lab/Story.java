package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

/**
 * Begins the work in the demo hall as an engineer would, through the same interface: row A is prepared, placed and started,
 * row B is only announced.
 *
 * <pre>
 * Story SERVER-URL ADDRESS-BASE DIRECTORY-WITH-LABELS
 * </pre>
 */
public final class Story {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final HttpClient http = HttpClient.newHttpClient();
    private final String server;
    private final String base;
    private String cookie = "";

    private Story(String server, String base) {
        this.server = server;
        this.base = base;
    }

    public static void main(String[] args) throws IOException, InterruptedException {
        Story story = new Story(args[0], args[1]);
        story.tell(Path.of(args[2]));
    }

    private void tell(Path directory) throws IOException, InterruptedException {
        send("POST", "/api/session", JSON.createObjectNode().put("login", "rack-one").put("password", "engineer-at-rack-one").toString(), "application/json");
        long rowA = begin("Ardal Hall 2, row A", 4, "R1", "R2");
        begin("Ardal Hall 2, row B", 11, "R3", "R4");
        send("PUT", "/api/bring-ups/" + rowA + "/network", network(8, "Management, row A", 408).toString(), "application/json");
        send("POST", "/api/bring-ups/" + rowA + "/labels", Files.readString(directory.resolve("hall-2-row-a.csv")), "text/plain");
        JsonNode proposal = send("GET", "/api/bring-ups/" + rowA + "/proposal?from=" + base + ".8.101", null, null);
        ObjectNode taking = JSON.createObjectNode().put("pattern", proposal.path("pattern").asText());
        ArrayNode lines = taking.putArray("lines");
        proposal.path("lines").forEach(line -> lines.addObject()
                .put("unitId", line.path("unitId").asLong())
                .put("address", line.path("address").asText())
                .put("hostName", line.path("hostName").asText()));
        send("POST", "/api/bring-ups/" + rowA + "/takings", taking.toString(), "application/json");
        send("POST", "/api/bring-ups/" + rowA + "/rounds", JSON.createObjectNode().put("width", 3).toString(), "application/json");
        send("DELETE", "/api/session", null, null);
    }

    private long begin(String name, int dueInDays, String... racks) throws IOException, InterruptedException {
        ObjectNode request = JSON.createObjectNode()
                .put("name", name)
                .put("siteCode", "ard")
                .put("siteName", "Ardal")
                .put("due", LocalDate.now().plusDays(dueInDays).toString());
        ArrayNode positions = request.putArray("positions");
        for (String rack : racks) {
            for (int unit = 5; unit <= 15; unit += 2) {
                positions.add(rack + " u" + unit);
            }
        }
        return send("POST", "/api/bring-ups", request.toString(), "application/json").path("id").asLong();
    }

    private ObjectNode network(int third, String name, int vlan) {
        String net = base + "." + third + ".";
        ObjectNode network = JSON.createObjectNode()
                .put("name", name)
                .put("prefix", net + "0/24")
                .put("gateway", net + "1")
                .put("vlan", vlan)
                .put("domain", "ardal.example");
        texts(network.putArray("nameServers"), List.of(net + "3", net + "4"));
        texts(network.putArray("timeServers"), List.of(net + "6", net + "7", net + "8"));
        ArrayNode ranges = network.putArray("ranges");
        ranges.addObject().put("purpose", "kept").put("run", net + "2-9").put("note", "routers, time and name servers");
        ranges.addObject().put("purpose", "dhcp").put("run", net + "10-31").put("note", "handed out by DHCP, first contact only");
        ranges.addObject().put("purpose", "pool").put("run", net + "32-223").put("note", "units");
        ranges.addObject().put("purpose", "kept").put("run", net + "240-254").put("note", "kept for the network team");
        return network;
    }

    private static void texts(ArrayNode array, List<String> texts) {
        new ArrayList<>(texts).forEach(array::add);
    }

    private JsonNode send(String method, String path, String body, String type) throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(server + path))
                .method(method, body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        if (type != null) {
            request.header("Content-Type", type);
        }
        if (!cookie.isEmpty()) {
            request.header("Cookie", cookie);
        }
        HttpResponse<String> answer = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        if (answer.statusCode() >= 300) {
            throw new IOException(method + " " + path + ": " + answer.statusCode() + " " + answer.body());
        }
        answer.headers().firstValue("Set-Cookie").ifPresent(value -> cookie = value.split(";", 2)[0]);
        return answer.body().isEmpty() ? JSON.createObjectNode() : JSON.readTree(answer.body());
    }
}
