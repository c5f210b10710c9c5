package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;

/**
 * A whole untouched hall, from its labels to a signed pack, without a person. Everything goes through the interface
 * that people and other teams' programs have; where the work stops for a person, yes is said only if that was asked
 * for.
 *
 * <pre>
 * RunThrough SERVER-URL DIRECTORY PACK-FILE KEY-NAME KEY [--say-yes]
 * </pre>
 *
 * Ends with 0 when the pack is written, 1 when something went wrong, 3 when only a yes is wanting.
 */
public final class RunThrough {

    private static final ObjectMapper JSON = new ObjectMapper();
    private static final String BASE = "10.40";
    private static final long LOOK_MILLIS = 500;
    private static final long LONGEST_MINUTES = 10;
    private static final int WIDTH = 4;

    /** What the hall has besides its servers: kind, how many, members of each. */
    private static final List<String> OTHERS = List.of(
            "interconnect-pair 2 2",
            "infiniband-gateway 2 1",
            "fabric-controller 1 3",
            "block-array 1 2",
            "backup-store 1 2",
            "blade-chassis 1 2",
            "hypervisor-host 2 1",
            "file-array 1 1",
            "server-controller-by-hand 1 1",
            "access-appliance 1 1",
            "fleet-manager 1 1",
            "load-balancer 1 1",
            "balancer-console 1 1",
            "delivery-pair 1 2",
            "licence-host 1 1",
            "cluster-manager 1 1",
            "wireless-controller 1 1",
            "index-appliance 1 1",
            "console-manager 1 1");

    private final Story engineer;
    private final Story lead;
    private final Path directory;
    private final boolean sayYes;
    private Hands hands;
    private final long begun = System.nanoTime();
    private final Map<String, String> told = new LinkedHashMap<>();
    private long bringUp;

    private RunThrough(String server, Path directory, boolean sayYes) {
        engineer = new Story(server, BASE);
        lead = new Story(server, BASE);
        this.directory = directory;
        this.sayYes = sayYes;
    }

    /** Something that a person has to see to. */
    private static final class Stuck extends Exception {
        private static final long serialVersionUID = 1;
        private final int exit;

        Stuck(int exit, String message) {
            super(message);
            this.exit = exit;
        }
    }

    public static void main(String[] args) throws InterruptedException {
        RunThrough run = new RunThrough(args[0], Path.of(args[1]), args.length > 5 && args[5].equals("--say-yes"));
        int exit = 1;
        try {
            run.prepare(args[3], args[4]);
            run.allocate();
            run.configureAndProve();
            run.handOver(Path.of(args[2]));
            exit = 0;
        } catch (Stuck stuck) {
            run.say("stopped: " + stuck.getMessage());
            exit = stuck.exit;
        } catch (IOException e) {
            run.say("stopped: " + e.getMessage());
        }
        System.exit(exit);
    }

    private void say(String what) {
        long seconds = (System.nanoTime() - begun) / 1_000_000_000;
        System.out.printf(Locale.ROOT, "%2d:%02d  %s%n", seconds / 60, seconds % 60, what);
    }

    private String at(String path) {
        return "/api/bring-ups/" + bringUp + "/" + path;
    }

    private void prepare(String keyName, String key) throws IOException, InterruptedException, Stuck {
        engineer.signIn();
        lead.signIn("hall-lead", "lead-of-the-hall");
        bringUp = engineer.begin("Ardal Hall 2, whole", 9, "R1 5", "R2 5");
        hands = new Hands(engineer, "/api/bring-ups/" + bringUp, sayYes);
        CoreStory core = new CoreStory(engineer, BASE, bringUp);
        core.ground(keyName, key);
        engineer.send(
                "PUT", at("network"), engineer.network(8, "Management", 408).toString(), "application/json");
        core.networks();
        say("ground: three networks, name and time servers, policies, lines and hosts stated");
        engineer.send("POST", at("labels"), Files.readString(directory.resolve("hall-2-row-a.csv")), "text/plain");
        for (String other : OTHERS) {
            String[] word = other.split(" ");
            core.announce(word[0], Integer.parseInt(word[1]), Integer.parseInt(word[2]));
        }
        JsonNode read = engineer.send(
                "POST", at("facts.csv"), Files.readString(directory.resolve("whole-hall-facts.csv")), "text/plain");
        int units = engineer.get(at("prepare")).path("units").size();
        say("labels and facts read: " + units + " units"
                + (read.path("faults").isEmpty()
                        ? ""
                        : ", " + read.path("faults").size() + " cells not taken: " + read.path("faults")));
        say(RackTicks.tick(engineer, "/api/bring-ups/" + bringUp, (machine, check) -> true)
                + " checks ticked at the rack");
        core.images(List.of());
        say(checked() + " images checked");
    }

