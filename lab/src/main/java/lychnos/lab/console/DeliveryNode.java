package lychnos.lab.console;

import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;

/**
 * One of two Ennerdale nodes that deliver applications. One leads and one stands by: the leader shows a word after its
 * restart, with which the other joins. Values are shown before they are stored.
 */
final class DeliveryNode extends Appliance {

    private static final String FACTORY = "gillerthwaite";
    private static final Pattern PART = Pattern.compile("leads|stands by");
    private static final Pattern SERVICES = Pattern.compile("\\d+\\.\\d+\\.\\d+\\.\\d+(, \\d+\\.\\d+\\.\\d+\\.\\d+)*");

    private final Supplier<Optional<DeliveryNode>> other;

    DeliveryNode(
            ConsoleSpec spec, Memory memory, long restartMillis, Face face, Supplier<Optional<DeliveryNode>> other) {
        super(spec, memory, restartMillis, face);
        this.other = other;
        face.serve(new DeliveryPages(this));
        face.overSsh(this);
    }

    @Override
    public String settings() {
        return "19200-8N1";
    }

    @Override
    String logLine(String text) {
        return "{en} " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Ennerdale delivery node " + serial() + " (" + (stored() ? "holds settings" : "blank") + ")";
    }

    @Override
    String refusal() {
        return "sent back: ";
    }

    private boolean leads() {
        return memory.get("part").equals("leads");
    }

    @Override
    void show() {
        if (memory.has("own")) {
            face.show(bare(memory.get("own")));
        }
        if (leads()) {
            face.showQuietly(memory.get("backend"));
            for (String service : memory.get("services").split(", ")) {
                face.showQuietly(service);
            }
        }
    }

    @Override
    void talk() throws InterruptedException, Restart {
        if (stored()) {
            line("delivery node is up");
            admit("drover, say it : ", FACTORY);
            shell();
        }
        firstSetup();
    }

    private void firstSetup() throws InterruptedException, Restart {
        do {
            given("part", "part in the pair : ", PART);
            if (leads()) {
                given("backend", "source towards backends : ", PLAIN);
                given("services", "services, a comma between : ", SERVICES);
            }
            network();
            password("line password", "drover's own word : ", "once more : ");
            listing();
        } while (!ask("as listed, store or redo : ").equals("store"));
        store("own");
    }

    private void network() throws InterruptedException {
        if (spec.has(Habit.ORDER_CHANGED)) {
            given("clock", "clock : ", PLAIN);
            given("resolver", "resolver : ", PLAIN);
        } else {
            given("resolver", "resolver : ", PLAIN);
            given("clock", "clock : ", PLAIN);
        }
        given("name", "name with domain : ", NAME);
        given("own", "own address/length : ", WITH_LENGTH);
        if (spec.has(Habit.EXTRA_QUESTION)) {
            ask("flavour of the hash : ");
        }
        hop("hop", "hop out : ");
    }

    private void listing() {
        line("| part      | " + memory.get("part"));
        line("| own       | " + memory.get("own"));
        line("| hop       | " + memory.get("hop"));
        line("| name      | " + memory.get("name"));
        line("| resolver  | " + memory.get("resolver"));
        line("| clock     | " + memory.get("clock"));
        line("| build     | " + release("6.1.3"));
        line("| utc       | " + clock());
        if (leads()) {
            line("| backend   | " + memory.get("backend"));
            line("| services  | " + memory.get("services"));
        }
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            String typed = ask("ennerdale & ");
            if (typed.equals("list")) {
                listing();
            } else if (typed.equals("pair")) {
                pair();
            } else if (typed.startsWith("join ") && !leads()) {
                join(other.get().filter(DeliveryNode::leads), typed.substring("join ".length()));
            } else if (!typed.isEmpty()) {
                refuse("commands are list, pair and join");
            }
        }
    }

    private void pair() {
        boolean alone = spec.has(Habit.PEER_NOT_SEEN);
        if (leads()) {
            line("| leads, word " + groupWord());
            line("| stand-by node "
                    + (!alone && other.get().filter(DeliveryNode::joined).isPresent() ? "in step" : "not there yet"));
        } else {
            line("| stands by, leader " + (!alone && joined() ? "in step" : "not seen"));
        }
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("drover") && phrase.equals(memory.get("line password"));
    }
}
