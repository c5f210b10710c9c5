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
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;

/**
 * Begins the work in the demo hall as an engineer would, through the same interface: row A is prepared, placed and
 * started, the core has units of every kind in different states, row B is only announced.
 *
 * <pre>
 * Story SERVER-URL ADDRESS-BASE DIRECTORY-WITH-LABELS KEY-NAME KEY
 * </pre>
 */
public final class Story {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final HttpClient http = HttpClient.newHttpClient();
    private final String server;
    private final String base;
    private String cookie = "";

    Story(String server, String base) {
        this.server = server;
        this.base = base;
    }

    public static void main(String[] args) throws IOException, InterruptedException {
        Story story = new Story(args[0], args[1]);
        story.tell(Path.of(args[2]), args[3], args[4]);
    }

    private void tell(Path directory, String keyName, String key) throws IOException, InterruptedException {
        signIn();
        long rowA = begin("Ardal Hall 2, row A", 4, "R1 5", "R2 5");
        begin("Ardal Hall 2, row B", 11, "R3 5", "R1 17");
        long core = begin("Ardal Hall 2, core", 9);
        CoreStory other = new CoreStory(this, base, core);
        other.ground(keyName, key);
        send(
                "PUT",
                "/api/bring-ups/" + rowA + "/network",
                network(8, "Management, row A", 408).toString(),
                "application/json");
        send(
                "POST",
                "/api/bring-ups/" + rowA + "/labels",
                Files.readString(directory.resolve("hall-2-row-a.csv")),
                "text/plain");
        JsonNode proposal = send("GET", "/api/bring-ups/" + rowA + "/proposal?from=" + base + ".8.101", null, null);
        take(rowA, proposal);
        if (base.equals("10.40")) {
            send("POST", "/api/bring-ups/" + rowA + "/record-pushes", "{}", "application/json");
        }
        send(
                "POST",
                "/api/bring-ups/" + rowA + "/setups",
                JSON.createObjectNode().put("width", 3).toString(),
                "application/json");
        send(
                "PUT",
                "/api/bring-ups/" + rowA + "/checks/pace",
                JSON.createObjectNode().put("minutes", 1).toString(),
                "application/json");
        other.tell(Files.readString(directory.resolve("core-facts.csv")));
        send("DELETE", "/api/session", null, null);
    }

    void signIn() throws IOException, InterruptedException {
        signIn("rack-one", "engineer-at-rack-one");
    }

    void signIn(String login, String password) throws IOException, InterruptedException {
        send(
                "POST",
                "/api/session",
                JSON.createObjectNode()
                        .put("login", login)
                        .put("password", password)
                        .toString(),
                "application/json");
    }

    /** Something that is sent. */
    interface Sent {
        void send() throws IOException, InterruptedException;
    }

    /** Sends something as the lead, and goes on as before. */
    void asLead(Sent what) throws IOException, InterruptedException {
        String before = cookie;
        cookie = "";
        signIn("hall-lead", "lead-of-the-hall");
        what.send();
        send("DELETE", "/api/session", null, null);
        cookie = before;
    }

    /** Takes everything that is proposed. */
    void take(long bringUp, JsonNode proposal) throws IOException, InterruptedException {
        ObjectNode taking = JSON.createObjectNode();
        taking.set("lines", proposal.path("lines"));
        taking.set("growth", proposal.path("growth"));
        send("POST", "/api/bring-ups/" + bringUp + "/allocations", JSON.writeValueAsString(taking), "application/json");
    }

    /** @param rows of six machines each, two height units apart: the rack, and where the lowest is */
    long begin(String name, int dueInDays, String... rows) throws IOException, InterruptedException {
        ObjectNode request = JSON.createObjectNode()
                .put("name", name)
                .put("siteCode", "ard")
                .put("siteName", "Ardal")
                .put("due", LocalDate.now().plusDays(dueInDays).toString());
        ArrayNode positions = request.putArray("positions");
        for (String row : rows) {
            String[] word = row.split(" ");
            for (int i = 0; i < 6; i++) {
                positions.add(word[0] + " u" + (Integer.parseInt(word[1]) + 2 * i));
            }
        }
        return send("POST", "/api/bring-ups", request.toString(), "application/json")
                .path("id")
                .asLong();
    }

    ObjectNode network(int third, String name, int vlan) {
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
        ranges.addObject()
                .put("purpose", "dhcp")
                .put("run", net + "10-31")
                .put("note", "DHCP range, first contact only");
        ranges.addObject().put("purpose", "pool").put("run", net + "32-223").put("note", "units");
        ranges.addObject()
                .put("purpose", "kept")
                .put("run", net + "240-254")
                .put("note", "reserved for the network team");
        return network;
    }

    private static void texts(ArrayNode array, List<String> texts) {
        new ArrayList<>(texts).forEach(array::add);
    }

    JsonNode get(String path) throws IOException, InterruptedException {
        return send("GET", path, null, null);
    }

    JsonNode post(String path, JsonNode body) throws IOException, InterruptedException {
        return send("POST", path, body.toString(), "application/json");
    }

    JsonNode send(String method, String path, String body, String type) throws IOException, InterruptedException {
        HttpResponse<byte[]> answer = exchange(method, path, body, type);
        String text = new String(answer.body(), StandardCharsets.UTF_8);
        return text.startsWith("{") || text.startsWith("[") ? JSON.readTree(text) : JSON.createObjectNode();
    }

    /** The body as it came, of an answer that is neither refused nor amiss. */
    byte[] bytes(String method, String path, String body) throws IOException, InterruptedException {
        return exchange(method, path, body, "application/json").body();
    }

    /** A request that the server has refused. */
    static final class Refused extends IOException {
        private static final long serialVersionUID = 1;

        /** As of the answer. */
        final int status;

        Refused(int status, String message) {
            super(message);
            this.status = status;
        }
    }

    private HttpResponse<byte[]> exchange(String method, String path, String body, String type)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(server + path))
                .method(
                        method,
                        body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        if (type != null) {
            request.header("Content-Type", type);
        }
        if (!cookie.isEmpty()) {
            request.header("Cookie", cookie);
        }
        HttpResponse<byte[]> answer = http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
        if (answer.statusCode() >= 300) {
            throw new Refused(
                    answer.statusCode(),
                    method + " " + path + ": " + answer.statusCode() + " "
                            + new String(answer.body(), StandardCharsets.UTF_8));
        }
        answer.headers().firstValue("Set-Cookie").ifPresent(value -> cookie = value.split(";", 2)[0]);
        return answer;
    }
}
