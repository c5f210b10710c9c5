package lychnos.lab.console;

import java.util.List;
import java.util.Map;

/**
 * A Greenup host: installed from its medium, then three pages worked with cursor keys, reached from a start page. Until
 * it is set up it answers at the address that DHCP gave it. It saves nothing that it has not tested itself.
 */
final class HypervisorHost extends ScreenMachine {

    private static final String BACK = "Back";
    private static final Map<String, List<String>> PAGES = Map.of(
            "start", List.of("Host", "Uplink", "Services", "Test", "Save and restart"),
            "medium", List.of("Memory", "Disk", "Terms", "Install"),
            "Host", List.of("Full name", "Root password", "Search list", "Keyboard layout", BACK),
            "Uplink",
                    List.of(
                            "IPv4 address",
                            "IPv4 router",
                            "Ports",
                            "VLAN",
                            "Mode of IPv6",
                            "IPv6 address",
                            "IPv6 router",
                            "Link 1",
                            "Link 2",
                            BACK),
            "Services", List.of("Time source", "Name servers", "Agents", BACK));
    private static final String FACTORY = "greenup";

    private final Face face;
    private String page = "start";

    HypervisorHost(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.serve(new HypervisorPages(this));
    }

    /** SSH answers until somebody turns it off. */
    void sshAsSet() {
        face.withSsh(!memory.get("ssh").equals("off"));
    }

    @Override
    public String settings() {
        return "115200-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("saved", "yes");
        memory.put("root", "somebody-elses-9");
        memory.put("IPv4 address", "10.40.8.197/24");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    private boolean saved() {
        return memory.has("saved");
    }

    @Override
    String title() {
        return "Greenup host " + serial() + "   " + (saved() ? "set up" : "not set up") + "   page " + page;
    }

    @Override
    List<String> rows() {
        return PAGES.get(page);
    }

    @Override
    String beside(String row) {
        return switch (row) {
            case "Root password" -> memory.has("root") ? "set" : "not set";
            case "IPv4 address" ->
                memory.has(row) ? memory.get(row) : spec.first().equals("-") ? "none" : spec.first() + "/24 (DHCP)";
            case "Memory" -> spec.has(Habit.LITTLE_MEMORY) ? "16 GiB, too little" : "enough (256 GiB)";
            case "Link 1" -> "up";
            case "Link 2" -> "down";
            case "Terms" -> memory.has("terms") ? "agreed" : "not agreed";
            case "Agents" -> "running";
            case "Test" -> memory.has("tested") ? "passed" : "";
            default -> memory.get(row);
        };
    }

    @Override
    void live() throws InterruptedException, Restart {
        line("loading...");
        if (!saved()) {
            boolean installed = memory.has("installed");
            memory.forget();
            if (installed) {
                memory.put("installed", "yes");
            }
        }
        pause(100);
        page = saved() || memory.has("installed") ? "start" : "medium";
        sshAsSet();
        String address = saved() ? without(memory.get("IPv4 address")) : spec.first();
        if (!address.equals("-") && !address.isEmpty()) {
            face.show(address);
        }
        if (saved() && memory.get("IPv6 address").contains(":")) {
            face.show(without(memory.get("IPv6 address")));
        }
        logIn("root", memory.has("root") && saved() ? memory.get("root") : FACTORY);
        work();
    }

    private static String without(String length) {
        return length.replaceFirst("/.*", "");
    }

    @Override
    void enter(String row) throws InterruptedException, Restart {
        switch (row) {
            case "Host", "Uplink", "Services" -> page = row;
            case BACK -> page = "start";
            case "Memory", "Link 1", "Link 2" -> say("Shown only");
            case "Disk" -> set(row, choice(field("Disk, by number [0]"), "0"));
            case "Terms" -> terms();
            case "Install" -> install();
            case "Mode of IPv6" -> set(row, field("Static or off:"));
            case "Agents" -> agents();
            case "Test" -> test();
            case "Save and restart" -> save();
            case "Root password" -> phrase("root");
            case "Keyboard layout" -> set(row, choice(field("Layout [us]"), "us"));
            case "Ports" -> set(row, choice(field("Ports in use [1]"), "1"));
            case "VLAN" -> vlan(row);
            case "IPv4 router" -> router(row);
            default -> set(row, field(row + ":"));
        }
    }

    private void terms() throws InterruptedException {
        if (field("Agree to the terms? (yes/no)").equals("yes")) {
            memory.put("terms", "agreed");
        }
    }

    private void install() throws InterruptedException, Restart {
        if (!memory.has("terms") || !memory.has("Disk")) {
            say("Refused: choose a disk and agree to the terms first");
        } else if (field("Install on it? (yes/no)").equals("yes")) {
            memory.put("installed", "yes");
            print("\033[2J\033[1;1Hinstalling");
            throw new Restart();
        }
    }

    private void agents() throws InterruptedException {
        if (field("Restart the agents? (yes/no)").equals("yes")) {
            between("agents restart...");
            pause(150);
            memory.add("seen.agentRestarts");
        }
    }

    private void vlan(String row) throws InterruptedException {
        String suggested = spec.has(Habit.WRONG_DEFAULT) ? "12" : "0";
        set(row, choice(field("VLAN, 0 untagged [" + suggested + "]"), suggested));
    }

    private void router(String row) throws InterruptedException {
        String typed = field(row + ":");
        if (refusesOnce()) {
            say("Refused: the router is not in the network of the address");
        } else {
            set(row, typed);
        }
    }

    private void save() throws InterruptedException, Restart {
        if (!memory.has("root") || !memory.has("tested")) {
            say("Refused: set the root password and pass the test first");
        } else if (field("Save and restart? (yes/no)").equals("yes")) {
            memory.put("saved", "yes");
            if (spec.has(Habit.OLD_ADDRESS)) {
                memory.put("IPv4 address", spec.first() + "/24");
            }
            print("\033[2J\033[1;1Hrestarting");
            throw new Restart();
        }
    }

    /** Tries its name from the address that it is going to have. */
    private void test() throws InterruptedException {
        if (!field("Test with these settings? (yes/no)").equals("yes")) {
            return;
        }
        between("testing...");
        pause(200);
        String own = without(memory.get("IPv4 address"));
        if (!saved()) {
            face.show(own);
        }
        String server = memory.get("Name servers").replaceFirst(" .*", "");
        boolean known = OwnCheck.ask(own, server, memory.get("Full name")) == OwnCheck.Found.KNOWN;
        if (!saved()) {
            face.hide();
            if (!spec.first().equals("-")) {
                face.show(spec.first());
            }
        }
        if (known) {
            memory.put("tested", "yes");
            say("Test passed");
        } else {
            say("Test failed: the name server does not know " + memory.get("Full name"));
        }
    }
}
