package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import lychnos.lab.console.LicenceOffice;

/**
 * What a person does at the bench: says yes where the work stops for one, types what must be typed, fills in the pages
 * that nobody else fills in, and ticks them.
 */
final class Hands {

    private static final ObjectMapper JSON = new ObjectMapper();

    /** What stands for a while and passes without anybody. */
    private static final Set<String> PASSES = Set.of("PREREQUISITE", "PEER", "DATE", "STANDBY");

    /** Pages of the value sheet at which something is compared, and nothing typed. */
    private static final Set<String> LOOKED_AT = Set.of("Production cable");

    /** The page of the value sheet at which the label is compared. */
    private static final String IDENTITY = "Is it the one?";

    /**
     * Where a kind's licence request is answered.
     *
     * @param ordered the field that says how much was ordered
     * @param fact where the answer is entered
     */
    private record Office(String maker, String ordered, String fact) {}

    private static final Map<String, Office> OFFICES = Map.of(
            "Load balancer", new Office("Loweswater", "Limit", "licence-answer"),
            "Licence host", new Office("Buttermere", "Licences", "registration-answer"));

    private static final int AGAIN_SECONDS = 5;
    private static final int CONFLICT = 409;

    private final Story person;
    private final String bringUp;
    /** Whether terms, permanent values, wipes and restarts are agreed to. */
    private final boolean sayYes;

    private final Map<Long, String> said = new HashMap<>();
    private final Map<Long, Long> saidAt = new HashMap<>();
    private final Map<Long, String> stood = new HashMap<>();
    private final Map<String, Integer> yeses = new LinkedHashMap<>();
    private final Set<String> ticked = new HashSet<>();
    private final Map<Long, Integer> typed = new HashMap<>();
    /** How to register with the fleet manager; by fact. */
    private final Map<String, String> fleet = new HashMap<>();

    /** @param bringUp where the work goes on, such as {@code /api/bring-ups/3} */
    Hands(Story person, String bringUp, boolean sayYes) {
        this.person = person;
        this.bringUp = bringUp;
        this.sayYes = sayYes;
    }

    /** How often yes was said, by what for. */
    Map<String, Integer> yeses() {
        return yeses;
    }

    /** What a dialogue stood at last, in one sentence; empty where it never did. */
    String stoodAt(long dialogue) {
        return stood.getOrDefault(dialogue, "");
    }

    /** Keys and clicks at a dialogue: each yes and each tick is one, and what was typed besides. */
    int typedAt(long dialogue) {
        return typed.getOrDefault(dialogue, 0);
    }

    int ticks() {
        return ticked.size();
    }

    /**
     * Does what can be done at a unit now.
     *
     * @return what only somebody else can pass, in one sentence, or empty
     */
    String work(JsonNode bench) throws IOException, InterruptedException {
        for (JsonNode member : bench.path("members")) {
            String stands = member.path("state").asText().equals("HELD") ? pass(member) : "";
            if (!stands.isEmpty()) {
                return bench.path("name").asText() + " " + member.path("label").asText() + ": " + stands;
            }
            tick(bench, member);
            takeToOffice(bench, member);
            introduce(bench, member);
        }
        return "";
    }

    private String pass(JsonNode member) throws IOException, InterruptedException {
        JsonNode hold = member.path("hold");
        String why = hold.path("why").asText();
        long dialogue = member.path("dialogueId").asLong();
        if (PASSES.contains(why)) {
            return "";
        }
        if (!hold.path("passable").asBoolean()) {
            return hold.path("sentence").asText();
        }
        if (!sayYes) {
            return "it wants a yes (" + why.toLowerCase(java.util.Locale.ROOT) + "): "
                    + hold.path("sentence").asText();
        }
        // said once, then again every few seconds, as a person would: it did not answer, or the server that heard it
        // had lost the setup
        boolean again = System.nanoTime() - saidAt.getOrDefault(dialogue, 0L) > TimeUnit.SECONDS.toNanos(AGAIN_SECONDS);
        boolean first = !hold.toString().equals(said.put(dialogue, hold.toString()));
        if (first || again) {
            saidAt.put(dialogue, System.nanoTime());
            stood.put(dialogue, hold.path("sentence").asText());
            String text = why.equals("CONSENT")
                    ? "agreed with the buyer of the licences"
                    : hold.path("typed").asText();
            try {
                person.post(
                        "/api/dialogues/" + dialogue + "/decision",
                        JSON.createObjectNode().put("typed", text));
            } catch (Story.Refused e) {
                if (e.status != CONFLICT) {
                    throw e;
                }
                said.remove(dialogue); // the machine went on between two looks; the next look shows where it stands
                return "";
            }
            yeses.merge(why, first ? 1 : 0, Integer::sum);
            typed.merge(dialogue, 1 + text.length(), Integer::sum);
        }
        return "";
    }

