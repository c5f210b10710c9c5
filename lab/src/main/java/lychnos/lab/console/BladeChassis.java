package lychnos.lab.console;

import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * One of the two controllers of a Wythop chassis. Only the active one lets anybody in; which one that is stands in the
 * banner above its log-in, which Ctrl+L draws again. Both share what was set. A draft is activated by typing the serial
 * of the chassis.
 */
final class BladeChassis extends ConsoleMachine {

    private static final String FACTORY = "mosedale";
    private static final int SHORTEST_PASSWORD = 9;
    private static final Pattern YES_OR_NO = Pattern.compile("yes|no");
    private static final Pattern POLICY = Pattern.compile("[123]");
    /** What a chassis is set to, in the order of its listing. */
    private static final List<String> SETTINGS = List.of(
            "chassis.name",
            "chassis.domain",
            "bay1.ipv4",
            "bay2.ipv4",
            "common.ipv4",
            "router.ipv4",
            "bay1.ipv6",
            "bay2.ipv6",
            "common.ipv6",
            "router.ipv6",
            "resolver",
            "clock",
            "shell-policy");

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
        memory.put("activated", "yes");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    @Override
    String logLine(String text) {
        return "(bay " + spec.place() + ") " + text + "\r\n";
    }

    /** Bay 1 is active, unless it has the habit of standing by; of two that both stand by none lets anybody in. */
    private boolean active() {
        boolean first = spec.place().equals("1") != spec.has(Habit.STANDS_BY);
        return first
                && !(spec.place().equals("2")
                        && other.get().filter(BladeChassis::active).isPresent());
    }

    private boolean activated() {
        return memory.has("activated");
    }

    private void banner() {
        line("");
        line("Wythop chassis " + serial() + " | bay " + spec.place() + " | "
                + (active() ? "active, " + (activated() ? "activated before" : "never activated") : "standby"));
    }

    @Override
    void redraw(String prompt) {
        banner();
        print(prompt);
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("midplane seen");
        pause(60);
        if (activated()) {
            showAddresses();
        } else {
            memory.forget();
        }
        while (true) {
            banner();
            signIn();
            ownPassword();
            lease();
            shell();
        }
    }

    private void showAddresses() {
        show("bay" + spec.place() + ".ipv4");
        show("bay" + spec.place() + ".ipv6");
        if (active()) {
            show("common.ipv4");
            show("common.ipv6");
        }
    }

    private void show(String name) {
        if (memory.has(name)) {
            face.show(memory.get(name).replaceFirst("/.*", ""));
        }
    }

    private void signIn() throws InterruptedException {
        while (true) {
            String account = ask("log in as: ");
            String password = ask("with password: ", false);
            if (!active()) {
                line("denied - the other bay is active");
            } else if (signsIn(account, password)) {
                memory.add("seen.logins");
                return;
            } else {
                memory.add("seen.refusedLogins");
                pause(300);
                line("denied - wrong account or password");
            }
        }
    }

    private void ownPassword() throws InterruptedException {
        while (!memory.has("chief")) {
            String first = ask("own password for chief: ", false);
            if (first.length() < SHORTEST_PASSWORD) {
                line("denied - at least " + SHORTEST_PASSWORD + " characters");
            } else if (!ask("same password: ", false).equals(first)) {
                line("denied - they differ");
            } else {
                memory.put("chief", first);
                memory.add("seen.phraseChanges");
            }
        }
    }

    /** Each bay has asked DHCP; whether what it was given is kept is asked once. */
    private void lease() throws InterruptedException {
        while (!memory.has("lease")) {
            String kept = ask("bay " + spec.place() + " has leased an address; keep the leased address, yes or no: ");
            if (YES_OR_NO.matcher(kept).matches()) {
                memory.put("lease", kept.equals("yes") ? "kept" : "declined");
            } else {
                line("denied - yes or no");
            }
        }
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("chief") && phrase.equals(memory.has("chief") ? memory.get("chief") : FACTORY);
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            String[] word = ask("wythop/bay" + spec.place() + ": ").split(" ", 3);
            switch (word[0]) {
                case "" -> {
                    // an empty line is no command
                }
                case "put" -> put(word);
                case "draft", "running" -> listing();
                case "activate" -> activate();
                case "bays" -> bays();
                case "store" ->
                    line("stored as revision "
                            + String.format("%08x", memory.get("bay1.ipv4").hashCode()));
                case "exit" -> {
                    return;
                }
                default -> line("denied - commands are put, draft, activate, running, bays, store and exit");
            }
        }
    }

    private void put(String[] word) {
        if (word.length != 3 || !SETTINGS.contains(word[1])) {
            line("denied - put SETTING VALUE");
        } else if (word[1].equals("shell-policy") && !POLICY.matcher(word[2]).matches()) {
            line("denied - the policy is 1, 2 or 3");
        } else if (word[1].equals("router.ipv4") && refusesOnce()) {
            line("denied - no such router in the network of bay 1");
        } else {
            memory.put(word[1], word[2]);
        }
    }

    private void listing() {
        for (String name : SETTINGS) {
            String value = memory.has(name) ? memory.get(name) : "-";
            boolean wrong = spec.has(Habit.WRONG_DEFAULT) && !activated() && name.equals("clock");
            line(String.format("  %-15s %s", name, wrong ? "10.40.8.77" : value));
        }
        line("  lease           " + (memory.has("lease") ? memory.get("lease") : "-"));
        line("  running image   " + release("5.1.3"));
        line("  hour in UTC     " + clock());
    }

    private void activate() throws InterruptedException {
        if (!ask("serial of this chassis to activate: ").equals(serial())) {
            line("denied - not the serial of this chassis");
            return;
        }
        line("copying to both bays");
        if (spec.has(Habit.NEVER_RETURNS)) {
            Thread.sleep(Long.MAX_VALUE);
        }
        pause(300);
        memory.put("bay1.ipv4", keptAddress(memory.get("bay1.ipv4")));
        memory.put("activated", "yes");
        showAddresses();
        other.get().ifPresent(each -> each.copied(memory));
        line("activated on both bays");
    }

    /** What the active one has activated reaches the other over the midplane. */
    private void copied(Memory active) {
        Stream.concat(SETTINGS.stream(), Stream.of("chief", "lease", "activated"))
                .filter(active::has)
                .forEach(name -> memory.put(name, active.get(name)));
        showAddresses();
    }

    private void bays() {
        line("  bay " + spec.place() + (active() ? ": active" : ": standby, in step"));
        boolean seen = !spec.has(Habit.PEER_NOT_SEEN) && other.get().isPresent();
        line("  bay " + (spec.place().equals("1") ? "2" : "1")
                + (!seen ? ": not seen" : active() ? ": standby, in step" : ": active"));
        line("  blades: none yet");
    }
}
