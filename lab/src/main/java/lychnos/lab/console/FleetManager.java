package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Rosthwaite fleet manager in a virtual machine. It answers where DHCP put it until its sheet of lettered fields was
 * filled in; each letter opens one field. Its pages begin with a password from the maker and with support access on.
 */
final class FleetManager extends Appliance {

    private static final String ADDRESS = "\\d+\\.\\d+\\.\\d+\\.\\d+";

    /** A field: what it is called, and what it takes. */
    private record Field(String name, Pattern takes) {}

    private static final Map<String, Field> FIELDS = new LinkedHashMap<>();

    static {
        FIELDS.put("a", new Field("resolver", PLAIN));
        FIELDS.put("b", new Field("time source", PLAIN));
        FIELDS.put("c", new Field("full name", NAME));
        FIELDS.put("d", new Field("service addresses", Pattern.compile("none|" + ADDRESS + " " + ADDRESS)));
        FIELDS.put("e", new Field("router", PLAIN));
        FIELDS.put("f", new Field("address/length", WITH_LENGTH));
    }

    FleetManager(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis, face);
        face.serve(new FleetPages(this));
    }

    @Override
    public String settings() {
        return "38400-8N1";
    }

    @Override
    String logLine(String text) {
        return "-> " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Rosthwaite fleet " + serial() + " ~ " + (stored() ? "running" : "first start");
    }

    @Override
    String refusal() {
        return "wrong: ";
    }

    @Override
    void talk() throws InterruptedException, Restart {
        if (stored()) {
            line("fleet pages are up");
        } else if (!spec.first().equals("-")) {
            face.show(spec.first());
        }
        sheet();
    }

    @Override
    void show() {
        if (memory.has("address/length")) {
            face.show(bare(memory.get("address/length")));
        }
        if (memory.get("service addresses").contains(" ")) {
            for (String address : memory.get("service addresses").split(" ")) {
                face.show(address);
            }
        }
    }

    private void sheet() throws InterruptedException, Restart {
        while (true) {
            String typed = ask("letter, list or start? ");
            if (typed.equals("list")) {
                listing();
            } else if (typed.equals("start") && !stored()) {
                start();
            } else if (FIELDS.containsKey(typed) && !stored()) {
                field(typed);
            } else if (!typed.isEmpty()) {
                line("no such thing: " + typed);
            }
        }
    }

    private void field(String letter) throws InterruptedException {
        Field field = FIELDS.get(letter);
        if (spec.has(Habit.EXTRA_QUESTION) && letter.equals("d")) {
            ask("colour of the fleet? ");
        }
        while (true) {
            String typed = ask(field.name + ": ");
            if (letter.equals("e") && refusesOnce()) {
                refuse("the router is not in the network");
            } else if (field.takes.matcher(typed).matches()) {
                memory.put(field.name, typed);
                return;
            } else {
                refuse(letter.equals("d") ? "two addresses or none" : "another form");
            }
        }
    }

    private void listing() {
        FIELDS.values()
                .forEach(field ->
                        line("  " + field.name + "\t" + (memory.has(field.name) ? memory.get(field.name) : "-")));
        line("  pages\t" + (stored() ? "up" : "not started"));
    }

    private void start() throws InterruptedException, Restart {
        if (FIELDS.values().stream().anyMatch(field -> !memory.has(field.name))) {
            refuse("the sheet has empty fields");
        } else if (ask("start with this sheet, yes or no? ").equals("yes")) {
            store("address/length");
        }
    }
}
