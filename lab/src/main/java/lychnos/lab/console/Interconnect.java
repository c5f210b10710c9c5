package lychnos.lab.console;

import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;

/** One of two ORREL fabric interconnects. Whether it is the left one is told to it by the slot it stands in. */
final class Interconnect extends ConsoleMachine {

    private static final String FACTORY = "orrel";
    private static final Pattern WITH_LENGTH = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/(2[0-9]|30|1[6-9])");
    private static final Pattern PLAIN = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final int FACTORY_CODE = 100_000;

    private final Face face;
    private final Supplier<Optional<Interconnect>> peer;
    private final long pairMillis;

    Interconnect(
            ConsoleSpec spec, Memory memory, long restartMillis, Face face, Supplier<Optional<Interconnect>> peer) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.overSsh(this);
        this.peer = peer;
        this.pairMillis = restartMillis / 2;
    }

    @Override
    public String settings() {
        return "57600-8N1";
    }

    private boolean left() {
        return spec.place().equals("left");
    }

    @Override
    void pretendUsed() {
        memory.put("phrase", "somebody-elses-9");
        memory.put("oob", "10.40.8.199/24");
        memory.put("hop", "10.40.8.1");
        memory.put("dns", "10.40.8.3");
        memory.put("stored", "yes");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("fabric circuits come up");
        pause(80);
        log("fan 1 fan 2 fan 3");
        boolean blank = !memory.has("stored");
        if (blank) {
            // what was never stored is gone with the power
            memory.forget();
        }
        greet();
        if (!blank) {
            if (memory.has("fresh")) {
                memory.drop("fresh");
                pause(200);
            } else {
                offerToForget();
            }
            networkUp();
            line("... oob link up");
        }
        logIn();
        if (blank) {
            firstSetup();
        }
        shell();
    }

    /** A new client on the line is greeted: the machine sees it at the cable. */
    @Override
    String greeting() {
        return "ORREL fabric interconnect, serial " + serial() + ", "
                + (memory.has("stored") ? "settings kept" : "blank");
    }

    private void offerToForget() throws InterruptedException, Restart {
        String typed = ask("Type the serial to forget everything, or Enter to keep it ");
        if (typed.equals(serial())) {
            memory.add("seen.wipes");
            memory.forget();
            throw new Restart();
        }
    }

    private void networkUp() {
        face.show(address());
        if (memory.has("shared") && left()) {
            face.show(memory.get("shared"));
        }
    }

    private String address() {
        return memory.get("oob").replaceFirst("/.*", "");
    }

    private void logIn() throws InterruptedException {
        while (true) {
            String user = ask("keeper login ");
            String phrase = ask("pass phrase ", false);
            if (signsIn(user, phrase)) {
                memory.add("seen.logins");
                return;
            }
            memory.add("seen.refusedLogins");
            pause(300);
            line("no: unknown name or phrase");
        }
    }

    private void firstSetup() throws InterruptedException, Restart {
        line("");
        line("The makers of ORREL ask that you agree to their terms, which lie in the box.");
        while (!ask("Licence terms, agree? (agree/no) ").equals("agree")) {
            line("no: nothing works without them");
        }
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("Colour of the lamp on the front (blue/white) ");
        }
        begins();
        policy();
        newPhrase();
        while (true) {
            askSettings();
            line("   oob   " + memory.get("oob"));
            line("   hop   " + memory.get("hop"));
            line("   dns   " + memory.get("dns"));
            if (ask("Store? (store/again) ").equals("store")) {
                break;
            }
        }
        memory.put("stored", "yes");
        memory.put("fresh", "yes");
        if (spec.has(Habit.OLD_ADDRESS)) {
            memory.put("oob", memory.get("oob").replaceFirst("\\.\\d+/", ".199/"));
        }
        line("storing, then restarting");
        throw new Restart();
    }

    private void newPhrase() throws InterruptedException {
        while (true) {
            String first = ask("A new phrase is required ", false);
            if (first.length() < 8) {
                line("no: eight letters or more");
            } else if (!ask("The same once more ", false).equals(first)) {
                line("no: they differ");
            } else {
                memory.put("phrase", first);
                memory.add("seen.phraseChanges");
                return;
            }
        }
    }

    /** A copy brings back what was saved of a fabric; the network of the machine itself is asked in any case. */
    private void begins() throws InterruptedException {
        String begins = ask("Begin fresh or restored? (fresh/restored) ");
        while (!begins.equals("fresh") && !begins.equals("restored")) {
            line("no: fresh or restored");
            begins = ask("Begin fresh or restored? (fresh/restored) ");
        }
        memory.put("begins", begins);
        if (begins.equals("restored")) {
            memory.put("copy", ask("Where is the copy? "));
        }
    }

    /** What its passwords must be like; the pair has one policy. */
    private void policy() throws InterruptedException {
        String suggested = spec.has(Habit.WRONG_DEFAULT) ? "1" : "2";
        String level = ask("Policy for passwords, level 1 to 3 [" + suggested + "] ");
        memory.put("policy", level.isEmpty() ? suggested : level);
        if (spec.has(Habit.ASKS_AGAIN)) {
            ask("Policy for passwords, level 1 to 3 [" + memory.get("policy") + "] ");
        }
    }

    private void askSettings() throws InterruptedException {
        if (spec.has(Habit.ORDER_CHANGED)) {
            dns();
        }
        oob();
        if (spec.has(Habit.GARBAGE)) {
            print("\u0081\u00ff~\u00e3\u0007\u009b;;\u00c4\u00f0" + "\u008f\u00a9".repeat(30) + "\r\n");
        }
        hop();
        if (!spec.has(Habit.ORDER_CHANGED)) {
            dns();
        }
    }

    private void oob() throws InterruptedException {
        String typed = ask("Out-of-band address [none] ");
        while (!WITH_LENGTH.matcher(typed).matches()) {
            line("no: write it as 192.0.2.7/24");
            typed = ask("Out-of-band address [none] ");
        }
        memory.put("oob", typed);
    }

    private void hop() throws InterruptedException {
        String typed = ask("Next hop [none] ");
        while (!PLAIN.matcher(typed).matches()
                || spec.has(Habit.REFUSED_ANSWER) && memory.count("seen.refusedHops") < 1) {
            memory.add("seen.refusedHops");
            line("no: that is not beside the address");
            typed = ask("Next hop [none] ");
        }
        memory.put("hop", typed);
    }

    private void dns() throws InterruptedException {
        memory.put("dns", ask("Name server [none] "));
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("keeper") && phrase.equals(memory.has("phrase") ? memory.get("phrase") : FACTORY);
    }

    @Override
    void shell() throws InterruptedException, Restart {
        while (true) {
            String command = ask("orrel# ");
            String[] word = command.split(" +");
            if (command.isEmpty()) {
                continue;
            }
            switch (word[0] + " " + (word.length > 1 ? word[1] : "")) {
                case "net show" -> {
                    line("   oob   " + memory.get("oob"));
                    line("   hop   " + memory.get("hop"));
                    line("   dns   " + memory.get("dns"));
                    line("   runs  " + release("2.6.1"));
                    line("   utc   " + clock());
                }
                case "pair offer" -> offer(word.length > 2 ? word[2] : "");
                case "pair take" -> take(word.length > 2 ? word[2] : "");
                case "pair show" -> show();
                case "pair fetched" -> fetched();
                case "manager use" -> manager(word.length > 2 ? word[2] : "");
                case "log show" -> log();
                case "forget all" -> offerToForget();
                default ->
                    line(
                            "no: it knows net show, pair offer, pair take, pair show, pair fetched, manager use, log show, forget all");
            }
        }
    }

    /** The address of a manager of several pairs; most pairs have none. */
    private void manager(String address) {
        if (PLAIN.matcher(address).matches()) {
            memory.put("manager", address);
            line("manager " + address + " is told when the pair is up");
        } else {
            line("no: an address");
        }
    }

    /** What it has noted since it has its settings. */
    private void log() {
        line("log of " + serial());
        line("   settings stored, restarted once");
        line("   oob " + memory.get("oob") + " up");
        if (memory.has("seen.refusedLogins")) {
            line("   log-ins refused: " + memory.get("seen.refusedLogins"));
        }
        line(memory.has("paired") ? "   pair cable: peer heard" : "   pair cable: no peer heard");
    }

    private void offer(String shared) {
        if (!PLAIN.matcher(shared).matches()) {
            line("no: an address that both share");
            return;
        }
        memory.put("shared", shared);
        memory.put(
                "code", String.valueOf(FACTORY_CODE + Math.floorMod((serial() + shared).hashCode(), 9 * FACTORY_CODE)));
        line("code " + memory.get("code") + ", good for ten minutes");
    }

    private void take(String code) throws InterruptedException {
        Optional<Interconnect> other = spec.has(Habit.PEER_NOT_SEEN)
                ? Optional.empty()
                : peer.get().filter(each -> each.memory.get("code").equals(code) && !code.isEmpty());
        if (other.isEmpty()) {
            line("no: nobody offers that code on this cable");
            return;
        }
        line("taken, pairs now");
        pause(pairMillis);
        memory.put("paired", "yes");
        memory.put("shared", other.get().memory.get("shared"));
        memory.put("leader", other.get().address());
        memory.put(
                "policy",
                spec.has(Habit.FETCHES_OTHER) ? "1" : other.get().memory.get("policy"));
        other.get().paired();
        line("paired, stands by");
    }

    /** The other one has taken the code. */
    private void paired() {
        memory.put("paired", "yes");
        face.show(memory.get("shared"));
        line("");
        line("paired, leads");
        print("orrel# ");
    }

    /** What the one that took a code has taken over with it. */
    private void fetched() {
        if (!memory.has("leader")) {
            line("no: nothing was taken over");
            return;
        }
        line("   leader " + memory.get("leader"));
        line("   shared " + memory.get("shared"));
        line("   policy " + memory.get("policy"));
    }

    private void show() {
        if (!memory.has("paired")) {
            line(spec.place() + ": alone");
            return;
        }
        line("left: leads");
        line("right: stands by");
        line("paired, no downlinks");
    }
}
