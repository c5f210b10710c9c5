package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;

/**
 * What goes on at the consoles of the demo hall when somebody comes to look: a host, a blade chassis, a file array and
 * a server by hand are set up to their end by somebody who says yes to everything, an array has come to a page that its
 * mail relay takes amiss, a store for backups has its controllers set and waits at a name that can never be changed, a
 * gateway is waited for that will not come back, a pair of interconnects waits at the question after its login, and a
 * load balancer has shown its licence request and waits for the answer.
 */
public final class ConsoleStory {

    private static final ObjectMapper JSON = new ObjectMapper();
    private static final Set<String> PASSED = Set.of("NEXT", "RESTARTS", "PERMANENT", "TERMS");
    private static final long PAUSE_MILLIS = 400;
    private static final int MOST_LOOKS = 600;
    private static final int TO_THE_END = Integer.MAX_VALUE;

    /**
     * How it is answered, and how often yes is said. To the array to its restart and the layout of its pool, so that it
     * comes to the page of which its relay will have none; to the gateway to the restart from which it does not return;
     * to the store never, so that it waits at its name.
     */
    private record Begun(String mode, int yeses) {}

    private static final Map<String, Begun> BEGUN = Map.of(
            "ard-hv-01", new Begun("run", TO_THE_END),
            "ard-bch-1", new Begun("run", TO_THE_END),
            "ard-fil-1", new Begun("run", TO_THE_END),
            "ard-srh-001-oob", new Begun("run", TO_THE_END),
            "ard-blk-1", new Begun("run", 2),
            "ard-obj-1", new Begun("run", 0),
            "ard-iog-1", new Begun("run", 1),
            "ard-fic-1", new Begun("ask", 6),
            "ard-lba-1", new Begun("run", TO_THE_END));

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
        Map<Long, Integer> left = new TreeMap<>();
        for (JsonNode bringUp : story.get("/api/bring-ups")) {
            for (JsonNode unit : story.get(
                            "/api/bring-ups/" + bringUp.path("id").asLong() + "/lanes")
                    .path("startable")) {
                Begun begun = BEGUN.get(unit.path("name").asText());
                if (begun != null) {
                    begin(unit.path("unitId").asLong(), begun.mode);
                    left.put(unit.path("unitId").asLong(), begun.yeses);
                }
            }
        }
        // side by side, as the machines are
        for (int look = 0; look < MOST_LOOKS && !left.isEmpty(); look++) {
            for (long unit : List.copyOf(left.keySet())) {
                int after = follow(unit, left.get(unit));
                left.merge(unit, after, (before, now) -> now == 0 ? null : now);
            }
            TimeUnit.MILLISECONDS.sleep(PAUSE_MILLIS);
        }
    }

    /** Where a finding stands in a unit's way, as without name servers, the others begin anyway. */
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

    /** Ticks what is done on the host of a virtual machine, which the lab has done already. */
    private void powerOn(JsonNode member) throws IOException, InterruptedException {
        for (JsonNode step : member.path("steps")) {
            boolean first = false;
            for (JsonNode mark : step.path("marks")) {
                first |= mark.asText().equals("FIRST");
            }
            if (first && step.path("progress").asText().equals("OPEN")) {
                send(
                        "/api/dialogues/" + member.path("dialogueId").asLong() + "/tick",
                        JSON.createObjectNode()
                                .put("place", step.path("place").asInt())
                                .put("done", true));
            }
        }
    }

    /** Says yes where it can be said now; gives how often it may be said still, which is never once it is done. */
    private int follow(long unit, int times) throws IOException, InterruptedException {
        int left = times;
        JsonNode bench = story.get("/api/units/" + unit + "/bench");
        for (JsonNode member : bench.path("members")) {
            if (member.path("hold").path("why").asText().equals("PREREQUISITE")) {
                return 0; // what it waits for is left to the visitor
            }
            if (left > 0
                    && member.path("state").asText().equals("HELD")
                    && PASSED.contains(member.path("hold").path("why").asText())) {
                send(
                        "/api/dialogues/" + member.path("dialogueId").asLong() + "/decision",
                        JSON.createObjectNode()
                                .put("typed", member.path("hold").path("typed").asText()));
                left--;
            }
            powerOn(member);
        }
        return bench.path("runState").asText().equals("DONE") ? 0 : left;
    }
}
