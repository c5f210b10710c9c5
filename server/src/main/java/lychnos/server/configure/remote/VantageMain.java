package lychnos.server.configure.remote;

import io.vertx.core.Vertx;
import io.vertx.core.VertxOptions;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Secret;
import lychnos.wire.dial.Dialler;
import lychnos.wire.far.Codec;
import lychnos.wire.far.Link;
import lychnos.wire.far.LinkMessage;
import lychnos.wire.far.VantageClient;
import lychnos.wire.far.VantageHost;
import lychnos.wire.time.Ticker;
import lychnos.wire.vantage.LocalVantage;

/**
 * The program as a vantage: reaches machines in the network where it stands, for servers that it has dialled in to. It
 * has no database and no page, and nothing listens.
 */
public final class VantageMain {

    private final List<URI> servers = new ArrayList<>();
    private final List<Prefix> only = new ArrayList<>();
    private Path state = Path.of("lychnos-vantage");
    private Secret token;
    private boolean hears = true;
    /** By server, the networks that it says this place is for. */
    private final Map<URI, LinkMessage.Welcome> given = new ConcurrentHashMap<>();

    private VantageMain() {}

    /** @param args {@code --join URL … --token-file FILE --state DIRECTORY --only PREFIX …} */
    public static void main(String[] args) throws IOException {
        VantageMain main = new VantageMain();
        try {
            main.read(args);
        } catch (IllegalArgumentException e) {
            System.err.println("lychnos: " + e.getMessage());
            System.exit(2);
        }
        main.run();
    }

    private void read(String[] args) throws IOException {
        token = System.getenv("LYCHNOS_VANTAGE_TOKEN") == null
                ? null
                : Secret.of(System.getenv("LYCHNOS_VANTAGE_TOKEN").strip());
        for (int i = 0; i < args.length; i += 2) {
            String value = i + 1 < args.length ? args[i + 1] : "";
            switch (args[i]) {
                case "--join" -> servers.add(server(value));
                case "--token-file" ->
                    token = Secret.of(Files.readString(Path.of(value)).strip());
                case "--state" -> state = Path.of(value);
                case "--only" -> only.add(Prefix.parse(value));
                case "--loopback" -> hears = value.isEmpty() || value.equals("no");
                default ->
                    throw new IllegalArgumentException(
                            "“" + args[i] + "” is not understood; see ./lychnos vantage --help.");
            }
        }
        if (servers.isEmpty() || token == null) {
            throw new IllegalArgumentException(
                    servers.isEmpty()
                            ? "Where is it to join? --join wants a server's address."
                            : "A token is missing: give it in a file (--token-file) or in LYCHNOS_VANTAGE_TOKEN.");
        }
    }

    private static URI server(String text) {
        URI server = URI.create(text);
        if (server.getHost() == null || !List.of("http", "https").contains(server.getScheme())) {
            throw new IllegalArgumentException(
                    "“" + text + "” is no server's address; it is like https://lychnos.ardal.example.");
        }
        boolean loopback = server.getHost().matches("127\\..*|localhost|\\[::1]");
        // a lab's network has no way out
        boolean lab = Boolean.parseBoolean(System.getenv().getOrDefault("LYCHNOS_LAB", "false"));
        if (server.getScheme().equals("http") && !loopback && !lab) {
            throw new IllegalArgumentException(server
                    + " is not encrypted, and passwords of machines go over this link: use https. Only a "
                    + "server on this machine is reached by http.");
        }
        return server;
    }

    private boolean own(Address address) {
        return mayBe(address) && given.values().stream().anyMatch(welcome -> has(welcome.networks(), address));
    }

    private boolean any(Address address) {
        return own(address)
                || mayBe(address) && given.values().stream().anyMatch(welcome -> has(welcome.others(), address));
    }

    private boolean mayBe(Address address) {
        return only.isEmpty() || has(only, address);
    }

    private static boolean has(List<Prefix> prefixes, Address address) {
        return prefixes.stream().anyMatch(prefix -> prefix.contains(address));
    }

    private void run() throws IOException {
        Vertx vertx = Vertx.vertx(new VertxOptions().setEventLoopPoolSize(2));
        boolean lab = Boolean.parseBoolean(System.getenv().getOrDefault("LYCHNOS_LAB", "false"));
        Codec codec = new Codec();
        ExecutorService pool = Executors.newFixedThreadPool(48);
        LocalVantage vantage = new LocalVantage("here", hears, Dialler.asking(this::own, lab), vertx);
        LocalVantage others = new LocalVantage("here", hears, Dialler.asking(this::any, lab), vertx);
        Outpost outpost = new Outpost(vantage, codec, state, Clock.systemUTC());
        for (URI server : servers) {
            new VantageClient(
                    vertx,
                    codec,
                    server,
                    token,
                    hears,
                    new Hearing(server, new VantageHost(vantage, others, codec, pool), outpost),
                    VantageMain::say,
                    Ticker.SYSTEM);
        }
    }

    private static void say(String text) {
        System.out.println(LocalTime.now().truncatedTo(ChronoUnit.SECONDS) + " " + text);
    }

    /** What is done with what one server says. */
    private final class Hearing implements VantageClient.Ears {
        private final URI server;
        private final Outpost outpost;
        private final VantageHost host;

        Hearing(URI server, VantageHost host, Outpost outpost) {
            this.server = server;
            this.outpost = outpost;
            this.host = host;
        }

        @Override
        public void linked(Link to, LinkMessage.Welcome welcome) {
            given.put(server, welcome);
        }

        @Override
        public void heard(LinkMessage message, Link from) {
            if (!outpost.heard(message, from)) {
                host.heard(message, from);
            }
        }

        @Override
        public void cut(Link which) {
            outpost.cut(which);
            host.cut();
        }

        @Override
        public List<Long> dialogues() {
            return outpost.dialogues();
        }
    }
}