    /** Waits until every image was read; how many there are. */
    private int checked() throws IOException, InterruptedException, Stuck {
        long end = System.nanoTime() + TimeUnit.MINUTES.toNanos(1);
        while (System.nanoTime() < end) {
            JsonNode images = engineer.get(at("images")).path("images");
            for (JsonNode image : images) {
                if (image.path("state").asText().equals("FAILED")
                        || !image.path("contradictions").isEmpty()) {
                    throw new Stuck(1, "an image is not as it should be: " + image);
                }
            }
            List<String> states = images.findValuesAsText("state");
            if (states.stream().allMatch("CHECKED"::equals)) {
                return states.size();
            }
            TimeUnit.MILLISECONDS.sleep(LOOK_MILLIS);
        }
        throw new Stuck(1, "the images were not read within a minute");
    }

    private void allocate() throws IOException, InterruptedException {
        JsonNode proposal = engineer.get(at("proposal"));
        engineer.take(bringUp, proposal);
        int lines = 0;
        Set<Long> placed = new HashSet<>();
        proposal.path("lines").forEach(line -> placed.add(line.path("unitId").asLong()));
        for (JsonNode unit : engineer.get(at("prepare")).path("units")) {
            if (placed.contains(unit.path("id").asLong())) {
                continue;
            }
            JsonNode fit = engineer.get(at("fits?unit=" + unit.path("id").asLong()))
                    .path("fits")
                    .path(0);
            engineer.take(bringUp, fit);
            lines += fit.path("lines").size();
        }
        engineer.post(at("record-pushes"), JSON.createObjectNode());
        say("addresses taken: " + (proposal.path("lines").size() + lines)
                + ", and their names pushed to the name servers");
    }

    private void configureAndProve() throws IOException, InterruptedException, Stuck {
        engineer.post(at("setups"), JSON.createObjectNode().put("width", WIDTH));
        say("setup begun: servers " + WIDTH
                + " at a time behind the first, consoles side by side, the first of each kind alone");
        while (true) {
            begin();
            String stands = stopped();
            boolean all = true;
            for (JsonNode lane : engineer.get(at("lanes")).path("lanes")) {
                JsonNode bench =
                        engineer.get("/api/units/" + lane.path("unitId").asLong() + "/bench");
                String here = hands.work(bench);
                stands = stands.isEmpty() ? here : stands;
            }
            for (JsonNode unit : lead.get(at("handover")).path("units")) {
                all &= unit.path("state").asText().equals("READY");
                tell(unit);
            }
            if (all) {
                return;
            }
            if (!stands.isEmpty()) {
                throw new Stuck(stands.contains(" it wants a yes (") ? 3 : 1, stands);
            }
            if (System.nanoTime() - begun > TimeUnit.MINUTES.toNanos(LONGEST_MINUTES)) {
                throw new Stuck(1, "not all of it is ready after " + LONGEST_MINUTES + " minutes:" + waiting());
            }
            TimeUnit.MILLISECONDS.sleep(LOOK_MILLIS);
        }
    }

    private void begin() throws IOException, InterruptedException {
        for (JsonNode unit : engineer.get(at("lanes")).path("startable")) {
            if (!unit.path("alone").asBoolean()) {
                engineer.post(
                        "/api/units/" + unit.path("unitId").asLong() + "/console",
                        JSON.createObjectNode().put("mode", "run"));
            }
        }
    }

