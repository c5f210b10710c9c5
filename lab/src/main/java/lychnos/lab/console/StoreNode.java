package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.json.JsonArray;
import io.vertx.core.json.JsonObject;
import java.io.IOException;
import java.time.Duration;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.function.Supplier;
import lychnos.lab.Dhcp;
import lychnos.lab.KeyFile;
import lychnos.lab.Machine;
import lychnos.lab.MachineSpec;
import lychnos.lab.Plug;
import lychnos.lab.Quirk;

/**
 * A node of a Seathwaite store for backups. It has no console. Its server management controller leases an address and
 * is a {@link Machine} of its own; that one shows the node's pages too, for as long as the node has no addresses. The
 * first node makes a cluster, whose store and console are at one address and two ports; the others join it with a code
 * that the first one tells.
 */
final class StoreNode extends ConsoleMachine implements ServedPages.Pages {

    private static final String FACTORY_WEB = "langstrath";
    private static final String TERMS = "What is stored here is its owner's. Seathwaite answers for the shelves alone.";
    private static final String WAKES = "wakes up";
    /** Controllers have interfaces of their own, numbered behind those of the nodes. */
    private static final int CONTROLLERS = 400;

    private static final int SHORTEST_PHRASE = 10;
    private static final int CONSOLE_PORT = 8443;
    private static final long LEASE_AGAIN_MILLIS = 2000;

    private final Vertx vertx;
    private final Plug plug;
    private final int index;

    private final int webPort;
    private final Optional<Dhcp> dhcp;
    private final Face face;
    private final Supplier<List<StoreNode>> nodes;
    private final StoreWeb web;
    private Machine controller;

    StoreNode(
            ConsoleSpec spec,
            Memory memory,
            long restartMillis,
            Vertx vertx,
            Plug plug,
            int index,
            int webPort,
            Optional<Dhcp> dhcp,
            Face face,
            Supplier<List<StoreNode>> nodes) {
        super(spec, memory, restartMillis);
        this.vertx = vertx;
        this.plug = plug;
        this.index = index;
        this.webPort = webPort;
        this.dhcp = dhcp;
        this.face = face;
        this.nodes = nodes;
        web = new StoreWeb(
                vertx,
                new ServedPages(vertx, this),
                serial(),
                KeyFile.selfSigned(memory.beside("pages"), spec.serial().toLowerCase(Locale.ROOT) + "-pages", -1, 365));
    }

    @Override
    public String settings() {
        return "9600-8N1";
    }

    @Override
    void pretendUsed() {
        memory.put("web.phrase", "somebody-elses-9");
        memory.put("state", "serves");
    }

    @Override
    void networkDown() {
        face.hide();
        web.close();
        if (controller != null) {
            controller.powerOff();
        }
    }

    @Override
    void live() throws InterruptedException {
        if (dhcp.isPresent()) {
            String leased = leased(dhcp.get());
            controller = new Machine(
                    vertx,
                    plug,
                    new MachineSpec(serial(), spec.mac(), leased, spec.first(), quirks()),
                    index + CONTROLLERS,
                    webPort,
                    Duration.ofMillis(restartMillis()),
                    memory.beside("controller"),
                    this::controllerMoved);
            controller.powerOn();
        }
        wakeUp();
        new CountDownLatch(1).await();
    }

    /** Asks until it has one, as a client does (RFC 2131, section 4.1). */
    private String leased(Dhcp server) throws InterruptedException {
        while (true) {
            try {
                String leased = server.lease(spec.mac());
                memory.put("leased", leased);
                return leased;
            } catch (IOException e) {
                memory.put("leased", "none: " + e.getMessage());
                Thread.sleep(LEASE_AGAIN_MILLIS);
            }
        }
    }

    /** A person sets the network of its controller at the node's own screen. */
    void setControllerAtScreen(String address, String mask, String gateway) {
        controller.controller().setAtScreen(address, mask, gateway);
    }

