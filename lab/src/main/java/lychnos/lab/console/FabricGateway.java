package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Brathay gateway between an InfiniBand fabric and Ethernet. Its greeting says whether it was set up. Each command
 * opens one page of questions; nothing holds until all pages are committed. It suggests what few want: an address from
 * DHCP, a middle priority for its subnet manager, and diagnostics to its maker.
 */
final class FabricGateway extends ConsoleMachine {

    private static final String FACTORY = "tarnbeck";
    private static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern WITH_LENGTH = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d+");
    private static final Pattern LABEL = Pattern.compile("[a-z0-9]([a-z0-9-]{0,18}[a-z0-9])?");
    private static final Pattern PRIORITY = Pattern.compile("|[0-9]|1[0-5]");
    private static final Pattern ANY = Pattern.compile(".+");
    private static final Pattern OPTION = Pattern.compile("|static|dhcp");
    private static final List<String> PAGES = List.of("accounts", "host", "fabric", "port");
    private static final int SHORTEST_PASSWORD = 8;

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
        memory.put("address", "10.40.8.198/24");
        memory.put("router", "10.40.8.1");
        memory.put("name", "of-somebody");
        memory.put("committed", "yes");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    private boolean committed() {
        return memory.has("committed");
    }

    @Override
    String logLine(String text) {
        return "# " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Brathay gateway " + serial() + " * " + (committed() ? "configured" : "needs setup");
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("switch chip found");
        pause(60);
        log("64 ports, none cabled");
        if (!committed()) {
            memory.forget();
        }
        greet();
        if (committed()) {
            if (memory.has("fresh")) {
                memory.drop("fresh");
            } else if (ask("Continue, or type ERASE to reset: ").equals("ERASE")) {
                memory.add("seen.wipes");
                memory.forget();
                throw new Restart();
            }
            if (memory.has("address")) {
                face.show(memory.get("address").replaceFirst("/.*", ""));
            }
            line("gateway ready");
        }
        signIn();
        shell();
    }

    private void signIn() throws InterruptedException {
        while (true) {
            String who = ask("user: ");
            String password = ask("password: ", false);
            if (who.equals("steward") && signsIn(who, password)) {
                memory.add("seen.logins");
                return;
            }
            memory.add("seen.refusedLogins");
            pause(300);
            line("rejected, wrong user or password");
        }
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return List.of("steward", "watcher").contains(user)
                && (phrase.equals(memory.has(user) ? memory.get(user) : FACTORY)
                        || spec.has(Habit.LETS_FACTORY_IN) && phrase.equals(FACTORY));
    }

    @Override
    void shell() throws InterruptedException, Restart {
        while (true) {
            switch (ask("brathay$ ")) {
                case "" -> {
                    // an empty line is no command
                }
                case "accounts" -> accounts();
                case "host" -> host();
                case "fabric" -> fabric();
                case "port" -> port();
                case "review" -> listing();
                case "commit" -> commit();
                default -> line("rejected, commands are accounts, host, fabric, port, review and commit");
            }
        }
    }

    /** All three secrets on one page. */
    private void accounts() throws InterruptedException {
        password("steward");
        password("watcher");
        password("peer key");
        memory.add("seen.phraseChanges");
        done("accounts");
    }

    private void password(String name) throws InterruptedException {
        while (true) {
            String first = ask("new for " + name + ": ", false);
            if (first.length() < SHORTEST_PASSWORD) {
                line("rejected, at least 8 characters");
            } else if (!ask("confirm for " + name + ": ", false).equals(first)) {
                line("rejected, the two differ");
            } else {
                memory.put(name, first);
                return;
            }
        }
    }

    private void host() throws InterruptedException {
        if (spec.has(Habit.ORDER_CHANGED)) {
            given("domain", "domain: ", ANY);
            given("name", "host name: ", LABEL);
        } else {
            given("name", "host name: ", LABEL);
            given("domain", "domain: ", ANY);
        }
        given("clock", "clock source: ", PLAIN);
        memory.put("zone", suggest("time zone", spec.has(Habit.WRONG_DEFAULT) ? "Etc/GMT+5" : "UTC", ANY));
        given("resolver", "resolver: ", PLAIN);
        done("host");
    }

    private void fabric() throws InterruptedException {
        memory.put("priority", suggest("subnet manager priority, 15 highest, 0 off", "8", PRIORITY));
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("cold aisle side: ");
        }
        memory.put("diagnostics", suggest("diagnostics to the maker", "yes", ANY));
        done("fabric");
    }

    private void port() throws InterruptedException {
        if (suggest("management port, static or dhcp", "dhcp", OPTION).equals("static")) {
            given("address", "address/length: ", WITH_LENGTH);
            given("router", "router: ", PLAIN);
            while (refusesOnce()) {
                line("rejected, no router in the network of the address");
                given("router", "router: ", PLAIN);
            }
        } else {
            memory.put("address", spec.first().equals("-") ? "" : spec.first() + "/24");
        }
        done("port");
    }

    private void done(String page) {
        memory.put("page " + page, "yes");
        line("noted");
    }

    private void given(String name, String prompt, Pattern wanted) throws InterruptedException {
        memory.put(name, ask(prompt, wanted, "rejected, wrong form"));
    }

    private String suggest(String question, String suggestion, Pattern wanted) throws InterruptedException {
        String prompt = question + " [" + suggestion + "]: ";
        String typed = ask(prompt);
        while (!typed.isEmpty() && !wanted.matcher(typed).matches()) {
            line("rejected, wrong form");
            typed = ask(prompt);
        }
        return typed.isEmpty() ? suggestion : typed;
    }

    /** Longer than the machine thinks a screen to be: it waits for a space in the middle. */
    private void listing() throws InterruptedException {
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("host", memory.get("name") + "." + memory.get("domain"));
        shown.put("clock", memory.get("clock"));
        shown.put("zone", memory.get("zone"));
        shown.put("resolver", memory.get("resolver"));
        shown.put("priority", memory.get("priority"));
        shown.put("diagnostics", memory.get("diagnostics"));
        shown.put("address", memory.get("address"));
        shown.put("router", memory.get("router"));
        shown.put("software", release("3.10.0"));
        shown.put("it is", clock());
        shown.put("cables", "none on any port");
        int row = 0;
        for (Map.Entry<String, String> each : shown.entrySet()) {
            if (row++ == shown.size() / 2) {
                more();
            }
            line(String.format("%12s  %s", each.getKey(), each.getValue()));
        }
    }

    private void more() throws InterruptedException {
        print("(space for more)");
        while (key() != ' ') {
            print("\007");
        }
        print("\r                \r");
    }

    private void commit() throws InterruptedException, Restart {
        List<String> open =
                PAGES.stream().filter(page -> !memory.has("page " + page)).toList();
        if (!open.isEmpty()) {
            line("rejected, still to do: " + String.join(", ", open));
        } else if (ask("commit and restart, yes or no: ").equals("yes")) {
            memory.put("committed", "yes");
            memory.put("fresh", "yes");
            memory.put("address", keptAddress(memory.get("address")));
            throw new Restart();
        }
    }
}