    /** The servers whose setup has stopped, each with its reason: how to continue is a person's decision. */
    private String stopped() throws IOException, InterruptedException {
        StringBuilder stopped = new StringBuilder();
        for (JsonNode setup : engineer.get(at("configure")).path("lanes")) {
            if (setup.path("state").asText().equals("STOPPED")) {
                stopped.append(setup.path("name").asText())
                        .append(", ")
                        .append(setup.path("step").asText())
                        .append(": ")
                        .append(setup.path("note").asText())
                        .append(' ')
                        .append(setup.path("advice").asText())
                        .append('\n');
            }
        }
        return stopped.toString().strip();
    }

    /** What each unit waits for that is not ready, one line each. */
    private String waiting() throws IOException, InterruptedException {
        StringBuilder waiting = new StringBuilder();
        for (JsonNode unit : lead.get(at("handover")).path("units")) {
            if (!unit.path("state").asText().equals("READY")) {
                waiting.append("\n  ")
                        .append(unit.path("unit").asText())
                        .append(": ")
                        .append(unit.path("why").asText());
            }
        }
        Set<Long> seen = new HashSet<>();
        for (JsonNode lane : engineer.get(at("lanes")).path("lanes")) {
            if (!seen.add(lane.path("unitId").asLong())) {
                continue; // a unit has a lane for each member
            }
            JsonNode bench = engineer.get("/api/units/" + lane.path("unitId").asLong() + "/bench");
            for (JsonNode member : bench.path("members")) {
                waiting.append("\n  ")
                        .append(bench.path("name").asText())
                        .append(' ')
                        .append(member.path("label").asText())
                        .append(": ")
                        .append(member.path("state").asText())
                        .append(' ')
                        .append(member.path("note").asText())
                        .append(' ')
                        .append(member.path("hold").path("sentence").asText());
                if (!member.path("state").asText().equals("DONE")) {
                    waiting.append(" (it stood last at: ")
                            .append(hands.stoodAt(member.path("dialogueId").asLong()))
                            .append(')');
                }
            }
        }
        return waiting.toString();
    }

    /** Says what is new of a unit. */
    private void tell(JsonNode unit) {
        String name = unit.path("unit").asText();
        boolean ready = unit.path("state").asText().equals("READY");
        String now = ready ? "proven" : unit.path("why").asText();
        if (!now.equals(told.put(name, now)) && (ready || unit.path("fault").asBoolean())) {
            say(name + " (" + unit.path("kind").asText() + "): " + now);
        }
    }

    private void handOver(Path file) throws IOException, InterruptedException, Stuck {
        JsonNode view = lead.get(at("handover"));
        ArrayNode seen = JSON.createArrayNode();
        view.path("units").forEach(unit -> seen.addObject()
                .put("unit", unit.path("unitId").asLong())
                .put("face", unit.path("face").asText()));
        JsonNode signed = lead.post(at("signatures"), JSON.createObjectNode().set("units", seen));
        JsonNode looked = lead.post("/api/chain/verifications", JSON.createObjectNode());
        if (!looked.path("breaks").isEmpty()) {
            throw new Stuck(1, "the chain of records does not hold: " + looked);
        }
        byte[] pack = lead.bytes("POST", at("packs?paper=a4"), "{}");
        Files.write(file, pack);
        say(signed.size() + " records signed, " + view.path("lines").size() + " endpoints; the pack: " + file + ", "
                + pack.length / 1024 + " KiB");
        hands.yeses()
                .forEach((why, times) ->
                        System.out.printf("       said yes to %s: %d%n", why.toLowerCase(Locale.ROOT), times));
        System.out.printf("       pages filled in by hand and ticked: %d%n", hands.ticks());
        Keystrokes keystrokes = new Keystrokes(Files.readString(directory.resolve("whole-hall-facts.csv")));
        keystrokes.count(engineer, view, hands);
        say(keystrokes.told());
    }
}
