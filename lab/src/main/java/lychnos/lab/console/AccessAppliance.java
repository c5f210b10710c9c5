package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Rossett access appliance in a virtual machine, through which engineers log in to others. Its line sets the network,
 * the clock and one password; its pages, which have a password of their own, take the keys and activate it.
 */
final class AccessAppliance extends ConsoleMachine {

    private static final String FACTORY = "wythburn-line";
    private static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern WITH_LENGTH = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d+");
    private static final Pattern NAME = Pattern.compile("[a-z][a-z0-9.-]{0,60}");
    private static final int SHORTEST_PASSWORD = 10;

    private final Face face;

    AccessAppliance(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.serve(new AccessPages(this, face.key()));
    }

    @Override
    public String settings() {
        return "57600-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("line password", "somebody-elses-9");
        memory.put("applied", "yes");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    private boolean applied() {
        return memory.has("applied");
    }

    @Override
    String logLine(String text) {
        return "; " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Rossett access " + serial() + " / " + (applied() ? "owned" : "no owner yet");
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("two cores, one line");
        pause(60);
        if (!applied()) {
            memory.forget();
        }
        greet();
        if (applied()) {
            if (memory.has("address")) {
                face.show(memory.get("address").replaceFirst("/.*", ""));
            }
            line("access pages are up");
        }
        signIn();
        if (!applied()) {
            firstSetup();
        }
        shell();
    }

    private void signIn() throws InterruptedException {
        while (!signsIn(ask("who = "), ask("secret = ", false))) {
            memory.add("seen.refusedLogins");
            pause(300);
            line("sorry: who or secret");
        }
        memory.add("seen.logins");
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("porter")
                && phrase.equals(memory.has("line password") ? memory.get("line password") : FACTORY);
    }

    private void firstSetup() throws InterruptedException, Restart {
        while (!ask("terms are in the box, accept = ").equals("accept")) {
            line("sorry: nothing starts without them");
        }
        do {
            questions();
            password();
            listing();
        } while (!ask("apply all of this, yes or edit = ").equals("yes"));
        memory.put("address", keptAddress(memory.get("address")));
        memory.put("applied", "yes");
        throw new Restart();
    }

    private void questions() throws InterruptedException {
        if (spec.has(Habit.ORDER_CHANGED)) {
            given("resolver", "resolver = ", PLAIN);
            given("clock", "clock from = ", PLAIN);
        } else {
            given("clock", "clock from = ", PLAIN);
            given("resolver", "resolver = ", PLAIN);
        }
        given("name", "full name = ", NAME);
        given("address", "address/length = ", WITH_LENGTH);
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("vault colour = ");
        }
        given("hop", "first hop = ", PLAIN);
        while (refusesOnce()) {
            line("sorry: that hop is outside of the network");
            given("hop", "first hop = ", PLAIN);
        }
    }

    private void given(String name, String prompt, Pattern wanted) throws InterruptedException {
        memory.put(name, ask(prompt, wanted, "sorry: wrong form"));
    }

    private void password() throws InterruptedException {
        while (true) {
            String first = ask("own secret for the line = ", false);
            if (first.length() < SHORTEST_PASSWORD) {
                line("sorry: " + SHORTEST_PASSWORD + " characters at least");
            } else if (ask("own secret, again = ", false).equals(first)) {
                memory.put("line password", first);
                memory.add("seen.phraseChanges");
                return;
            } else {
                line("sorry: the two differ");
            }
        }
    }

    private void listing() {
        Map<String, String> shown = new LinkedHashMap<>();
        for (String name : new String[] {"name", "address", "hop", "resolver", "clock"}) {
            shown.put(name, memory.get(name));
        }
        shown.forEach((name, value) -> line("    " + name + " <" + value + ">"));
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            switch (ask("rossett = ")) {
                case "" -> {
                    // an empty line is no command
                }
                case "state" -> listing();
                default -> line("sorry: the only command is state");
            }
        }
    }
}
