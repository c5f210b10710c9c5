package lychnos.lab.console;

import io.vertx.core.Vertx;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Skeggle array for files. Its first password is on a card in its box. It tries on the spot whether its name servers
 * answer, serves files at an address without a router, and lets accounts of a directory in once it has joined.
 */
final class FileArray extends ConsoleMachine {

    private static final Pattern WITH_LENGTH = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d+");
    private static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern VLAN = Pattern.compile("[1-9][0-9]{0,3}");
    private static final Pattern ANY = Pattern.compile(".+");
    private static final Pattern YES_OR_NO = Pattern.compile("yes|no");
    private static final int SHORTEST_PASSWORD = 10;

    private final Face face;
    private final Vertx vertx;
    private FilePort files;

    FileArray(ConsoleSpec spec, Memory memory, long restartMillis, Face face, Vertx vertx) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.overSsh(this);
        face.serve(new FileArrayPages(this, card()));
        this.vertx = vertx;
    }

    @Override
    public String settings() {
        return "38400-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("password", "somebody-elses-9");
        memory.put("name", "of-somebody");
        memory.put("saved", "yes");
    }

    @Override
    void networkDown() {
        if (files != null) {
            files.close();
            files = null;
        }
        face.hide();
    }

    private boolean saved() {
        return memory.has("saved");
    }

    @Override
    String logLine(String text) {
        return "shelf: " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Skeggle files " + serial() + ", left controller, " + (saved() ? "in service" : "unused");
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("24 drives spin up");
        pause(60);
        if (!saved()) {
            memory.forget();
        }
        greet();
        if (saved()) {
            if (memory.has("manage")) {
                face.show(bare("manage"));
                face.show(bare("files"));
                files = new FilePort(vertx, bare("files"));
            }
            line("files are served");
        }
        signIn();
        if (!saved()) {
            firstSetup();
        }
        shell();
    }

    private String bare(String name) {
        return memory.get(name).replaceFirst("/.*", "");
    }

    private void signIn() throws InterruptedException {
        while (true) {
            String user = ask("login > ");
            String password = ask("password > ", false);
            if (signsIn(user, password)) {
                memory.add("seen.logins");
                return;
            }
            memory.add("seen.refusedLogins");
            pause(300);
            line("error: wrong login or password");
        }
    }

    private void firstSetup() throws InterruptedException, Restart {
        while (!memory.has("password")) {
            String first = ask("new password > ", false);
            if (first.length() < SHORTEST_PASSWORD) {
                line("error: at least " + SHORTEST_PASSWORD + " characters");
            } else if (ask("new password, again > ", false).equals(first)) {
                memory.put("password", first);
                memory.add("seen.phraseChanges");
            } else {
                line("error: the two differ");
            }
        }
        do {
            questions();
            listing();
        } while (!ask("save or start over > ").equals("save"));
        memory.put("manage", keptAddress(memory.get("manage")));
        memory.put("saved", "yes");
        line("saved, both controllers restart");
        throw new Restart();
    }

    private void questions() throws InterruptedException {
        given("files VLAN > ", "vlan", VLAN);
        given("files address/length > ", "files", WITH_LENGTH);
        given("files ports aggregated, yes or no > ", "aggregated", YES_OR_NO);
        if (memory.get("aggregated").equals("yes")) {
            ask("switch ports aggregated too > ", Pattern.compile("yes"), "error: one end alone carries no traffic");
        }
        if (spec.has(Habit.ORDER_CHANGED)) {
            given("array domain > ", "domain", ANY);
            given("array name > ", "name", ANY);
        } else {
            given("array name > ", "name", ANY);
            given("array domain > ", "domain", ANY);
        }
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("shelves with a lit lamp > ");
        }
        given("manage address/length > ", "manage", WITH_LENGTH);
        given("manage router > ", "router", PLAIN);
        while (refusesOnce()) {
            line("error: " + memory.get("router") + " is not in that network");
            given("manage router > ", "router", PLAIN);
        }
        resolver();
        given("time server > ", "time", PLAIN);
        given("time zone > ", "zone", ANY);
    }

    private void given(String prompt, String name, Pattern wanted) throws InterruptedException {
        memory.put(name, ask(prompt, wanted, "error: wrong form"));
    }

    /** Holds its address for as long as it takes to try whether the name server answers from there. */
    private void resolver() throws InterruptedException {
        while (true) {
            given("name server > ", "resolver", PLAIN);
            String server = memory.get("resolver");
            face.show(bare("manage"));
            OwnCheck.Found found =
                    OwnCheck.ask(bare("manage"), server, memory.get("name") + "." + memory.get("domain"));
            face.hide();
            if (found != OwnCheck.Found.SILENT) {
                line("tried: " + server
                        + (found == OwnCheck.Found.KNOWN ? " knows this array" : " does not know this array yet"));
                return;
            }
            line("error: " + server + " does not answer this array");
        }
    }

    private void listing() {
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("name", memory.get("name") + "." + memory.get("domain"));
        shown.put("files", memory.get("files") + " VLAN " + memory.get("vlan"));
        shown.put("aggregated", memory.get("aggregated"));
        shown.put("manage", memory.get("manage") + " by " + memory.get("router"));
        shown.put("resolver", memory.get("resolver"));
        shown.put("time", memory.get("time") + " " + memory.get("zone"));
        shown.put(
                "directory",
                memory.has("directory") ? memory.get("directory") + " for " + memory.get("group") : "not joined");
        shown.put("system", "release " + release("14.2"));
        shown.put("now", clock());
        shown.forEach((name, value) -> line(String.format("%12s | %s", name, value)));
    }

    /** An account of its own, or one that its directory knows. */
    @Override
    boolean signsIn(String user, String phrase) {
        if (user.equals("warder")) {
            return phrase.equals(memory.has("password") ? memory.get("password") : card());
        }
        return memory.has("directory")
                && LdapBind.ask(bare("manage"), memory.get("directory"), user, phrase) == LdapBind.Answer.ADMITTED;
    }

    private String card() {
        return spec.first().equals("-") ? "card-" + spec.serial() : spec.first();
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            String[] word = ask("skeggle/left > ").split(" ");
            switch (word[0]) {
                case "" -> {
                    // an empty line is no command
                }
                case "settings" -> listing();
                case "join" -> join(word);
                default -> line("error: commands are settings and join");
            }
        }
    }

    private void join(String[] word) throws InterruptedException {
        if (word.length != 4) {
            line("error: join SERVER ACCOUNT GROUP");
            return;
        }
        String password = ask("password of " + word[2] + " > ", false);
        LdapBind.Answer answer = LdapBind.ask(bare("manage"), word[1], word[2], password);
        if (answer == LdapBind.Answer.ADMITTED) {
            memory.put("directory", word[1]);
            memory.put("group", word[3]);
            line("joined");
        } else {
            line("error: the directory "
                    + (answer == LdapBind.Answer.SILENT ? "does not answer" : "refuses " + word[2]));
        }
    }
}
