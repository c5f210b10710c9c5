package lychnos.lab.console;

import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;

/**
 * One node of an Ullscarf manager of clusters. The first founds it, others enter with the word that it shows. It only
 * counts as set up where a name service answers it.
 */
final class ClusterManager extends Appliance {

    private static final String FACTORY = "greenup-edge-3";
    private static final Pattern PART = Pattern.compile("founds|enters");

    private final Supplier<List<ClusterManager>> group;

    ClusterManager(
            ConsoleSpec spec, Memory memory, long restartMillis, Face face, Supplier<List<ClusterManager>> group) {
        super(spec, memory, restartMillis, face);
        this.group = group;
        face.serve(new ClusterPages(this));
        face.overSsh(this);
    }

    @Override
    public String settings() {
        return "57600-8E1";
    }

    @Override
    String logLine(String text) {
        return "@@ " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Ullscarf cluster node " + serial() + ": " + (stored() ? "laid down" : "loose");
    }

    @Override
    String refusal() {
        return "turned away: ";
    }

    private boolean founds() {
        return memory.get("part").equals("founds");
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("reeve") && phrase.equals(memory.get("line password"));
    }

    @Override
    void show() {
        if (memory.has("node")) {
            face.show(bare(memory.get("node")));
        }
        if (memory.has("cluster at")) {
            face.show(memory.get("cluster at"));
        }
    }

    @Override
    void talk() throws InterruptedException, Restart {
        if (stored()) {
            line("the node stands");
        }
        admit("reeve => ", FACTORY);
        if (!stored()) {
            firstSetup();
        }
        shell();
    }

    private void firstSetup() throws InterruptedException, Restart {
        do {
            given("part", "founds or enters => ", PART);
            given("cluster", "cluster => ", NAME);
            if (founds()) {
                given("cluster at", "cluster at => ", PLAIN);
            }
            given("names", "names from => ", PLAIN);
            if (spec.has(Habit.EXTRA_QUESTION)) {
                ask("colour of the fell => ");
            }
            given("time", "time from => ", PLAIN);
            given("name", "node => ", NAME);
            given("node", "node at, with length => ", WITH_LENGTH);
            hop("router", "node leaves by => ");
            password("line password", "reeve from now on => ", "reeve again => ");
            listing();
        } while (!ask("lay down, yes or no => ").equals("yes"));
        store("node");
    }

    private void listing() {
        for (String name : new String[] {"part", "cluster", "name", "node", "router", "names", "time"}) {
            line("@ " + name + "\t" + memory.get(name));
        }
        line("@ version\t" + release("4.4.2"));
        line("@ now\t" + clock());
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            String typed = ask("ullscarf => ");
            if (typed.equals("list")) {
                listing();
            } else if (typed.equals("reach")) {
                line("@ name service\t" + nameService());
            } else if (typed.equals("cluster")) {
                cluster();
            } else if (typed.startsWith("enter ") && !founds()) {
                join(founder(), typed.substring("enter ".length()));
            } else if (!typed.isEmpty()) {
                refuse("it knows list, reach, cluster and enter");
            }
        }
    }

    /** Whether the name service knows the name that this node was given. */
    private String nameService() {
        return switch (OwnCheck.ask(bare(memory.get("node")), memory.get("names"), memory.get("name"))) {
            case KNOWN -> "answers";
            case UNKNOWN -> "does not know this node";
            case SILENT -> "is silent";
        };
    }

    private Optional<ClusterManager> founder() {
        return group.get().stream().filter(ClusterManager::founds).findFirst();
    }

    private void cluster() {
        long there = group.get().stream()
                .filter(each -> each.founds() || each.joined())
                .count();
        line("@ cluster\t" + memory.get("cluster") + ", word "
                + founder().map(Appliance::groupWord).orElse("none"));
        line("@ nodes\t" + there + " in the cluster");
    }
}
