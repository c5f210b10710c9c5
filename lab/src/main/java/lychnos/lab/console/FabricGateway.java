package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Brathay gateway between an InfiniBand fabric and Ethernet. It says where it greets whether it was set up, wants
 * three words of its own, and suggests what few want: an address from DHCP, to be master of its fabric, and diagnostics
 * to its maker.
 */
final class FabricGateway extends ConsoleMachine {

    private static final String FACTORY = "tarnbeck";
    private static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern LABEL = Pattern.compile("[a-z0-9]([a-z0-9-]*[a-z0-9])?");
    private static final int SHORTEST_WORD = 8;
    private static final int LONGEST_NAME = 20;

    private final Face face;

    FabricGateway(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
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
        memory.put("steward", "somebody-elses-9");
        memory.put("address", "10.40.8.198");
        memory.put("mask", "255.255.255.0");
        memory.put("way", "10.40.8.1");
        memory.put("name", "of-somebody");
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
        return "%ib-6 " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Brathay gateway " + serial() + " (" + (kept() ? "set up" : "not set up yet") + ")";
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("switch chip found");
        pause(60);
        log("64 ports, none cabled");
        if (!kept()) {
            memory.forget();
        }
        greet();
        if (kept()) {
            if (memory.has("fresh")) {
                memory.drop("fresh");
            } else if (ask("ERASE begins anew, Enter goes on: ").equals("ERASE")) {
                memory.add("seen.wipes");
                memory.forget();
                throw new Restart();
            }
            if (memory.has("address")) {
                face.show(memory.get("address"));
            }
            line("the gateway is up");
        }
        signIn();
        if (!kept()) {
            firstSetup();
        }
        shell();
    }

    private void signIn() throws InterruptedException {
        while (true) {
            String who = ask("Who is there: ");
            String word = ask("Word: ", false);
            if (who.equals("steward") && signsIn(who, word)) {
                memory.add("seen.logins");
                return;
            }
            memory.add("seen.refusedLogins");
            pause(300);
            line("rejected, nobody by that name and word");
        }
    }

    private void firstSetup() throws InterruptedException, Restart {
        word("Steward shall say: ", "steward");
        word("Watch shall say: ", "watch");
        word("The fabric shall say: ", "fabric");
        memory.add("seen.phraseChanges");
        while (true) {
            questions();
            listing();
            String then = ask("Keep this, change it, or leave? ");
            if (then.equals("keep")) {
                break;
            }
        }
        memory.put("kept", "yes");
        memory.put("fresh", "yes");
        memory.put("address", keptAddress(memory.get("address")));
        line("kept; it begins anew with that");
        throw new Restart();
    }

    private void word(String prompt, String name) throws InterruptedException {
        while (true) {
            String first = ask(prompt, false);
            if (first.length() < SHORTEST_WORD) {
                line("rejected, a word has eight letters or more");
            } else if (!ask("and again: ", false).equals(first)) {
                line("rejected, that was another word");
            } else {
                memory.put(name, first);
                return;
            }
        }
    }

    private void questions() throws InterruptedException {
        if (suggest("Address by hand?", "no").equals("yes")) {
            memory.put("address", ask("Which address? ", PLAIN, "rejected, expected four numbers with dots"));
            memory.put("mask", ask("Which mask? ", PLAIN, "rejected, expected four numbers with dots"));
            memory.put("way", way());
        } else {
            memory.put("address", spec.first().equals("-") ? "" : spec.first());
        }
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("Which end of the row is cold? ");
        }
        if (spec.has(Habit.ORDER_CHANGED)) {
            domain();
            name();
        } else {
            name();
            domain();
        }
        memory.put("names", ask("Who knows names? ", PLAIN, "rejected, expected one address"));
        memory.put("time", ask("Who knows the time? "));
        memory.put("zone", suggest("Zone?", spec.has(Habit.WRONG_DEFAULT) ? "Etc/GMT+5" : "UTC"));
        memory.put("manager", suggest("Subnet manager on its fabric?", "master"));
        memory.put("diagnostics", suggest("Diagnostics to the maker?", "yes"));
    }

    private void name() throws InterruptedException {
        String name = ask("Its name? ", LABEL, "rejected, expected letters, digits and hyphens");
        while (name.length() > LONGEST_NAME) {
            line("rejected, a name has twenty letters at most");
            name = ask("Its name? ", LABEL, "rejected, expected letters, digits and hyphens");
        }
        memory.put("name", name);
    }

    private void domain() throws InterruptedException {
        memory.put("domain", ask("Domain? "));
    }

    private String way() throws InterruptedException {
        String way = ask("Which way out? ", PLAIN, "rejected, expected one address");
        while (refusesOnce()) {
            line("rejected, nobody there on this cable");
            way = ask("Which way out? ", PLAIN, "rejected, expected one address");
        }
        return way;
    }

    private String suggest(String question, String suggestion) throws InterruptedException {
        String typed = ask(question + " [" + suggestion + "] ");
        return typed.isEmpty() ? suggestion : typed;
    }

    /** Longer than the machine thinks a screen to be: it waits for a space in the middle. */
    private void listing() throws InterruptedException {
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("address", memory.get("address"));
        shown.put("mask", memory.get("mask"));
        shown.put("out by", memory.get("way"));
        shown.put("name", memory.get("name") + "." + memory.get("domain"));
        shown.put("names from", memory.get("names"));
        shown.put("time from", memory.get("time"));
        shown.put("zone", memory.get("zone"));
        shown.put("manager", memory.get("manager"));
        shown.put("diagnostics", memory.get("diagnostics"));
        int row = 0;
        for (Map.Entry<String, String> each : shown.entrySet()) {
            if (row++ == shown.size() / 2) {
                more();
            }
            line(String.format("  %-12s %s", each.getKey(), each.getValue()));
        }
    }

    private void more() throws InterruptedException {
        print("(space for more)");
        while (key() != ' ') {
            print("\007");
        }
        print("\r                \r");
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return List.of("steward", "watch").contains(user)
                && phrase.equals(memory.has(user) ? memory.get(user) : FACTORY);
    }

    @Override
    void shell() throws InterruptedException, Restart {
        while (true) {
            switch (ask("brathay$ ")) {
                case "" -> {
                    // an empty line is no command
                }
                case "settings" -> listing();
                case "fabric" -> {
                    line("  part " + memory.get("manager"));
                    line(
                            memory.get("manager").equals("none")
                                    ? "  no subnet manager here"
                                    : "  subnet manager runs here, no cable on any port");
                }
                default -> line("rejected, it knows settings and fabric");
            }
        }
    }
}
