package lychnos.lab.console;

import io.vertx.core.Vertx;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;

/**
 * One of the two controllers of a Bannisdale array for blocks. It begins on the console of the active one and ends on
 * pages. Both controllers share what was set, and the one that stands by answers
 * at its own check address.
 */
final class BlockArray extends ConsoleMachine {

    private static final Pattern WITH_LENGTH = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d+");
    private static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern NAME = Pattern.compile("[a-z][a-z0-9-]{0,23}");
    private static final Pattern AGREED = Pattern.compile("agreed");
    private static final Pattern ANY = Pattern.compile(".+");
    private static final String FACTORY = "sleddale";
    static final int SHORTEST_PHRASE = 10;
    private static final int MOST_PORTS = 8;

    /** Its listing: what each line is called, and what it shows. */
    private static final Map<String, String> LISTED = Map.of(
            "array", "array",
            "federation", "federation",
            "address", "management",
            "hop", "hop",
            "check a", "check a",
            "check b", "check b",
            "resolvers", "resolvers",
            "domain", "domain",
            "clock", "clock",
            "zone", "zone");

    private static final int ISCSI = 3260;

    private final Vertx vertx;
    private final Face face;
    private StoragePortal portal;
    private final Supplier<Optional<BlockArray>> other;

    BlockArray(
            ConsoleSpec spec,
            Memory memory,
            long restartMillis,
            Vertx vertx,
            Face face,
            Supplier<Optional<BlockArray>> other) {
        super(spec, memory, restartMillis);
        this.vertx = vertx;
        this.face = face;
        face.overSsh(this);
        this.other = other;
        face.serve(new BlockArrayPages(this));
    }

    @Override
    public String settings() {
        return "9600-7E1";
    }

    @Override
    void pretendUsed() {
        memory.put("phrase", "somebody-elses-9");
        memory.put("laid", "yes");
    }

    @Override
    void networkDown() {
        if (portal != null) {
            portal.close();
            portal = null;
        }
        face.hide();
    }

    private boolean first() {
        return spec.place().equals("1");
    }

    /** Controller a is the active one, unless it stands by; then the other one is. */
    boolean active() {
        boolean a = first() != spec.has(Habit.STANDS_BY);
        return a && !(!first() && other.get().filter(BlockArray::active).isPresent());
    }

    private boolean laid() {
        return memory.has("laid");
    }

    @Override
    String logLine(String text) {
        return "<shelf 0> " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Bannisdale block array " + serial() + " | controller " + (first() ? "a" : "b") + " | "
                + (active() ? "active, " + (laid() ? "in use" : "as built") : "stand-by");
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("both shelves seen");
        pause(60);
        if (!laid()) {
            memory.forget();
        }
        greet();
        if (laid()) {
            serve();
            line("both controllers serve");
        }
        while (true) {
            signIn();
            if (!laid()) {
                firstSetup();
            }
            shell();
        }
    }

    private void serve() {
        hold(first() ? "check a" : "check b");
        if (active()) {
            hold("management");
            if (memory.get("service").equals("in service")) {
                serveData();
            }
        }
    }

    private void hold(String name) {
        if (memory.has(name)) {
            face.show(memory.get(name).replaceFirst("/.*", ""));
        }
    }

    void serveData() {
        hold("portal");
        if (portal == null && memory.has("portal")) {
            portal = new StoragePortal(
                    vertx,
                    memory.get("portal"),
                    ISCSI,
                    "iqn.2026-11.example.bannisdale:" + serial().toLowerCase(Locale.ROOT),
                    this::dataAddresses);
        }
        for (int i = 0; i < MOST_PORTS; i++) {
            hold("port" + i);
        }
    }

    private List<String> dataAddresses() {
        List<String> addresses = new ArrayList<>();
        for (int i = 0; i < MOST_PORTS; i++) {
            if (memory.has("port" + i)) {
                addresses.add(spec.has(Habit.OLD_ADDRESS) ? "169.254.7." + i : memory.get("port" + i));
            }
        }
        return addresses;
    }