    /** Takes up what it did when its power went. */
    private void wakeUp() {
        if (memory.has("page/node")) {
            JsonObject node = show("/node");
            face.show(node.getString("one"));
            face.show(node.getString("two"));
        }
        if (memory.has("made")) {
            if (joined()) {
                showConsole();
            } else {
                later(this::serve);
            }
        } else if (memory.has("cluster") && !joined()) {
            later(() -> memory.put("state", "serves " + memory.get("cluster")));
        }
        if (memory.get("service").equals(WAKES)) {
            goIntoService();
        }
    }

    private Set<Quirk> quirks() {
        Set<Quirk> quirks = EnumSet.noneOf(Quirk.class);
        if (spec.has(Habit.NEVER_RETURNS)) {
            quirks.add(Quirk.NEVER_BACK);
        }
        if (spec.has(Habit.OLD_ADDRESS)) {
            quirks.add(Quirk.BACK_AT_OLD);
        }
        if (spec.has(Habit.REFUSED_ANSWER)) {
            quirks.add(Quirk.FORGETS_TIME);
        }
        return quirks;
    }

    /** What was done to its controller, for those who check it. */
    private void controllerMoved(Machine machine) {
        memory.put(
                "seen.controllerPhraseChanges",
                String.valueOf(machine.controller().passwordChanges()));
        memory.put(
                "seen.controllerRefusedLogins",
                String.valueOf(machine.controller().refusedLogins()));
        memory.put("seen.controllerWrites", String.valueOf(machine.controller().writes()));
        memory.put("controller", machine.address() == null ? "" : machine.address());
        web.showPages(machine.address());
    }

    @Override
    public boolean admits(String user, String phrase) {
        boolean admitted = user.equals("storekeeper")
                && phrase.equals(memory.has("web.phrase") ? memory.get("web.phrase") : FACTORY_WEB);
        memory.add(admitted ? "seen.webLogins" : "seen.refusedWebLogins");
        return admitted;
    }

    @Override
    public JsonObject show(String resource) {
        return switch (resource) {
            case "/about" ->
                new JsonObject()
                        .put("model", "Seathwaite")
                        .put("release", release("5.0.2"))
                        .put("time", clock())
                        .put("serial", spec.has(Habit.OTHER_PAGES) ? serial() + "-X" : serial());
            case "/account" -> new JsonObject().put("account", "storekeeper").put("phrase", "");
            case "/terms" -> new JsonObject().put("text", TERMS).put("agreed", memory.get("terms"));
            case "/node" ->
                page(
                        resource,
                        new JsonObject()
                                .put("name", "node")
                                .put("one", "")
                                .put("two", "")
                                .put("length", 0)
                                .put("router", "")
                                .put("resolvers", new JsonArray())
                                .put("clocks", new JsonArray()));
            case "/cluster" ->
                page(
                                resource,
                                new JsonObject()
                                        .put("do", "")
                                        .put("name", "")
                                        .put("address", "")
                                        .put("length", 0)
                                        .put("code", ""))
                        .copy()
                        .put("state", memory.has("state") ? memory.get("state") : "in no cluster")
                        .put("joinCode", joinCode());
            case "/outward" ->
                page(
                        resource,
                        new JsonObject()
                                .put("telemetry", true)
                                .put("updates", true)
                                .put("state", "not tried"));
            case "/service" ->
                new JsonObject()
                        .put("wanted", memory.has("service") ? "in service" : "")
                        .put("state", memory.has("service") ? memory.get("service") : "being set up")
                        .put(
                                "nodes",
                                nodes.get().stream().filter(StoreNode::joined).count());
            default -> null;
        };
    }

    private JsonObject page(String resource, JsonObject prefilled) {
        return memory.has("page" + resource) ? new JsonObject(memory.get("page" + resource)) : prefilled;
    }

    private boolean joined() {
        return memory.get("state").startsWith("serves");
    }

    /** Told by the node that made the cluster; it is of use at that cluster's address alone. */
    private String joinCode() {
        return joined() && memory.has("made")
                ? "J-" + Integer.toHexString((memory.get("cluster") + spec.serial()).hashCode())
                : "";
    }

