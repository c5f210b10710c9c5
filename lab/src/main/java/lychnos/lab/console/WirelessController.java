package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Mungris wireless controller in a virtual machine, on a line port of its host. It asks first for what it shares with
 * its peers, then for its own address, and last for the account; radios are added later.
 */
final class WirelessController extends ConsoleMachine {

    private static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern WITH_LENGTH = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d+");
    private static final Pattern TAG = Pattern.compile("untagged|[1-9][0-9]{0,3}");
    private static final Pattern PORT = Pattern.compile("[a-d]?");
    private static final Pattern COUNTRY = Pattern.compile("[A-Z]{2}");
    private static final Pattern ACCOUNT = Pattern.compile("[a-z]{3,16}");
    private static final Pattern ANY = Pattern.compile(".+");
    private static final int SHORTEST_PASSWORD = 8;

    private final Face face;

    WirelessController(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.overSsh(this);
        face.serve(new WirelessPages(this));
    }

    @Override
    public String settings() {
        return "9600-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("password", "somebody-elses-9");
        memory.put("account", "somebody");
        memory.put("saved", "yes");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    private boolean saved() {
        return memory.has("saved");
    }

    @Override
    String logLine(String text) {
        return "mungris| " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Mungris air controller, serial " + serial() + ": " + (saved() ? "configured" : "factory state");
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("radio table empty");
        pause(60);
        if (!saved()) {
            memory.forget();
        }
        greet();
        if (saved()) {
            if (memory.has("address")) {
                face.show(memory.get("address").replaceFirst("/.*", ""));
            }
            line("radio service ready");
            signIn();
            shell();
        } else {
            firstSetup();
        }
    }

    private void signIn() throws InterruptedException {
        while (!signsIn(ask("account :: "), ask("password :: ", false))) {
            memory.add("seen.refusedLogins");
            pause(300);
            line("not accepted: account or password");
        }
        memory.add("seen.logins");
    }

    private void firstSetup() throws InterruptedException, Restart {
        do {
            shared();
            own();
            account();
            listing();
        } while (!ask("save or edit? ").equals("save"));
        memory.put("address", keptAddress(memory.get("address")));
        memory.put("saved", "yes");
        line("saved, restarting");
        throw new Restart();
    }

    /** What is the same on every controller of a roaming group. */
    private void shared() throws InterruptedException {
        if (spec.has(Habit.ORDER_CHANGED)) {
            given("roaming", "roaming group :: ", ANY);
            given("time", "time from :: ", PLAIN);
        } else {
            given("time", "time from :: ", PLAIN);
            given("roaming", "roaming group :: ", ANY);
        }
        given("country", "radio rules of country :: ", COUNTRY);
        given("redirect", "clients log in at :: ", PLAIN);
    }

    private void own() throws InterruptedException {
        String suggested = spec.has(Habit.WRONG_DEFAULT) ? "c" : "a";
        String port = ask("uplink port, a to d [" + suggested + "] :: ", PORT, "not accepted: a, b, c or d");
        memory.put("port", port.isEmpty() ? suggested : port);
        given("tag", "uplink VLAN or untagged :: ", TAG);
        given("address", "address/length :: ", WITH_LENGTH);
        given("router", "router :: ", PLAIN);
        while (refusesOnce()) {
            line("not accepted: router is outside of the network of the address");
            given("router", "router :: ", PLAIN);
        }
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("antenna gain in dB :: ");
        }
        given("name", "controller name :: ", ANY);
        String service = ask("service port address [dhcp] :: ");
        memory.put("service", service.isEmpty() ? "dhcp" : service);
        given("relay", "relay DHCP requests to :: ", PLAIN);
    }

    private void given(String name, String prompt, Pattern wanted) throws InterruptedException {
        memory.put(name, ask(prompt, wanted, "not accepted: wrong form"));
    }

    private void account() throws InterruptedException {
        given("account", "account :: ", ACCOUNT);
        while (true) {
            String first = ask("password :: ", false);
            if (first.length() < SHORTEST_PASSWORD) {
                line("not accepted: 8 characters at least");
            } else if (ask("password, once more :: ", false).equals(first)) {
                memory.put("password", first);
                memory.add("seen.phraseChanges");
                return;
            } else {
                line("not accepted: the two differ");
            }
        }
    }

    private void listing() {
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("time", memory.get("time"));
        shown.put("roaming", memory.get("roaming") + " (" + memory.get("country") + ")");
        shown.put("log-in page", memory.get("redirect"));
        shown.put("uplink", memory.get("port") + " " + memory.get("tag"));
        shown.put("address", memory.get("address"));
        shown.put("router", memory.get("router"));
        shown.put("name", memory.get("name"));
        shown.put("relay", memory.get("relay"));
        shown.put("firmware", release("8.8.1"));
        shown.put("now", clock());
        shown.forEach((name, value) -> line(String.format("  %s -> %s", name, value)));
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals(memory.get("account")) && phrase.equals(memory.get("password"));
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            switch (ask("mungris/ ")) {
                case "" -> {
                    // an empty line is no command
                }
                case "print setup" -> listing();
                case "print radios" -> line("  0 radios, no client network yet");
                case "ping router" -> reach();
                default -> line("not accepted: print setup, print radios or ping router");
            }
        }
    }

    private void reach() {
        String own = memory.get("address").replaceFirst("/.*", "");
        line("  router " + (OwnReach.answers(own, memory.get("router")) ? "answers" : "is silent"));
    }
}
