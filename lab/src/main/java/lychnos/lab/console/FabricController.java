package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import java.util.regex.Pattern;

/**
 * One node of a cluster of Sallow controllers. It asks for itself first, then for what the whole cluster shares, which
 * is committed for good. Ctrl+L draws its question again, and the line with its serial above it.
 */
final class FabricController extends ConsoleMachine {

    private static final Pattern ADDRESS = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern PREFIX = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d\\d?");
    private static final Pattern NAME = Pattern.compile("[a-z][a-z0-9-]{0,30}");
    private static final Pattern NUMBER = Pattern.compile("[1-9][0-9]{0,3}");
    private static final Pattern DUTY = Pattern.compile("(active|stand-by)?");
    private static final Pattern SIZE = Pattern.compile("[135]?");
    private static final List<String> SHARED = List.of("size", "cluster", "number", "overlay", "vlan");
    private static final int SHORTEST_PASSWORD = 8;

    private final Face face;
    private final Supplier<List<FabricController>> group;

    FabricController(
            ConsoleSpec spec, Memory memory, long restartMillis, Face face, Supplier<List<FabricController>> group) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.overSsh(this);
        this.group = group;
    }

    @Override
    public String settings() {
        return "115200-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("committed", "yes");
        memory.put("address", "10.40.8.198/24");
        memory.put("password", "somebody-elses-9");
        memory.put("place", spec.place());
    }

    @Override
    void networkDown() {
        face.hide();
    }

    private boolean committed() {
        return memory.has("committed");
    }

    private void introduce() {
        line("");
        line("Sallow node " + serial() + ", " + (committed() ? "prepared" : "unprepared"));
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("disks found");
        pause(60);
        log("links found");
        if (!committed()) {
            memory.forget();
        }
        introduce();
        if (!committed()) {
            firstSetup();
            memory.put("committed", "yes");
            memory.put("fresh", "yes");
            line("committed, starting the node");
            throw new Restart();
        }
        if (memory.has("fresh")) {
            memory.drop("fresh");
        } else if (ask("An earlier cluster is stored here, keep or erase ?> ").equals("erase")) {
            memory.add("seen.wipes");
            memory.forget();
            throw new Restart();
        }
        String address = memory.get("address").replaceFirst("/.*", "");
        face.show(address);
        line("node in service at " + address);
        signIn();
        shell();
    }

    @Override
    String logLine(String text) {
        return "node: " + text + "\r\n";
    }

    @Override
    void redraw(String prompt) {
        introduce();
        print(prompt);
    }

    private void firstSetup() throws InterruptedException {
        do {
            node();
            shared();
            password();
            listing();
        } while (!ask("commit for good or edit ?> ").equals("commit"));
    }

    private void node() throws InterruptedException {
        if (spec.has(Habit.ORDER_CHANGED)) {
            given("place", "place of this node ?> ", NUMBER, "a number from 1");
            given("name", "name of this node ?> ", NAME, "lowercase letters, digits and hyphens");
        } else {
            given("name", "name of this node ?> ", NAME, "lowercase letters, digits and hyphens");
            given("place", "place of this node ?> ", NUMBER, "a number from 1");
        }
        String duty = ask("duty of this node, active or stand-by [active] ?> ", DUTY, "error> active or stand-by");
        memory.put("duty", duty.isEmpty() ? "active" : duty);
        given("address", "address/length of this node ?> ", PREFIX, "an address with its prefix length");
        given("router", "router of this node ?> ", ADDRESS, "an address");
        while (refusesOnce()) {
            line("error> the router is not in the network of the node");
            given("router", "router of this node ?> ", ADDRESS, "an address");
        }
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("fan direction, front or rear ?> ");
        }
    }

    private void shared() throws InterruptedException {
        String suggested = spec.has(Habit.WRONG_DEFAULT) ? "5" : "3";
        String size = ask("nodes in the cluster, 1, 3 or 5 [" + suggested + "] ?> ", SIZE, "error> 1, 3 or 5");
        memory.put("size", size.isEmpty() ? suggested : size);
        given("cluster", "cluster name ?> ", NAME, "lowercase letters, digits and hyphens");
        given("number", "fabric number ?> ", NUMBER, "a number from 1");
        given("overlay", "overlay endpoints ?> ", PREFIX, "a prefix, such as 198.51.100.0/24");
        given("vlan", "control VLAN ?> ", NUMBER, "a VLAN from 1 to 4094");
    }

    private void given(String name, String prompt, Pattern wanted, String form) throws InterruptedException {
        memory.put(name, ask(prompt, wanted, "error> expected " + form));
    }

    private void password() throws InterruptedException {
        while (true) {
            String first = ask("password for warden ?> ", false);
            if (first.length() < SHORTEST_PASSWORD) {
                line("error> at least 8 characters");
            } else if (ask("repeat the password ?> ", false).equals(first)) {
                memory.put("password", first);
                memory.add("seen.phraseChanges");
                return;
            } else {
                line("error> the passwords differ");
            }
        }
    }

    private void listing() {
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("node name", memory.get("name"));
        shown.put("node place", memory.get("place") + " of " + memory.get("size"));
        shown.put("node address", memory.get("address"));
        shown.put("node router", memory.get("router"));
        shown.put("node duty", memory.get("duty"));
        shown.put("cluster", memory.get("cluster"));
        shown.put("fabric number", memory.get("number"));
        shown.put("overlay", memory.get("overlay"));
        shown.put("control VLAN", memory.get("vlan"));
        shown.put("image", release("9.2.5"));
        shown.put("node clock", clock());
        shown.forEach((name, value) -> line("  " + name + " = " + value));
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("warden") && phrase.equals(memory.get("password"));
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            switch (ask("sallow % ")) {
                case "" -> introduce();
                case "node" -> listing();
                case "cluster" -> cluster();
                default -> line("error> commands are node and cluster");
            }
        }
    }

    private void signIn() throws InterruptedException {
        while (!ask("warden's password ?> ", false).equals(memory.get("password"))) {
            memory.add("seen.refusedLogins");
            line("error> wrong password");
            introduce();
        }
        memory.add("seen.logins");
    }

    private void cluster() {
        boolean alone = spec.has(Habit.PEER_NOT_SEEN);
        List<FabricController> there = group.get().stream()
                .filter(each -> each.committed() && !(alone && each != this))
                .toList();
        int size = Integer.parseInt(memory.get("size"));
        line("  nodes seen: " + there.size() + " of " + size + (there.size() < size ? ", waiting for more" : ""));
        boolean same = there.stream().allMatch(each -> SHARED.stream()
                .allMatch(name -> each.memory.get(name).equals(memory.get(name))));
        line("  shared settings: "
                + (alone && !spec.place().equals("1") ? "no other node" : same ? "equal on all" : "not equal"));
    }
}