    @Override
    public String take(String resource, JsonObject written) throws InterruptedException {
        if (!memory.has("web.phrase") && !resource.equals("/account")) {
            return "the phrase that it came with must be changed first";
        }
        if (!memory.has("terms") && !Set.of("/account", "/terms").contains(resource)) {
            return "its terms come first";
        }
        if (spec.has(Habit.PAGE_REFUSED) && resource.equals("/node")) {
            return "try that again later";
        }
        String refused =
                switch (resource) {
                    case "/account" -> account(written.getString("phrase", ""));
                    case "/terms" -> terms(written.getString("agreed", ""));
                    case "/node" -> node(written);
                    case "/cluster" -> cluster(written);
                    case "/outward" -> outward(written);
                    case "/service" -> service(written.getString("wanted", ""));
                    default -> "that page only shows";
                };
        if (refused == null && Set.of("/node", "/cluster", "/outward").contains(resource)) {
            memory.put("page" + resource, written.encode());
            memory.add("seen.pagesWritten");
        }
        return refused;
    }

    private String account(String phrase) {
        if (phrase.length() < SHORTEST_PHRASE) {
            return "ten letters or more";
        }
        if (!phrase.equals(memory.get("web.phrase"))) {
            memory.put("web.phrase", phrase);
            memory.add("seen.webPhraseChanges");
        }
        return null;
    }

    private String terms(String agreed) {
        if (agreed.equals("agreed")) {
            memory.put("terms", agreed);
        }
        return memory.has("terms") ? null : "nothing is stored before its terms are agreed to";
    }

    private String node(JsonObject written) {
        if (written.getString("one", "").equals(written.getString("two", ""))) {
            return "its two ports want two addresses";
        }
        face.show(written.getString("one"));
        face.show(written.getString("two"));
        return null;
    }

    private String cluster(JsonObject written) {
        if (!memory.has("page/node")) {
            return "the node's own addresses come first";
        }
        if (memory.has("state")) {
            JsonObject before = show("/cluster");
            boolean same = List.of("do", "name", "address", "code").stream()
                    .allMatch(field -> written.getString(field, "").equals(before.getString(field, "")));
            return same ? null : "it is in a cluster; its name can never be changed";
        }
        return switch (written.getString("do", "")) {
            case "new" -> found(written.getString("name"), written.getString("address"));
            case "join" -> join(written.getString("address"), written.getString("code"));
            default -> "it makes a new cluster, or joins one";
        };
    }

    private String found(String name, String address) {
        memory.put("cluster", name);
        memory.put("cluster address", address);
        memory.put("made", "yes");
        memory.put("state", "lays out its disks");
        later(this::serve);
        return null;
    }

    private void serve() {
        showConsole();
        memory.put(
                "state",
                spec.has(Habit.PEER_NOT_SEEN) ? "alone, and lays out its disks" : "serves " + memory.get("cluster"));
    }

    private void showConsole() {
        String address = memory.get("cluster address");
        face.show(address);
        web.showConsole(address, CONSOLE_PORT, memory.get("cluster"));
    }

    private String join(String address, String code) {
        Optional<StoreNode> first = nodes.get().stream()
                .filter(node -> node.memory.get("cluster address").equals(address) && node.joined())
                .findFirst();
        if (first.isEmpty()) {
            return "no cluster answers at " + address;
        }
        if (!first.get().joinCode().equals(code)) {
            return "the cluster at " + address + " knows no such code";
        }
        memory.put("cluster", first.get().memory.get("cluster"));
        memory.put("state", "copies its part");
        later(() -> memory.put("state", "serves " + memory.get("cluster")));
        return null;
    }

    /** It works for as long as a restart takes. */
    private void later(Runnable work) {
        vertx.setTimer(
                Math.max(1, restartMillis()),
                moment -> vertx.executeBlocking(() -> {
                    work.run();
                    return null;
                }));
    }

    private static String outward(JsonObject written) {
        boolean out = written.getBoolean("telemetry", false) || written.getBoolean("updates", false);
        written.put("state", out ? "nobody answers outside" : "stays in the hall");
        return null;
    }

    private String service(String wanted) {
        if (!wanted.equals("in service")) {
            return "what it can do is go in service";
        }
        if (!memory.has("service")) {
            memory.put("service", WAKES);
            goIntoService();
        }
        return null;
    }

    private void goIntoService() {
        if (!spec.has(Habit.NEVER_SERVES)) {
            later(() -> memory.put("service", "in service"));
        }
    }
}
