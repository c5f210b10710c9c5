package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.Set;
import java.util.concurrent.TimeUnit;

/**
 * What goes on at the consoles of the demo hall when somebody comes to look: a host and a blade chassis are set up to their end by
 * somebody who says yes to everything, an array has come to a page that its mail relay takes amiss, a store for backups has its controllers set and
 * waits at a name that can never be changed, and a pair of interconnects stands at the question after its log-in.
 */
public final class ConsoleStory {

    private static final ObjectMapper JSON = new ObjectMapper();
    private static final Set<String> PASSED = Set.of("NEXT", "RESTARTS", "PERMANENT", "TERMS");
    private static final long PAUSE_MILLIS = 400;
    private static final int MOST_LOOKS = 600;
    private static final int ANSWERS_OF_THE_PAIR = 6;
    /** Its restart, and the layout of its pool; it comes as far as the page of which its relay will have none. */
    private static final int ANSWERS_OF_THE_ARRAY = 2;

    private final Story story;

    private ConsoleStory(Story story) {
        this.story = story;
    }

    public static void main(String[] args) throws IOException, InterruptedException {
        Story story = new Story(args[0], "");
        story.signIn();
        new ConsoleStory(story).tell();
    }

    private void tell() throws IOException, InterruptedException {
        for (JsonNode bringUp : story.send("GET", "/api/bring-ups", null, null)) {
            for (JsonNode unit : story.send("GET", "/api/bring-ups/" + bringUp.path("id").asLong() + "/lanes", null, null).path("startable")) {
                long id = unit.path("unitId").asLong();
                if (unit.path("name").asText().equals("ard-hv-01") || unit.path("name").asText().equals("ard-bch-1")) {
                    begin(id, "run");
                } else if (unit.path("name").asText().equals("ard-blk-1") || unit.path("name").asText().equals("ard-obj-1")) {
                    begin(id, "run");
                } else if (unit.path("name").asText().equals("ard-fic-1")) {
                    begin(id, "ask");
                    follow(id, ANSWERS_OF_THE_PAIR);
                }
            }
            for (JsonNode lane : story.send("GET", "/api/bring-ups/" + bringUp.path("id").asLong() + "/lanes", null, null).path("lanes")) {
                if (lane.path("name").asText().startsWith("ard-hv-01") || lane.path("name").asText().equals("ard-bch-1 bay 1")) {
                    follow(lane.path("unitId").asLong(), Integer.MAX_VALUE);
                } else if (lane.path("name").asText().equals("ard-blk-1 controller a")) {
                    follow(lane.path("unitId").asLong(), ANSWERS_OF_THE_ARRAY);
                }
            }
        }
    }

    /** Where a finding stands in a unit's way, as without name servers, the others begin all the same. */
    private void begin(long unit, String mode) throws InterruptedException {
        try {
            send("/api/units/" + unit + "/console", JSON.createObjectNode().put("mode", mode));
        } catch (IOException refused) {
            System.err.println("not begun: " + refused.getMessage());
        }
    }

    private void send(String path, ObjectNode body) throws IOException, InterruptedException {
        story.send("POST", path, body.toString(), "application/json");
    }

    /** Says yes so many times, or until it is done. */
    private void follow(long unit, int times) throws IOException, InterruptedException {
        int passed = 0;
        for (int look = 0; look < MOST_LOOKS && passed < times; look++) {
            JsonNode bench = story.send("GET", "/api/units/" + unit + "/bench", null, null);
            if (bench.path("runState").asText().equals("DONE")) {
                return;
            }
            for (JsonNode member : bench.path("members")) {
                if (passed < times && member.path("state").asText().equals("HELD") && PASSED.contains(member.path("hold").path("why").asText())) {
                    send("/api/dialogues/" + member.path("dialogueId").asLong() + "/go-on", JSON.createObjectNode().put("typed", member.path("hold").path("typed").asText()));
                    passed++;
                }
            }
            TimeUnit.MILLISECONDS.sleep(PAUSE_MILLIS);
        }
    }
}