    private void signIn() throws InterruptedException {
        while (true) {
            String account = ask("curator's account: ");
            String phrase = ask("curator's pass phrase: ", false);
            if (!active()) {
                line("-- not here: this controller stands by");
            } else if (signsIn(account, phrase)) {
                memory.add("seen.logins");
                return;
            } else {
                memory.add("seen.refusedLogins");
                pause(300);
                line("-- not so: account and phrase do not fit");
            }
        }
    }

    private void firstSetup() throws InterruptedException, Restart {
        ask("Terms of use read and agreed to? ", AGREED, "-- not so: nothing goes on before they are agreed to");
        do {
            if (spec.has(Habit.ORDER_CHANGED)) {
                hop();
                asking("management", "Management address: ", WITH_LENGTH);
            } else {
                asking("management", "Management address: ", WITH_LENGTH);
                hop();
            }
            asking("check a", "Check address of controller a: ", PLAIN);
            asking("check b", "Check address of controller b: ", PLAIN);
            if (spec.has(Habit.EXTRA_QUESTION)) {
                ask("Which aisle hears its fans: ");
            }
            phrase();
            asking("array", "Array name: ", NAME);
            asking("domain", "Domain of the array: ", ANY);
            asking("clock", "Clock: ", PLAIN);
            asking("zone", "Zone of the clock: ", ANY);
            asking("resolvers", "Resolvers, a blank between: ", ANY);
            asking("federation", "Federation, or none: ", NAME);
            listing();
        } while (!ask("Apply or repeat? ").equals("apply"));
        memory.put("management", keptAddress(memory.get("management")));
        memory.put("laid", "yes");
        other.get().filter(each -> !spec.has(Habit.PEER_NOT_SEEN)).ifPresent(this::share);
        throw new Restart();
    }

    private void asking(String name, String prompt, Pattern wanted) throws InterruptedException {
        memory.put(name, ask(prompt, wanted, "-- not so: that is no answer to this"));
    }

    private void hop() throws InterruptedException {
        String hop = ask("Default hop: ", PLAIN, "-- not so: that is no answer to this");
        while (refusesOnce()) {
            line("-- not so: no such hop beside the management address");
            hop = ask("Default hop: ", PLAIN, "-- not so: that is no answer to this");
        }
        memory.put("hop", hop);
    }

    private void phrase() throws InterruptedException {
        while (true) {
            String phrase = ask("Curator's new pass phrase: ", false);
            if (phrase.length() < SHORTEST_PHRASE) {
                line("-- not so: ten letters or more");
            } else if (ask("The phrase again: ", false).equals(phrase)) {
                memory.put("phrase", phrase);
                memory.add("seen.phraseChanges");
                return;
            } else {
                line("-- not so: that was another one");
            }
        }
    }

    private void share(BlockArray peer) {
        for (String name : List.of(
                "array",
                "federation",
                "management",
                "hop",
                "check a",
                "check b",
                "resolvers",
                "domain",
                "clock",
                "zone",
                "phrase",
                "laid")) {
            peer.memory.put(name, memory.get(name));
        }
        peer.serve();
    }

    private void listing() {
        LISTED.entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .forEach(each -> line(String.format("  %-11s .. %s", each.getKey(), shown(each.getValue()))));
    }

    private String shown(String name) {
        return spec.has(Habit.OLD_ADDRESS) && name.equals("management") && laid()
                ? keptAddress(memory.get(name))
                : memory.get(name);
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("curator") && phrase.equals(memory.has("phrase") ? memory.get("phrase") : FACTORY);
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            switch (ask("bannisdale: ")) {
                case "" -> {
                    // an empty line is no command
                }
                case "report" -> {
                    listing();
                    line("  microcode   .. " + release("8.0.2"));
                    line("  utc         .. " + clock());
                    line("  controllers .. a " + (first() == active() ? "active" : "stands by") + ", b "
                            + (spec.has(Habit.PEER_NOT_SEEN) || other.get().isEmpty()
                                    ? "not seen"
                                    : first() == active() ? "stands by" : "active"));
                }
                case "leave" -> {
                    return;
                }
                default -> line("-- not so: it knows report and leave");
            }
        }
    }
}
