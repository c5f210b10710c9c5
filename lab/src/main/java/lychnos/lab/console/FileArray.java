package lychnos.lab.console;

import io.vertx.core.Vertx;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Skeggle array for files. Its first password is the number on its label. It tries on the spot whether its name
 * server answers, has a data address without a way out, and joins a directory afterwards.
 */
final class FileArray extends ConsoleMachine {

    private static final Pattern WITH_LENGTH = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d+");
    private static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern TAG = Pattern.compile("[1-9][0-9]{0,3}");
    private static final Pattern ANY = Pattern.compile(".+");
    private static final Pattern YES_OR_NO = Pattern.compile("yes|no");
    private static final int SHORTEST_SECRET = 10;

    private final Face face;

    private final Vertx vertx;
    private FilePort files;

    FileArray(ConsoleSpec spec, Memory memory, long restartMillis, Face face, Vertx vertx) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.overSsh(this);
        this.vertx = vertx;
    }

    @Override
    public String settings() {
        return "38400-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("secret", "somebody-elses-9");
        memory.put("name", "of-somebody");
        memory.put("kept", "yes");
    }

    @Override
    void networkDown() {
        if (files != null) {
            files.close();
            files = null;
        }
        face.hide();
    }

    private boolean kept() {
        return memory.has("kept");
    }

    @Override
    String logLine(String text) {
        return "! shelf: " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Skeggle array " + serial() + " -- " + (kept() ? "in service" : "as delivered");
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("24 drives spin up");
        pause(60);
        if (!kept()) {
            memory.forget();
        }
        greet();
        if (kept()) {
            if (memory.has("admin")) {
                face.show(bare("admin"));
                face.show(bare("data"));
                files = new FilePort(vertx, bare("data"));
            }
            line("array serves files");
        }
        signIn();
        if (!kept()) {
            firstSetup();
        }
        shell();
    }

    private String bare(String name) {
        return memory.get(name).replaceFirst("/.*", "");
    }

    private void signIn() throws InterruptedException {
        while (true) {
            String user = ask("user ? ");
            String secret = ask("secret ? ", false);
            if (signsIn(user, secret)) {
                memory.add("seen.logins");
                return;
            }
            memory.add("seen.refusedLogins");
            pause(300);
            line("no: user and secret do not belong together");
        }
    }

    private void firstSetup() throws InterruptedException, Restart {
        while (!memory.has("secret")) {
            String first = ask("a secret of your own ? ", false);
            if (first.length() < SHORTEST_SECRET) {
                line("no: a secret has ten letters or more");
            } else if (ask("and once again ? ", false).equals(first)) {
                memory.put("secret", first);
                memory.add("seen.phraseChanges");
            } else {
                line("no: that was another one");
            }
        }
        do {
            questions();
            listing();
        } while (!ask("write all of it, or redo ? ").equals("write"));
        memory.put("admin", keptAddress(memory.get("admin")));
        memory.put("kept", "yes");
        line("written; all shelves begin anew");
        throw new Restart();
    }

    private void questions() throws InterruptedException {
        if (spec.has(Habit.ORDER_CHANGED)) {
            text("under which domain ? ", "domain");
            text("what is it called ? ", "name");
        } else {
            text("what is it called ? ", "name");
            text("under which domain ? ", "domain");
        }
        memory.put("admin", ask("admin address and length ? ", WITH_LENGTH, "no: expected an address with its length"));
        memory.put("out", out());
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("how many shelves are lit ? ");
        }
        resolver();
        text("who has the time ? ", "time");
        text("where does it stand, as a zone ? ", "zone");
        memory.put("data", ask("data address and length ? ", WITH_LENGTH, "no: expected an address with its length"));
        memory.put("tag", ask("tag of the data VLAN ? ", TAG, "no: a tag lies between 1 and 4094"));
        memory.put("bundle", ask("data ports as one bundle ? ", YES_OR_NO, "no: yes or no"));
        if (memory.get("bundle").equals("yes")) {
            ask("is the switch bundled too ? ", Pattern.compile("yes"), "no: one end alone carries nothing");
        }
    }

    private void text(String prompt, String name) throws InterruptedException {
        memory.put(name, ask(prompt, ANY, "no: something is wanted here"));
    }

    private String out() throws InterruptedException {
        String out = ask("admin leaves by ? ", PLAIN, "no: expected one address");
        while (refusesOnce()) {
            line("no: " + out + " is not on that cable");
            out = ask("admin leaves by ? ", PLAIN, "no: expected one address");
        }
        return out;
    }

    /** Holds its address for as long as it takes to try whether the name server answers from there. */
    private void resolver() throws InterruptedException {
        while (true) {
            String server = ask("who resolves names ? ", PLAIN, "no: expected one address");
            memory.put("names", server);
            face.show(bare("admin"));
            OwnCheck.Found found = OwnCheck.ask(bare("admin"), server, memory.get("name") + "." + memory.get("domain"));
            face.hide();
            if (found != OwnCheck.Found.SILENT) {
                line("tried from here: " + server
                        + (found == OwnCheck.Found.KNOWN ? " knows it" : " does not know it yet"));
                return;
            }
            line("no: " + server + " is silent from here");
        }
    }

    private void listing() {
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("called", memory.get("name") + "." + memory.get("domain"));
        shown.put("admin", memory.get("admin"));
        shown.put("leaves by", memory.get("out"));
        shown.put("names", memory.get("names"));
        shown.put("time", memory.get("time") + " (" + memory.get("zone") + ")");
        shown.put("data", memory.get("data") + " on tag " + memory.get("tag"));
        shown.put("bundle", memory.get("bundle"));
        shown.put(
                "directory",
                memory.has("directory") ? memory.get("directory") + " group " + memory.get("group") : "none");
        shown.forEach((name, value) -> line(String.format("  %-10s = %s", name, value)));
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("warder") && phrase.equals(memory.has("secret") ? memory.get("secret") : serial());
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            String[] word = ask("skeggle: ").split(" ");
            switch (word[0]) {
                case "" -> {
                    // an empty line is no command
                }
                case "list" -> listing();
                case "join" -> join(word);
                case "try" -> tryAccount(word);
                default -> line("no: it knows list, join and try");
            }
        }
    }

    private void join(String[] word) throws InterruptedException {
        if (word.length != 4) {
            line("no: join SERVER ACCOUNT GROUP");
            return;
        }
        String secret = ask("secret of " + word[2] + " ? ", false);
        LdapBind.Answer answer = LdapBind.ask(bare("admin"), word[1], word[2], secret);
        if (answer == LdapBind.Answer.ADMITTED) {
            memory.put("directory", word[1]);
            memory.put("group", word[3]);
            line("joined");
        } else {
            line("no: the directory " + (answer == LdapBind.Answer.SILENT ? "does not answer" : "refuses " + word[2]));
        }
    }

    /** A log-in of a person that only the directory knows. */
    private void tryAccount(String[] word) throws InterruptedException {
        if (word.length != 2 || !memory.has("directory")) {
            line("no: try ACCOUNT, once it has joined");
            return;
        }
        String secret = ask("secret of " + word[1] + " ? ", false);
        boolean admitted =
                LdapBind.ask(bare("admin"), memory.get("directory"), word[1], secret) == LdapBind.Answer.ADMITTED;
        line(admitted ? word[1] + " would get in, by the directory" : "no: " + word[1] + " would stay out");
    }
}
