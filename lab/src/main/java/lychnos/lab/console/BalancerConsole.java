package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Crummock console for load balancers in a virtual machine. Its setup is a chain of named stages, of which each opens
 * when the one before it is done; until then it is shut, and says why. Two people have passwords: the shepherd on the
 * line, the guide on the pages. SSH is allowed from one network only.
 */
final class BalancerConsole extends Appliance {

    private static final String FACTORY = "rannerdale-1";
    private static final Pattern ROUTE =
            Pattern.compile("none|\\d+\\.\\d+\\.\\d+\\.\\d+/\\d+ by \\d+\\.\\d+\\.\\d+\\.\\d+");
    private static final Map<String, String> STAGES = new LinkedHashMap<>();

    static {
        STAGES.put("people", "");
        STAGES.put("place", "people");
        STAGES.put("names", "place");
        STAGES.put("shell", "names");
        STAGES.put("run", "shell");
    }

    BalancerConsole(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis, face);
        face.serve(new BalancerConsolePages(this));
        face.overSsh(this, this::allows);
    }

    @Override
    public String settings() {
        return "9600-8N2";
    }

    @Override
    String logLine(String text) {
        return "(( " + text + " ))\r\n";
    }

    @Override
    String greeting() {
        return "Crummock console for balancers, unit " + serial() + ", stages " + (stored() ? "done" : "open");
    }

    @Override
    String refusal() {
        return "stays shut: ";
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("shepherd") && phrase.equals(memory.get("line password"));
    }

    /** Whether an address lies in the network from which SSH is allowed. */
    private boolean allows(String address) {
        String[] prefix = memory.get("ssh").split("/");
        int shift = 32 - Integer.parseInt(prefix[1]);
        return shift == 32 || number(prefix[0]) >>> shift == number(address) >>> shift;
    }

    private static int number(String address) {
        int number = 0;
        for (String octet : address.split("\\.")) {
            number = number << 8 | Integer.parseInt(octet);
        }
        return number;
    }

    @Override
    void show() {
        if (memory.has("place")) {
            face.show(bare(memory.get("place")));
        }
    }

    @Override
    void talk() throws InterruptedException, Restart {
        if (stored()) {
            line("console for balancers is ready");
        }
        admit("shepherd's password, please; ", FACTORY);
        shell();
    }

    @Override
    void shell() throws InterruptedException, Restart {
        while (true) {
            String typed = ask("stages; ");
            if (typed.equals("stages")) {
                STAGES.keySet().forEach(stage -> line("  " + stage + ": " + state(stage)));
            } else if (typed.equals("values")) {
                values();
            } else if (STAGES.containsKey(typed) && !stored()) {
                open(typed);
            } else if (!typed.isEmpty()) {
                refuse("no stage is called " + typed);
            }
        }
    }

    private boolean done(String stage) {
        return stored() || memory.has("done " + stage);
    }

    private String state(String stage) {
        String first = STAGES.get(stage);
        return done(stage) ? "done" : first.isEmpty() || done(first) ? "open" : "shut, first " + first;
    }

    private void open(String stage) throws InterruptedException, Restart {
        String state = state(stage);
        if (state.startsWith("shut")) {
            refuse(state.substring("shut, ".length()));
            return;
        }
        switch (stage) {
            case "people" -> password("line password", "new password of the shepherd; ", "the same password; ");
            case "place" -> place();
            case "names" -> names();
            case "shell" -> {
                given("ssh", "SSH only from; ", WITH_LENGTH);
                given("route", "one more route, or none; ", ROUTE);
            }
            default -> {
                run();
                return;
            }
        }
        memory.put("done " + stage, "yes");
        line(stage + " is done");
    }

    private void place() throws InterruptedException {
        given("place", "address with length; ", WITH_LENGTH);
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("colour of its door; ");
        }
        hop("hop", "default hop; ");
    }

    private void names() throws InterruptedException {
        if (spec.has(Habit.ORDER_CHANGED)) {
            given("clock", "clock; ", PLAIN);
            given("name", "its own name; ", NAME);
        } else {
            given("name", "its own name; ", NAME);
            given("clock", "clock; ", PLAIN);
        }
        given("resolver", "resolver; ", PLAIN);
    }

    private void values() {
        for (String name : new String[] {"name", "place", "hop", "resolver", "clock", "ssh", "route"}) {
            line("  " + name + " := " + (memory.has(name) ? memory.get(name) : ""));
        }
        line("  edition := " + release("3.4.0"));
        line("  moment := " + clock());
    }

    private void run() throws InterruptedException, Restart {
        values();
        if (ask("runs with these from now on, yes or no; ").equals("yes")) {
            store("place");
        }
    }
}
