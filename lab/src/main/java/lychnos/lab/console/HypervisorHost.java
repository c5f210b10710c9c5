package lychnos.lab.console;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A Greenup host: one page worked with cursor keys. Until it is set up it answers at the address that DHCP gave it. */
final class HypervisorHost extends ConsoleMachine {

    private static final List<String> ROWS = List.of("Keyboard", "Root's phrase", "Links", "VLAN", "Address", "Gateway", "Own name", "Name servers", "Keep and restart", "Own check");
    private static final String FACTORY = "greenup";
    private static final int BOTTOM = 22;
    private static final int DNS = 53;

    private final Face face;
    private int marked;
    private String word = "";

    HypervisorHost(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis);
        this.face = face;
    }

    @Override
    public String settings() {
        return "115200-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("kept", "yes");
        memory.put("root", "somebody-elses-9");
        memory.put("Address", "10.40.8.197/24");
    }

    @Override
    void networkDown() {
        face.hide();
    }

    private boolean kept() {
        return memory.has("kept");
    }

    private Map<String, String> values() {
        Map<String, String> values = new LinkedHashMap<>();
        for (String row : ROWS) {
            values.put(row, memory.get(row));
        }
        values.put("Root's phrase", memory.has("root") ? "set" : "not set");
        if (!memory.has("Address")) {
            values.put("Address", spec.first().equals("-") ? "none" : spec.first() + "/24 (DHCP)");
        }
        return values;
    }

    private void header() {
        print("\033[2J\033[1;1H\033[1mGreenup host " + serial() + "   " + (kept() ? "set up" : "not set up") + "\033[0m");
    }

    @Override
    void live() throws InterruptedException, Restart {
        line("loading...");
        if (!kept()) {
            memory.forget();
        }
        pause(100);
        String address = kept() ? memory.get("Address").replaceFirst("/.*", "") : spec.first();
        if (!address.equals("-") && !address.isEmpty()) {
            face.show(address);
        }
        logIn();
        marked = 0;
        word = "";
        page();
        while (true) {
            char key = key();
            if (key == '\033') {
                cursor();
            } else if (key == '\f') {
                page();
            } else if (key == '\r') {
                enter(ROWS.get(marked));
                page();
            }
        }
    }

    private void cursor() throws InterruptedException {
        if (key(100) != '[') {
            return;
        }
        char which = key(100);
        int next = which == 'A' ? marked - 1 : which == 'B' ? marked + 1 : marked;
        next = Math.floorMod(next, ROWS.size());
        int before = marked;
        marked = next;
        draw(before);
        draw(marked);
    }

    private void page() {
        header();
        for (int i = 0; i < ROWS.size(); i++) {
            draw(i);
        }
        print("\033[20;1HUp and Down choose, Enter changes, Ctrl+L draws anew.");
        if (!word.isEmpty()) {
            print("\033[21;1H" + word);
        }
        print("\033[1;1H");
    }

    private void draw(int row) {
        String text = String.format("%-18s %s", ROWS.get(row), values().get(ROWS.get(row)));
        print("\033[" + (4 + row) + ";3H" + (row == marked ? "\033[7m" + text + "\033[0m" : text) + "\033[1;1H");
    }

    private void logIn() throws InterruptedException {
        String root = memory.has("root") && kept() ? memory.get("root") : FACTORY;
        header();
        while (true) {
            print("\033[" + BOTTOM + ";1H\033[K");
            String user = ask("User: ");
            print("\033[" + BOTTOM + ";1H\033[K");
            String phrase = ask("Phrase: ", false);
            if (user.equals("root") && phrase.equals(root)) {
                memory.add("seen.logins");
                return;
            }
            memory.add("seen.refusedLogins");
            pause(300);
            header();
            print("\033[21;1HNot kept: unknown user or phrase");
        }
    }

    @Override
    void redraw(String prompt) {
        header();
        print("\033[" + BOTTOM + ";1H" + prompt);
    }

    @Override
    void chatter(String prompt, String typed) {
        // a page has no room for log lines
    }

    private String field(String prompt) throws InterruptedException {
        print("\033[" + BOTTOM + ";1H\033[K");
        return ask(prompt + " ");
    }

    private void set(String row, String value) {
        if (!value.isEmpty()) {
            memory.put(row, value);
        }
    }

    private void enter(String row) throws InterruptedException, Restart {
        word = "";
        switch (row) {
            case "Keyboard" -> set(row, choice(field("Layout [us]"), "us"));
            case "Root's phrase" -> phrase();
            case "Links" -> set(row, choice(field("How many links [1]"), "1"));
            case "VLAN" -> set(row, choice(field("Tag, 0 for none [" + (spec.has(Habit.WRONG_DEFAULT) ? "12" : "0") + "]"), spec.has(Habit.WRONG_DEFAULT) ? "12" : "0"));
            case "Address" -> set(row, field("Address and length"));
            case "Gateway" -> gateway();
            case "Own name" -> set(row, field("Full name"));
            case "Name servers" -> set(row, field("Two of them, with a blank"));
            case "Keep and restart" -> keep();
            default -> check();
        }
    }

    private static String choice(String typed, String suggestion) {
        return typed.isEmpty() ? suggestion : typed;
    }

    private void gateway() throws InterruptedException {
        String typed = field("Next hop");
        if (spec.has(Habit.REFUSED_ANSWER) && memory.count("seen.refusedHops") < 1) {
            memory.add("seen.refusedHops");
            word = "Not kept: the next hop is not beside the address";
        } else {
            set("Gateway", typed);
        }
    }

    private void phrase() throws InterruptedException {
        print("\033[" + BOTTOM + ";1H\033[K");
        String first = ask("New phrase ", false);
        print("\033[" + BOTTOM + ";1H\033[K");
        if (ask("Once more ", false).equals(first) && first.length() >= 8) {
            memory.put("root", first);
            memory.add("seen.phraseChanges");
        } else {
            word = "Not kept: the two differ, or are shorter than eight";
        }
    }

    private void keep() throws InterruptedException, Restart {
        if (!memory.has("root") || !memory.has("Address")) {
            word = "Not kept: a phrase and an address are wanted first";
        } else if (field("Keep all this? (keep/no)").equals("keep")) {
            memory.put("kept", "yes");
            if (spec.has(Habit.OLD_ADDRESS)) {
                memory.put("Address", spec.first() + "/24");
            }
            print("\033[2J\033[1;1Hrestarting");
            throw new Restart();
        }
    }

    /** What the machine finds out by itself: whether its own name resolves at its first name server. */
    private void check() throws InterruptedException {
        if (!field("Check gateway and names from here? (yes/no)").equals("yes")) {
            return;
        }
        print("\033[21;1H\033[Kchecking...");
        pause(200);
        word = resolves(memory.get("Own name"), memory.get("Name servers").replaceFirst(" .*", "")) ? "own check passed" : "own check failed: its own name is not known at its name server";
    }

    private boolean resolves(String name, String server) {
        String own = memory.get("Address").replaceFirst("/.*", "");
        try (DatagramSocket socket = new DatagramSocket(new InetSocketAddress(InetAddress.getByName(own), 0))) {
            socket.setSoTimeout(3000);
            byte[] question = question(name);
            socket.send(new DatagramPacket(question, question.length, InetAddress.getByName(server), DNS));
            DatagramPacket answer = new DatagramPacket(new byte[512], 512);
            socket.receive(answer);
            byte[] bytes = answer.getData();
            return (bytes[3] & 0xf) == 0 && (bytes[6] << 8 | bytes[7] & 0xff) > 0;
        } catch (IOException e) {
            return false;
        }
    }

    /** One question for an A record (RFC 1035, section 4.1). */
    private static byte[] question(String name) {
        List<Byte> bytes = new ArrayList<>();
        for (int each : new int[] {0x4c, 0x59, 1, 0, 0, 1, 0, 0, 0, 0, 0, 0}) {
            bytes.add((byte) each);
        }
        for (String label : name.split("\\.")) {
            bytes.add((byte) label.length());
            for (byte each : label.getBytes(StandardCharsets.US_ASCII)) {
                bytes.add(each);
            }
        }
        for (int each : new int[] {0, 0, 1, 0, 1}) {
            bytes.add((byte) each);
        }
        byte[] all = new byte[bytes.size()];
        for (int i = 0; i < all.length; i++) {
            all[i] = bytes.get(i);
        }
        return all;
    }
}
