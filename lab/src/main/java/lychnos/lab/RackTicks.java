package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.util.function.BiPredicate;

/** Ticks what a person has checked at the rack. */
final class RackTicks {

    private static final ObjectMapper JSON = new ObjectMapper();

    private RackTicks() {}

    /**
     * Ticks checks of a bring-up.
     *
     * @param bringUp such as {@code /api/bring-ups/3}
     * @param which which check of which machine
     * @return how many
     */
    static int tick(Story person, String bringUp, BiPredicate<JsonNode, JsonNode> which)
            throws IOException, InterruptedException {
        int ticked = 0;
        for (JsonNode machine : person.get(bringUp + "/rack-checks").path("machines")) {
            for (JsonNode check : machine.path("checks")) {
                if (which.test(machine, check)) {
                    String body = JSON.createObjectNode()
                            .put("unit", machine.path("unitId").asLong())
                            .put("member", machine.path("member").asText())
                            .put("check", check.path("text").asText())
                            .put("done", true)
                            .toString();
                    person.send("PUT", bringUp + "/rack-checks", body, "application/json");
                    ticked++;
                }
            }
        }
        return ticked;
    }
}
