package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.time.Clock;
import java.time.LocalDate;

/** Notes who takes care of what other teams are asked for: some is done, some is waited for, one thing is overdue. */
final class TeamAsks {

    private static final ObjectMapper JSON = new ObjectMapper();

    private TeamAsks() {}

    static void note(Story person, String bringUp) throws IOException, InterruptedException {
        String own = JSON.createObjectNode()
                .put("title", "access to hall 2 for the night shift")
                .toString();
        person.send("POST", bringUp + "/requests", own, "application/json");
        LocalDate today = LocalDate.now(Clock.systemUTC());
        ArrayNode flows = JSON.createArrayNode();
        for (JsonNode request : person.get(bringUp + "/requests").path("requests")) {
            ObjectNode seen = JSON.createObjectNode()
                    .put("key", request.path("key").asText())
                    .put("version", request.path("version").asInt());
            ArrayNode one = JSON.createArrayNode().add(seen);
            switch (request.path("sort").textValue() == null
                    ? ""
                    : request.path("sort").asText()) {
                case "RELAY" -> send(person, bringUp, one, "DONE", "Mail team", null);
                case "KEY" -> send(person, bringUp, one, "ASKED", "Licence desk", today.minusDays(1));
                case "IMAGE" -> send(person, bringUp, one, "TO_ASK", "Storage team", today.plusDays(5));
                case "" -> send(person, bringUp, one, "DONE", "Hall security", null);
                default -> flows.add(seen);
            }
        }
        send(person, bringUp, flows, "ASKED", "Network team", today.plusDays(9));
    }

    private static void send(Story person, String bringUp, ArrayNode requests, String state, String who, LocalDate due)
            throws IOException, InterruptedException {
        ObjectNode change =
                JSON.createObjectNode().put("state", state).put("person", who).put("due", due == null ? "" : "" + due);
        change.set("requests", requests);
        person.send("PUT", bringUp + "/requests", change.toString(), "application/json");
    }
}
