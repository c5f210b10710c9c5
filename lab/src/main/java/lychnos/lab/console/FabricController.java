package lychnos.lab.console;

import java.util.List;
import java.util.function.Supplier;
import java.util.regex.Pattern;

/** One of a cluster of Sallow controllers. Ctrl+L draws its question again, and the line with its serial above it. */
final class FabricController extends ConsoleMachine {

    private static final Pattern ADDRESS = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Pattern PREFIX = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+/\\d\\d?");

    private final Face face;
    private final Supplier<List<FabricController>> group;

    FabricController(
            ConsoleSpec spec, Memory memory, long restartMillis, Face face, Supplier<List<FabricController>> group) {
        super(spec, memory, restartMillis);
        this.face = face;
        face.overSsh(this);
        this.group = group;
    }

    @Override
    public String settings() {
        return "115200-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("written", "yes");
        memory.put("oob", "10.40.8.198/24");
        memory.put("warden", "somebody-elses-9");
        memory.put("number", spec.place());
    }

    @Override
    void networkDown() {
        face.hide();
    }

    private boolean written() {
        return memory.has("written");
    }

    private void introduce() {
        line("");
        line("Sallow controller " + serial() + " is " + (written() ? "set up" : "new"));
    }

    @Override
    void live() throws InterruptedException, Restart {
        log("disks found");
        pause(60);
        log("links found");
        if (!written()) {
            memory.forget();
        }
        introduce();
        if (written()) {
            if (memory.has("fresh")) {
                memory.drop("fresh");
            } else {
                String typed = question("Enter to go on, or start over? ", "");
                if (typed.equals("start over")) {
                    memory.add("seen.wipes");
                    memory.forget();
                    throw new Restart();
                }
            }
            String address = memory.get("oob").replaceFirst("/.*", "");
            face.show(address);
            line("sallow is up at " + address);
            signIn();
            shell();
        }
        firstSetup();
        memory.put("written", "yes");
        memory.put("fresh", "yes");
        line("written; it starts now, and that takes a while");
        throw new Restart();
    }

    @Override
    String logLine(String text) {
        return "<6>sallow: " + text + "\r\n";
    }

    @Override
    void redraw(String prompt) {
        introduce();
        print(prompt);
    }

    /** A question with a suggestion is taken by Enter; one without is drawn again. */
    private String question(String text, String suggestion) throws InterruptedException {
        while (true) {
            String typed = ask(text);
            if (!typed.isEmpty()) {
                return typed;
            }
            if (!suggestion.isEmpty()) {
                return suggestion;
            }
            if (text.startsWith("Enter to go on")) {
                return "";
            }
            introduce();
        }
    }

    private String suggest(String text, String suggestion) throws InterruptedException {
        return question(text + " [" + suggestion + "] ", suggestion);
    }

    private void firstSetup() throws InterruptedException {
        while (true) {
            if (spec.has(Habit.ORDER_CHANGED)) {
                memory.put("active", suggest("2/9 Active controllers", "1"));
                memory.put("fabric", fabric());
            } else {
                memory.put("fabric", fabric());
                memory.put("active", suggest("2/9 Active controllers", "1"));
            }
            memory.put("number", question("3/9 Number of this one ", ""));
            if (spec.has(Habit.EXTRA_QUESTION)) {
                question("Which way does the air flow (front/rear) ", "");
            }
            memory.put("tunnel", matching("4/9 Tunnel endpoints ", PREFIX, "a prefix, such as 198.51.100.0/24"));
            memory.put("vlan", question("5/9 Control VLAN ", ""));
            memory.put("oob", matching("6/9 Out-of-band address ", PREFIX, "an address with its length"));
            memory.put("via", gateway());
            memory.put("name", question("8/9 Name ", ""));
            memory.put("warden", warden());
            line("  number  : " + memory.get("number"));
            line("  tunnel  : " + memory.get("tunnel"));
            line("  vlan    : " + memory.get("vlan"));
            line("  oob     : " + memory.get("oob"));
            line("  via     : " + memory.get("via"));
            if (question("Write this? It cannot be changed later (write/again) ", "")
                    .equals("write")) {
                return;
            }
        }
    }

    private String fabric() throws InterruptedException {
        return suggest("1/9 Fabric", spec.has(Habit.WRONG_DEFAULT) ? "fabric-of-somebody" : "ardal-fabric");
    }

    private String matching(String text, Pattern pattern, String wanted) throws InterruptedException {
        String typed = question(text, "");
        while (!pattern.matcher(typed).matches()) {
            line("! expected " + wanted);
            typed = question(text, "");
        }
        return typed;
    }

    private String gateway() throws InterruptedException {
        String typed = matching("7/9 Gateway ", ADDRESS, "an address");
        while (spec.has(Habit.REFUSED_ANSWER) && memory.count("seen.refusedHops") < 1) {
            memory.add("seen.refusedHops");
            line("! that gateway lies outside");
            typed = matching("7/9 Gateway ", ADDRESS, "an address");
        }
        return typed;
    }

    private String warden() throws InterruptedException {
        while (true) {
            String first = ask("9/9 Warden's password ", false);
            if (first.length() < 8) {
                line("! eight letters at least");
            } else if (ask("and again ", false).equals(first)) {
                memory.add("seen.phraseChanges");
                return first;
            } else {
                line("! they are not the same");
            }
        }
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("warden") && phrase.equals(memory.get("warden"));
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            switch (ask("sallow> ")) {
                case "" -> introduce();
                case "show me" -> {
                    line("  number  : " + memory.get("number"));
                    line("  tunnel  : " + memory.get("tunnel"));
                    line("  vlan    : " + memory.get("vlan"));
                    line("  oob     : " + memory.get("oob"));
                    line("  via     : " + memory.get("via"));
                }
                case "show all" -> showAll();
                default -> line("! show me, show all");
            }
        }
    }

    private void signIn() throws InterruptedException {
        while (!ask("To look inside, warden's password ", false).equals(memory.get("warden"))) {
            memory.add("seen.refusedLogins");
            line("! not that one");
            introduce();
        }
        memory.add("seen.logins");
    }

    private void showAll() {
        List<FabricController> there = group.get().stream()
                .filter(each -> each.written() && !(spec.has(Habit.PEER_NOT_SEEN) && each != this))
                .toList();
        int active = Integer.parseInt(memory.get("active").matches("[0-9]{1,2}") ? memory.get("active") : "1");
        line(there.size() + " of " + active + " here" + (there.size() < active ? ", fewer than active" : ""));
        boolean same = there.stream().allMatch(each -> List.of("fabric", "active", "tunnel", "vlan").stream()
                .allMatch(name -> each.memory.get(name).equals(memory.get(name))));
        boolean alone = spec.has(Habit.PEER_NOT_SEEN) && !spec.place().equals("1");
        line(alone ? "sees nobody" : same ? "agrees with all" : "differs from another");
    }
}
