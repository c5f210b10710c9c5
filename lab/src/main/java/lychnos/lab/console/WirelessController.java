package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Mungris wireless controller in a virtual machine, on a line port of its host. It counts down to a self-made setup,
 * so that somebody has to press a key in time; asks for a maintenance port that takes its address from DHCP; and begins
 * anew at the end.
 */
final class WirelessController extends ConsoleMachine {

    private static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern NUMBER = Pattern.compile("\\d{1,4}");
    private static final Pattern ANY = Pattern.compile(".+");

    private final Face face;

    WirelessController(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.overSsh(this);
    }

    @Override
    public String settings() {
        return "9600-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("word", "somebody-elses-9");
        memory.put("operator", "somebody");
        memory.put("kept", "yes");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    private boolean kept() {
        return memory.has("kept");
    }

    @Override
    String logLine(String text) {
        return "(mungris) " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Mungris " + serial() + ", " + (kept() ? "runs its own settings" : "has no settings");
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("two interfaces, one line");
        pause(60);
        if (!kept()) {
            memory.forget();
        }
        greet();
        if (kept()) {
            if (memory.has("management")) {
                face.show(memory.get("management"));
            }
            line("access points may join");
            signIn();
            shell();
        } else {
            firstSetup();
        }
    }

    private void signIn() throws InterruptedException {
        while (true) {
            String user = ask("Operator: ");
            String word = ask("Word: ", false);
            if (signsIn(user, word)) {
                memory.add("seen.logins");
                return;
            }
            memory.add("seen.refusedLogins");
            pause(300);
            line("** nobody of that name and word");
        }
    }

    private void firstSetup() throws InterruptedException, Restart {
        ask("Set it up by itself? (yes/no) [yes]: ");
        while (true) {
            questions();
            listing();
            if (ask("Keep these? (yes/no): ").equals("yes")) {
                break;
            }
        }
        memory.put("management", keptAddress(memory.get("management")));
        memory.put("kept", "yes");
        line("kept; begins anew");
        throw new Restart();
    }

    private void questions() throws InterruptedException {
        if (spec.has(Habit.ORDER_CHANGED)) {
            maintenance();
            name();
        } else {
            name();
            maintenance();
        }
        memory.put("operator", ask("Operator's name: ", ANY, "** a name is wanted"));
        word();
        memory.put("management", ask("Management address: ", PLAIN, "** an address is wanted"));
        memory.put("mask", ask("Management mask: ", PLAIN, "** a mask is wanted"));
        memory.put("router", router());
        memory.put("tag", ask("Management VLAN (0 for none): ", NUMBER, "** a number is wanted"));
        memory.put("port", ask("Port that carries it (1-4) [" + (spec.has(Habit.WRONG_DEFAULT) ? "2" : "1") + "]: "));
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("Colour of the lamp: ");
        }
        memory.put("relay", ask("DHCP server behind it: ", PLAIN, "** an address is wanted"));
        memory.put("redirect", ask("Address that clients are sent to: ", PLAIN, "** an address is wanted"));
        memory.put("roaming", ask("Roaming domain: ", ANY, "** a name is wanted"));
        memory.put("first", ask("First wireless network (Enter for later): "));
        memory.put("clock", ask("Time server: ", PLAIN, "** an address is wanted"));
    }

    private void name() throws InterruptedException {
        memory.put("name", ask("System name: ", ANY, "** a name is wanted"));
    }

    private void maintenance() throws InterruptedException {
        memory.put("maintenance", ask("Maintenance port (dhcp or an address) [dhcp]: "));
    }

    private void word() throws InterruptedException {
        while (true) {
            String first = ask("Operator's word: ", false);
            if (first.length() < 8) {
                line("** eight letters or more");
            } else if (ask("The word again: ", false).equals(first)) {
                memory.put("word", first);
                memory.add("seen.phraseChanges");
                return;
            } else {
                line("** not the same");
            }
        }
    }

    private String router() throws InterruptedException {
        String typed = ask("Management router: ", PLAIN, "** an address is wanted");
        while (refusesOnce()) {
            line("** that router is not in the management network");
            typed = ask("Management router: ", PLAIN, "** an address is wanted");
        }
        return typed;
    }

    private void listing() {
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("system name", memory.get("name"));
        shown.put("management", memory.get("management") + " " + memory.get("mask"));
        shown.put("router", memory.get("router"));
        shown.put("vlan", memory.get("tag"));
        shown.put("clients go to", memory.get("redirect"));
        shown.put("roaming", memory.get("roaming"));
        shown.put("time", memory.get("clock"));
        shown.forEach((name, value) -> line(String.format("   %-14s %s", name + ":", value)));
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals(memory.get("operator")) && phrase.equals(memory.get("word"));
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            switch (ask("(mungris) > ")) {
                case "" -> {
                    // an empty line is no command
                }
                case "show all" -> listing();
                case "show wireless" ->
                    line("   networks: "
                            + (memory.get("first").isEmpty() ? "none, to be made later" : memory.get("first")));
                default -> line("** it knows show all and show wireless");
            }
        }
    }
}
