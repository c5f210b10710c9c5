package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A Greenup host: one page worked with cursor keys. Until it is set up it answers at the address that DHCP gave it. */
final class HypervisorHost extends ScreenMachine {

    private static final List<String> ROWS = List.of(
            "Keyboard",
            "Root's phrase",
            "Links",
            "VLAN",
            "Address",
            "Gateway",
            "IPv6 address",
            "IPv6 gateway",
            "Own name",
            "Name servers",
            "Keep and restart",
            "Own check");
    private static final String FACTORY = "greenup";

    private final Face face;

    HypervisorHost(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
    }

    @Override
    public String settings() {
        return "115200-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("kept", "yes");
        memory.put("root", "somebody-elses-9");
        memory.put("Address", "10.40.8.197/24");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    private boolean kept() {
        return memory.has("kept");
    }

    @Override
    String title() {
        return "Greenup host " + serial() + "   " + (kept() ? "set up" : "not set up");
    }

    @Override
    List<String> rows() {
        return ROWS;
    }

    @Override
    String beside(String row) {
        Map<String, String> particular = new LinkedHashMap<>();
        particular.put("Root's phrase", memory.has("root") ? "set" : "not set");
        if (!memory.has("Address")) {
            particular.put("Address", spec.first().equals("-") ? "none" : spec.first() + "/24 (DHCP)");
        }
        return particular.getOrDefault(row, memory.get(row));
    }

    @Override
    void live() throws InterruptedException, Restart {
        line("loading...");
        if (!kept()) {
            memory.forget();
        }
        pause(100);
        String address = kept() ? without(memory.get("Address")) : spec.first();
        if (!address.equals("-") && !address.isEmpty()) {
            face.show(address);
        }
        if (kept() && memory.get("IPv6 address").contains(":")) {
            face.show(without(memory.get("IPv6 address")));
        }
        logIn("root", memory.has("root") && kept() ? memory.get("root") : FACTORY);
        work();
    }

    private static String without(String length) {
        return length.replaceFirst("/.*", "");
    }

    @Override
    void enter(String row) throws InterruptedException, Restart {
        switch (row) {
            case "Keyboard" -> set(row, choice(field("Layout [us]"), "us"));
            case "Root's phrase" -> phrase("root");
            case "Links" -> set(row, choice(field("How many links [1]"), "1"));
            case "VLAN" ->
                set(
                        row,
                        choice(
                                field("Tag, 0 for none [" + (spec.has(Habit.WRONG_DEFAULT) ? "12" : "0") + "]"),
                                spec.has(Habit.WRONG_DEFAULT) ? "12" : "0"));
            case "Address" -> set(row, field("Address and length"));
            case "Gateway" -> gateway();
            case "IPv6 address" -> set(row, field("Address of version 6 and length"));
            case "IPv6 gateway" -> set(row, field("Next hop of version 6"));
            case "Own name" -> set(row, field("Full name"));
            case "Name servers" -> set(row, field("Two of them, with a blank"));
            case "Keep and restart" -> keep();
            default -> check();
        }
    }

    private void gateway() throws InterruptedException {
        String typed = field("Next hop");
        if (refusesOnce()) {
            say("Not kept: the next hop is not beside the address");
        } else {
            set("Gateway", typed);
        }
    }

    private void keep() throws InterruptedException, Restart {
        if (!memory.has("root") || !memory.has("Address")) {
            say("Not kept: a phrase and an address are wanted first");
        } else if (field("Keep all this? (keep/no)").equals("keep")) {
            memory.put("kept", "yes");
            if (spec.has(Habit.OLD_ADDRESS)) {
                memory.put("Address", spec.first() + "/24");
            }
            print("\033[2J\033[1;1Hrestarting");
            throw new Restart();
        }
    }

    private void check() throws InterruptedException {
        if (!field("Check gateway and names from here? (yes/no)").equals("yes")) {
            return;
        }
        between("checking...");
        pause(200);
        String server = memory.get("Name servers").replaceFirst(" .*", "");
        boolean known =
                OwnCheck.ask(without(memory.get("Address")), server, memory.get("Own name")) == OwnCheck.Found.KNOWN;
        say(known ? "own check passed" : "own check failed: its own name is not known at its name server");
    }
}
