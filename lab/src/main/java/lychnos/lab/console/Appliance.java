package lychnos.lab.console;

import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A virtual machine that is told on its line where it belongs, restarts with that, and shows its pages afterwards. What
 * it asks, and how, is each model's own.
 */
abstract class Appliance extends ConsoleMachine {

    static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    static final Pattern WITH_LENGTH = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d+");
    static final Pattern NAME = Pattern.compile("[a-z][a-z0-9-]*(\\.[a-z0-9-]+)*");

    private static final int SHORTEST_PASSWORD = 10;

    final Face face;

    Appliance(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
    }

    /** How the model begins a refusal. */
    abstract String refusal();

    /** What it does on its line once it has introduced itself. */
    abstract void talk() throws InterruptedException, Restart;

    /** Puts the addresses that it keeps on the wire. */
    abstract void show();

    @Override
    void live() throws InterruptedException, Restart {
        log("memory checked");
        pause(60);
        if (!stored()) {
            memory.forget();
        }
        greet();
        if (stored()) {
            show();
        }
        talk();
    }

    @Override
    void pretendUsed() {
        memory.put("stored", "yes");
        memory.put("line password", "somebody-elses-9");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    /** Whether it keeps what it was told. */
    final boolean stored() {
        return memory.has("stored");
    }

    /** Keeps what it was told, its address under this name. */
    final void store(String address) throws Restart {
        memory.put(address, keptAddress(memory.get(address)));
        memory.put("stored", "yes");
        throw new Restart();
    }

    final void refuse(String why) {
        line(refusal() + why);
    }

    final void given(String name, String prompt, Pattern wanted) throws InterruptedException {
        memory.put(name, ask(prompt, wanted, refusal() + "another form is wanted"));
    }

    /** Asks for the next hop; refuses it the first time where the machine has that habit. */
    final void hop(String name, String prompt) throws InterruptedException {
        given(name, prompt, PLAIN);
        while (refusesOnce()) {
            refuse("the hop lies outside of the network");
            given(name, prompt, PLAIN);
        }
    }

    /** Asks for a new password twice, without echo. */
    final void password(String name, String prompt, String again) throws InterruptedException {
        while (true) {
            String first = ask(prompt, false);
            if (first.length() < SHORTEST_PASSWORD) {
                refuse(SHORTEST_PASSWORD + " characters at least");
            } else if (ask(again, false).equals(first)) {
                memory.put(name, first);
                memory.add("seen.phraseChanges");
                return;
            } else {
                refuse("the two differ");
            }
        }
    }

    /** Asks for the password of the line until it is right; the maker's one until there is another. */
    final void admit(String prompt, String factory) throws InterruptedException {
        while (!admits(ask(prompt, false), factory)) {
            memory.add("seen.refusedLogins");
            pause(300);
            refuse("that is not the word");
        }
        memory.add("seen.logins");
    }

    private boolean admits(String phrase, String factory) {
        boolean own = memory.has("line password");
        return phrase.equals(own ? memory.get("line password") : factory)
                || spec.has(Habit.LETS_FACTORY_IN) && phrase.equals(factory);
    }

    /** The word that it shows, with which others of its group join it. */
    final String groupWord() {
        return "tarn-" + Integer.toHexString(spec.serial().hashCode() & 0xffff);
    }

    /** Joins the one that leads, if that one shows the word. */
    final void join(Optional<? extends Appliance> leader, String word) {
        if (leader.filter(Appliance::stored)
                .map(Appliance::groupWord)
                .orElse("")
                .equals(word)) {
            memory.put("joined", "yes");
            line("| joined");
        } else {
            refuse("nobody who leads has that word");
        }
    }

    final boolean joined() {
        return memory.has("joined");
    }

    /** The address of an entry with a prefix length. */
    static String bare(String withLength) {
        return withLength.replaceFirst("/.*", "");
    }
}
