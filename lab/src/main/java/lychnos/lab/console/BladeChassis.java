package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * One of the two controllers of a Wythop chassis. Only the active one lets anybody in; which one that is it says on
 * Ctrl+W, before anybody has logged in. Both share what was set. What was changed waits until another account applies
 * it.
 */
final class BladeChassis extends ConsoleMachine {

    private static final String FACTORY_CHIEF = "mosedale";
    private static final String FACTORY_APPLIER = "mosedale2";
    private static final char WHO = 'W' - '@';
    private static final int SHORTEST_PHRASE = 9;

    private final Face face;
    private final Supplier<Optional<BladeChassis>> other;

    BladeChassis(
            ConsoleSpec spec, Memory memory, long restartMillis, Face face, Supplier<Optional<BladeChassis>> other) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.overSsh(this);
        this.other = other;
    }

    @Override
    public String settings() {
        return "19200-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("chief", "somebody-elses-9");
        memory.put("applied", "yes");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    @Override
    String logLine(String text) {
        return "~" + spec.place() + "~ " + text + "\r\n";
    }

    /** Bay 1 is active, unless it has the habit of standing by; of two that both stand by none lets anybody in. */
    private boolean active() {
        boolean first = spec.place().equals("1") != spec.has(Habit.STANDS_BY);
        return first
                && !(spec.place().equals("2")
                        && other.get().filter(BladeChassis::active).isPresent());
    }

    private boolean applied() {
        return memory.has("applied");
    }

    private String state() {
        return active() ? "active, " + (applied() ? "configured" : "from the factory") : "standing by";
    }

    @Override
    boolean special(char key, String prompt) {
        if (key != WHO) {
            return false;
        }
        line("");
        line("%wythop " + serial() + " bay " + spec.place() + ": " + state());
        print(prompt);
        return true;
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("midplane seen");
        pause(60);
        if (!applied()) {
            memory.forget();
        }
        if (applied()) {
            showAddresses();
        }
        while (true) {
            signIn();
            phrases();
            shell();
        }
    }

    private void showAddresses() {
        show("bay" + spec.place());
        show("bay" + spec.place() + "-6");
        if (active()) {
            show("shared");
            show("shared-6");
        }
    }

    private void show(String name) {
        if (memory.has(name)) {
            face.show(memory.get(name).replaceFirst("/.*", ""));
        }
    }

    private void signIn() throws InterruptedException {
        while (true) {
            String account = ask("account> ");
            String phrase = ask("phrase> ", false);
            if (!active()) {
                line("?this bay stands by and lets nobody in");
            } else if (account.equals("chief") && signsIn(account, phrase)) {
                memory.add("seen.logins");
                return;
            } else {
                memory.add("seen.refusedLogins");
                pause(300);
                line("?wrong account or phrase");
            }
        }
    }

    private void phrases() throws InterruptedException {
        if (!memory.has("chief")) {
            line("Two accounts carry phrases from the factory.");
            change("chief", "chief, new phrase> ");
            change("applier", "applier, new phrase> ");
            memory.add("seen.phraseChanges");
        }
    }

    private void change(String name, String prompt) throws InterruptedException {
        while (true) {
            String first = ask(prompt, false);
            if (first.length() < SHORTEST_PHRASE) {
                line("?nine letters or more");
            } else if (!ask("repeat> ", false).equals(first)) {
                line("?they differ");
            } else {
                memory.put(name, first);
                return;
            }
        }
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("chief") && phrase.equals(memory.has("chief") ? memory.get("chief") : FACTORY_CHIEF)
                || user.equals("applier")
                        && phrase.equals(memory.has("applier") ? memory.get("applier") : FACTORY_APPLIER);
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            String[] word = ask("wythop bay " + spec.place() + "> ").split(" ", 3);
            switch (word[0]) {
                case "" -> {
                    // an empty line is no command
                }
                case "set" -> set(word);
                case "pending" -> listing();
                case "apply" -> apply();
                case "show" -> listing();
                case "bays" -> bays();
                case "keep" ->
                    line("kept as " + String.format("%08x", memory.get("bay1").hashCode()));
                case "bye" -> {
                    return;
                }
                default -> line("?it knows set, pending, apply, show, bays, keep and bye");
            }
        }
    }

    private void set(String[] word) {
        if (word.length != 3) {
            line("?set NAME VALUE");
        } else if (word[1].equals("way") && refusesOnce()) {
            line("?no such hop beside bay 1");
        } else {
            memory.put(word[1], word[2]);
        }
    }

    private void listing() {
        Map<String, String> shown = new LinkedHashMap<>();
        for (String name : new String[] {
            "name",
            "domain",
            "bay1",
            "bay2",
            "shared",
            "way",
            "bay1-6",
            "bay2-6",
            "shared-6",
            "way-6",
            "resolver",
            "clock",
            "hardened"
        }) {
            shown.put(name, memory.has(name) ? memory.get(name) : "-");
        }
        if (spec.has(Habit.WRONG_DEFAULT) && !applied()) {
            shown.put("clock", "10.40.8.77:123");
        }
        shown.forEach((name, value) -> line(String.format("%9s: %s", name, value)));
    }

    private void apply() throws InterruptedException {
        String phrase = ask("applier's phrase> ", false);
        if (!phrase.equals(memory.has("applier") ? memory.get("applier") : FACTORY_APPLIER)) {
            memory.add("seen.refusedLogins");
            line("?that is not the applier's");
            return;
        }
        line("spreads to both bays");
        if (spec.has(Habit.NEVER_RETURNS)) {
            Thread.sleep(Long.MAX_VALUE);
        }
        pause(300);
        memory.put("bay1", keptAddress(memory.get("bay1")));
        memory.put("applied", "yes");
        showAddresses();
        other.get().ifPresent(each -> each.taught(memory));
        line("applied on both bays");
    }

    /** What the active one has applied reaches the other over the midplane. */
    private void taught(Memory active) {
        for (String name : new String[] {
            "name",
            "domain",
            "bay1",
            "bay2",
            "shared",
            "bay1-6",
            "bay2-6",
            "shared-6",
            "way",
            "way-6",
            "resolver",
            "clock",
            "hardened",
            "chief",
            "applier",
            "applied"
        }) {
            if (active.has(name)) {
                memory.put(name, active.get(name));
            }
        }
        showAddresses();
    }

    private void bays() {
        line("bay " + spec.place() + (active() ? "  active" : "  standing by, in step"));
        boolean seen = !spec.has(Habit.PEER_NOT_SEEN) && other.get().isPresent();
        line("bay " + (spec.place().equals("1") ? "2" : "1")
                + (!seen ? "  not seen" : active() ? "  standing by, in step" : "  active"));
        line("blades  none yet");
    }
}
