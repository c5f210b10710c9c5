package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * What a lead has done by the time that somebody comes to look: two machines of row A and the blade chassis of the core
 * are signed as soon as they are proven, with what is still to come. The others wait for the visitor.
 */
public final class LeadStory {

    private static final ObjectMapper JSON = new ObjectMapper();
    private static final int MOST_LOOKS = 300;

    private final Story story;

    private LeadStory(Story story) {
        this.story = story;
    }

    public static void main(String[] args) throws IOException, InterruptedException {
        Story story = new Story(args[0], "");
        story.signIn("hall-lead", "lead-of-the-hall");
        LeadStory lead = new LeadStory(story);
        for (JsonNode bringUp : story.send("GET", "/api/bring-ups", null, null)) {
            long id = bringUp.path("id").asLong();
            if (bringUp.path("name").asText().endsWith("row A")) {
                lead.sign(id, List.of("ard-srv-001-oob", "ard-srv-002-oob"), "");
            } else if (bringUp.path("name").asText().endsWith("core")) {
                lead.sign(id, List.of("ard-bch-1"), "no blades in it yet");
            }
        }
    }

    /** By the name that they have, once they are ready. */
    private void sign(long bringUp, List<String> names, String open) throws IOException, InterruptedException {
        for (int look = 0; look < MOST_LOOKS; look++) {
            JsonNode view = story.send("GET", "/api/bring-ups/" + bringUp + "/handover", null, null);
            ArrayNode units = JSON.createArrayNode();
            for (JsonNode unit : view.path("units")) {
                if (unit.path("state").asText().equals("READY")
                        && names.contains(unit.path("unit").asText())) {
                    units.addObject()
                            .put("unit", unit.path("unitId").asLong())
                            .put("face", unit.path("face").asText());
                }
            }
            if (units.size() == names.size()) {
                if (!open.isEmpty()) {
                    ObjectNode item = JSON.createObjectNode()
                            .put("sort", "open")
                            .put("unit", units.get(0).path("unit").asLong())
                            .put("text", open)
                            .put("reason", "they come with the second delivery")
                            .put("due", LocalDate.now().plusDays(12).toString());
                    story.send("POST", "/api/bring-ups/" + bringUp + "/items", item.toString(), "application/json");
                }
                story.send(
                        "POST",
                        "/api/bring-ups/" + bringUp + "/signatures",
                        JSON.createObjectNode().set("units", units).toString(),
                        "application/json");
                return;
            }
            TimeUnit.SECONDS.sleep(1);
        }
    }
}