    private void tick(JsonNode bench, JsonNode member) throws IOException, InterruptedException {
        boolean byHand = member.path("state").asText().equals("BY_HAND")
                && !member.path("fillsPages").asBoolean();
        for (JsonNode step : member.path("steps")) {
            boolean first = false;
            for (JsonNode mark : step.path("marks")) {
                first |= mark.asText().equals("FIRST");
            }
            boolean open = Set.of("OPEN", "SENT").contains(step.path("progress").asText());
            if (open && comparison(bench, member, step)) {
                compare(member);
            } else if (open
                    && (byHand || first)
                    && ticked.add(member.path("dialogueId").asText() + " " + step.path("place"))) {
                typed.merge(member.path("dialogueId").asLong(), 1 + fillIn(bench, member, step), Integer::sum);
                person.post(
                        "/api/dialogues/" + member.path("dialogueId").asLong() + "/tick",
                        JSON.createObjectNode()
                                .put("place", step.path("place").asInt())
                                .put("done", true));
            }
        }
    }

    /** Takes the licence request that a page has shown to its maker's office, and enters the answer as a fact. */
    private void takeToOffice(JsonNode bench, JsonNode member) throws IOException, InterruptedException {
        Office office = OFFICES.get(bench.path("kindTitle").asText());
        if (office == null) {
            return;
        }
        String request = "";
        int ordered = 0;
        for (JsonNode step : member.path("steps")) {
            request += step.path("told").path("licence request").asText();
            ordered += step.path("fields").path(office.ordered).asInt();
        }
        long dialogue = member.path("dialogueId").asLong();
        if (request.isEmpty() || !ticked.add(dialogue + " licence")) {
            return;
        }
        String answer = new LicenceOffice(office.maker).answer(request, ordered);
        enter(bench, Map.of(office.fact, answer));
        typed.merge(dialogue, 1 + answer.length(), Integer::sum);
    }

    /** Reads from a fleet manager how others register with it, and enters that for the manager of clusters. */
    private void introduce(JsonNode bench, JsonNode member) throws IOException, InterruptedException {
        if (bench.path("kindTitle").asText().equals("Fleet manager")) {
            for (JsonNode step : member.path("steps")) {
                String word = step.path("told").path("joining word").asText();
                if (!word.isEmpty()) {
                    fleet.put("joining-word", word);
                    fleet.put("fleet-manager", step.path("answer").asText().replaceAll("https://|/", ""));
                }
            }
        } else if (bench.path("kindTitle").asText().equals("Cluster manager")
                && !fleet.isEmpty()
                && ticked.add("introduced")) {
            enter(bench, fleet);
        }
    }

    private void enter(JsonNode bench, Map<String, String> facts) throws IOException, InterruptedException {
        ObjectNode cells = JSON.createObjectNode();
        ArrayNode all = cells.putArray("cells");
        facts.forEach((name, value) -> all.addObject()
                .put("unitId", bench.path("unitId").asLong())
                .put("member", "")
                .put("name", name)
                .put("value", value));
        person.send("PUT", bringUp + "/facts", cells.toString(), "application/json");
    }

    /** Whether a page asks which machine it is, at an appliance that shows that on its service port. */
    private boolean comparison(JsonNode bench, JsonNode member, JsonNode step) {
        return bench.path("kindTitle").asText().equals("Index appliance")
                && step.path("title").asText().equals(IDENTITY)
                && member.path("compare").path("at").isNull();
    }

    private void compare(JsonNode member) throws IOException, InterruptedException {
        String dialogue = member.path("dialogueId").asText();
        if (ticked.add(dialogue + " compared")) {
            String read = new ServicePort("10.47.254.1").reads("Harrop");
            person.send(
                    "PUT",
                    "/api/dialogues/" + dialogue + "/comparison",
                    JSON.createObjectNode().put("read", read).toString(),
                    "application/json");
            typed.merge(Long.valueOf(dialogue), 1 + read.length(), Integer::sum);
        }
    }

    /**
     * Types the value sheet's page into the machine, where it is one that an appliance shows on its service port; gives
     * how much that was.
     */
    private int fillIn(JsonNode bench, JsonNode member, JsonNode step) throws IOException, InterruptedException {
        String title = step.path("title").asText();
        if (!bench.path("kindTitle").asText().equals("Index appliance") || LOOKED_AT.contains(title)) {
            return 0; // what comes first at a virtual machine is done on its host, where the lab has done it already
        }
        ServicePort port = new ServicePort("10.47.254.1");
        if (!port.shows(title)) {
            throw new IOException(
                    bench.path("name").asText() + " does not show its page “" + title + "” on its service port");
        }
        Map<String, String> fields = new LinkedHashMap<>();
        for (Map.Entry<String, JsonNode> field : step.path("fields").properties()) {
            fields.put(
                    field.getKey(),
                    field.getValue().asText().startsWith("•")
                            ? password(member, step, field.getKey())
                            : field.getValue().asText());
        }
        port.fill(fields);
        return fields.values().stream().mapToInt(value -> value.length() + 1).sum();
    }

    private String password(JsonNode member, JsonNode step, String field) throws IOException, InterruptedException {
        return person.post(
                        "/api/dialogues/" + member.path("dialogueId").asLong() + "/steps/"
                                + step.path("place").asInt() + "/password?field="
                                + java.net.URLEncoder.encode(field, java.nio.charset.StandardCharsets.UTF_8),
                        JSON.createObjectNode())
                .path("text")
                .asText();
    }
}
