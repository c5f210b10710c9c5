package lychnos.lab.console;

import java.util.List;

/**
 * An Ullock management controller by its local setup screen. Two pages look alike: the network of the server and that
 * of its controller. Saving restarts the whole server.
 */
final class SetupScreen extends ScreenMachine {

    private static final String FACTORY = "fellside2";
    private static final String HOST = "Server's own network";
    private static final String CONTROLLER = "Controller's network";
    private static final List<String> FIRST = List.of("Clock", HOST, CONTROLLER, "Keeper's phrase", "Save and restart");
    private static final List<String> NETWORK =
            List.of("Source", "Address", "Mask", "Next hop", "Tag", "Name", "Resolver", "Time", "To the first page");

    private final Face face;
    /** Which page is open; empty for the first one. */
    private String page = "";

    SetupScreen(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
    }

    @Override
    public String settings() {
        return "115200-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("saved", "yes");
        memory.put("keeper", "somebody-elses-9");
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
        String where = page.isEmpty()
                ? "first page"
                : page.equals(HOST) ? "network of the server" : "network of the controller";
        return "Ullock server " + serial() + " | " + (saved() ? "controller set" : "controller not set") + " | "
                + where;
    }

    @Override
    List<String> rows() {
        return page.isEmpty() ? FIRST : NETWORK;
    }

    @Override
    String beside(String row) {
        if (!page.isEmpty()) {
            return memory.get(key(row));
        }
        return switch (row) {
            case "Clock" -> memory.get("clock");
            case "Keeper's phrase" -> memory.has("keeper") ? "own" : "from the factory";
            default -> "";
        };
    }

    private String key(String row) {
        return (page.equals(HOST) ? "host." : "controller.") + row;
    }

    @Override
    void live() throws InterruptedException, Restart {
        line("memory counted, 64 GiB");
        if (!saved()) {
            memory.forget();
        }
        pause(80);
        page = "";
        String address = saved() ? memory.get("controller.Address") : spec.first();
        if (!address.isEmpty() && !address.equals("-")) {
            face.show(address);
        }
        logIn("keeper", memory.has("keeper") && saved() ? memory.get("keeper") : FACTORY);
        work();
    }

    @Override
    void enter(String row) throws InterruptedException, Restart {
        if (!page.isEmpty()) {
            network(row);
            return;
        }
        switch (row) {
            case HOST, CONTROLLER ->
                page = spec.has(Habit.ORDER_CHANGED) ? (row.equals(HOST) ? CONTROLLER : HOST) : row;
            case "Clock" -> memory.put("clock", field("UTC now, hours and minutes"));
            case "Keeper's phrase" -> phrase("keeper");
            default -> save();
        }
    }

    private void network(String row) throws InterruptedException {
        switch (row) {
            case "To the first page" -> page = "";
            case "Source" ->
                memory.put(key(row), choice(field("From where, by hand or by DHCP? [by DHCP]"), "by DHCP"));
            case "Tag" ->
                memory.put(
                        key(row),
                        choice(
                                field("Tag of its VLAN, 0 for none [" + (spec.has(Habit.WRONG_DEFAULT) ? "9" : "0")
                                        + "]"),
                                spec.has(Habit.WRONG_DEFAULT) ? "9" : "0"));
            case "Next hop" -> {
                String typed = field("Next hop");
                if (refusesOnce()) {
                    say("Not kept: no such hop on the dedicated port");
                } else {
                    memory.put(key(row), typed);
                }
            }
            default -> memory.put(key(row), field(row + ", new"));
        }
    }

    private void save() throws InterruptedException, Restart {
        if (!field("Save, and restart the server? (save/no)").equals("save")) {
            return;
        }
        memory.put("saved", "yes");
        memory.put("controller.Address", keptAddress(memory.get("controller.Address")));
        print("\033[2J\033[1;1Hrestarting the server");
        throw new Restart();
    }
}
