package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A Dunmail manager of consoles in a virtual machine. It asks nothing: one command sets everything, it takes all of it
 * or none, and says at once what it would keep.
 */
final class ConsoleManager extends ConsoleMachine {

    private static final String PROMPT = "dunmail> ";
    private static final Pattern WORD = Pattern.compile("(\\w+)=(\\S+)");
    private static final String PLAIN = "\\d+\\.\\d+\\.\\d+\\.\\d+";
    private static final Map<String, Pattern> WANTED = new LinkedHashMap<>();
    private static final int SHORTEST_WORD = 10;

    static {
        WANTED.put("host", Pattern.compile("[a-z0-9-]+(\\.[a-z0-9-]+)*"));
        WANTED.put("address", Pattern.compile(PLAIN + "/\\d+"));
        WANTED.put("router", Pattern.compile(PLAIN));
        WANTED.put("names", Pattern.compile(PLAIN + "(," + PLAIN + ")?"));
        WANTED.put("time", Pattern.compile(PLAIN));
        WANTED.put("account", Pattern.compile("[a-z]+"));
    }

    private final Face face;

    ConsoleManager(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.overSsh(this);
        face.serve(new ConsoleManagerPages(this));
    }

    @Override
    public String settings() {
        return "19200-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("account", "somebody");
        memory.put("word", "somebody-elses-9");
        memory.put("kept", "yes");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    @Override
    String logLine(String text) {
        return "-- " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Dunmail " + serial() + " : " + (memory.has("kept") ? "settings kept" : "no settings kept");
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("one port for a line, one for a cable");
        pause(60);
        if (memory.has("kept")) {
            greet();
            if (memory.has("address")) {
                face.show(memory.get("address").replaceFirst("/.*", ""));
            }
            line("its ports may be used");
            signIn();
        } else {
            memory.forget();
            greet();
        }
        shell();
    }

    private void signIn() throws InterruptedException {
        while (!signsIn(ask("account> "), ask("word> ", false))) {
            memory.add("seen.refusedLogins");
            pause(300);
            line("refused: no such account with that word");
        }
        memory.add("seen.logins");
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals(memory.get("account")) && phrase.equals(memory.get("word"));
    }

    @Override
    void shell() throws InterruptedException, Restart {
        while (true) {
            String typed = ask(PROMPT);
            switch (typed.split(" ")[0]) {
                case "" -> {
                    // an empty line is no command
                }
                case "set" -> set(typed);
                case "show" -> show();
                case "drop" -> drop(typed);
                case "keep" -> keep();
                default -> line("refused: it knows set, drop, show and keep");
            }
        }
    }

    /** Everything in one line, whole or not at all; then the account's word, twice. */
    private void set(String typed) throws InterruptedException {
        Map<String, String> given = new LinkedHashMap<>();
        Matcher words = WORD.matcher(typed);
        while (words.find()) {
            given.put(words.group(1), words.group(2));
        }
        for (Map.Entry<String, Pattern> wanted : WANTED.entrySet()) {
            if (!wanted.getValue()
                    .matcher(given.getOrDefault(wanted.getKey(), ""))
                    .matches()) {
                line("refused: " + wanted.getKey() + " is not as it should be");
                return;
            }
        }
        if (refusesOnce()) {
            line("refused: that router is in another network");
            return;
        }
        String word = ask("word for " + given.get("account") + ": ", false);
        while (word.length() < SHORTEST_WORD || !ask("once more: ", false).equals(word)) {
            line("refused: ten letters or more, twice the same");
            word = ask("word for " + given.get("account") + ": ", false);
        }
        given.forEach(memory::put);
        memory.put("word", word);
        memory.put("address", keptAddress(given.get("address")));
        memory.add("seen.phraseChanges");
        line("taken, not kept yet");
    }

    /** The maker tests each one over an interface that is left on it. */
    private void drop(String typed) {
        if (typed.equals("drop trial0")) {
            memory.put("trial0", "gone");
            line("trial0 is gone");
        } else {
            line("refused: there is no such interface to drop");
        }
    }

    private String trial() {
        return spec.has(Habit.KEEPS_LEFTOVER) || !memory.has("trial0") ? "10.47.250.1/24" : "gone";
    }

    /** The interfaces that it has, as its pages show them. */
    String interfaces() {
        return trial().equals("gone") ? "management" : "management, trial0";
    }

    private void show() {
        WANTED.keySet().forEach(name -> line(String.format("    %-8s %s", name, memory.get(name))));
        line("    trial0   " + trial());
        line("    software " + release("12.1"));
        line("    it-is    " + clock());
    }

    private void keep() throws InterruptedException, Restart {
        if (!memory.has("word")) {
            line("refused: nothing is set");
        } else if (ask("keep it and restart (y/n) ").equals("y")) {
            memory.put("kept", "yes");
            throw new Restart();
        }
    }
}
