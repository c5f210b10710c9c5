package lychnos.server.vantage;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.inject.Produces;
import jakarta.inject.Singleton;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.server.LychnosConfig;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.ThisServer;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.secrets.Digest;
import lychnos.server.site.DeclaredNetworks;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.text.VantageText;
import lychnos.wire.console.LineAddress;
import lychnos.wire.dial.Dialler;
import lychnos.wire.far.Codec;
import lychnos.wire.far.FarVantage;
import lychnos.wire.far.Link;
import lychnos.wire.far.LinkMessage;
import lychnos.wire.far.RoutedVantage;
import lychnos.wire.time.Ticker;
import lychnos.wire.vantage.LocalVantage;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/**
 * The places from which machines are reached: this server, and vantages that have dialled in to it. Which one an
 * address is reached from is stated with its network; everything that touches a machine goes through {@link Vantage},
 * which is routed here.
 */
@ApplicationScoped
public class Vantages {

    private final Ticker ticker;

    /** Whole programs ask for an address's place at every exchange. */
    private static final long FRESH_NANOS = 500_000_000;
    /** A server that dies says no more that a vantage is linked to it. */
    private static final String LINKED_FOR = "15 s";

    private final Session db;
    private final NetworkDefinitions networks;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final Codec codec = new Codec();
    private final Map<String, FarVantage> far = new ConcurrentHashMap<>();
    private final ExecutorService events = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "vantage");
        thread.setDaemon(true);
        return thread;
    });
    private volatile Routes routes;
    private volatile Vantage local;

    Vantages(Session db, NetworkDefinitions networks, Journal journal, Live live, Clock clock, Ticker ticker) {
        this.ticker = ticker;
        this.db = db;
        this.networks = networks;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
        this.routes = new Routes(List.of(), ticker.nanos() - 2 * FRESH_NANOS);
    }

    /** Which network is reached from where. */
    private record Route(Prefix prefix, String vantage) {}

    private record Routes(List<Route> all, long readAt) {}

    @Produces
    @Singleton
    Vantage vantage(LychnosConfig config, DeclaredNetworks declared, io.vertx.core.Vertx vertx) {
        local = new LocalVantage(
                config.vantage().name(),
                config.vantage().hearsSilence(),
                Dialler.asking(declared::has, config.lab()),
                vertx,
                clock,
                ticker);
        return new RoutedVantage(
                local,
                this::placeOf,
                name -> far.containsKey(name) ? far.get(name).vantage() : null);
    }

    /** How is written what goes over links. */
    public Codec codec() {
        return codec;
    }

    private Vantage placeOf(Address address) {
        return routes().stream()
                .filter(route -> route.prefix.contains(address))
                .max(java.util.Comparator.comparing(route -> route.prefix.length()))
                .map(route -> far(route.vantage).vantage())
                .orElse(local);
    }

    private FarVantage far(String name) {
        return far.computeIfAbsent(name, made -> new FarVantage(made, codec, events));
    }

    private List<Route> routes() {
        Routes now = routes;
        if (ticker.nanos() - now.readAt > FRESH_NANOS) {
            now = new Routes(
                    io.quarkus.narayana.jta.QuarkusTransaction.joiningExisting().call(this::readRoutes),
                    ticker.nanos());
            routes = now;
        }
        return now.all;
    }

    private List<Route> readRoutes() {
        return db.createNativeQuery(
                        "select cast(n.prefix as text), v.name from network n join vantage v on v.id = n.vantage_id "
                                + "where v.revoked_at is null",
                        Object[].class)
                .getResultStream()
                .map(row -> new Route(Prefix.parse((String) row[0]), (String) row[1]))
                .toList();
    }

    /** This server, and every vantage that is linked to it now. */
    public List<Vantage> linked() {
        return Stream.concat(Stream.of(local), connected().stream()).toList();
    }

    /** Every vantage that is linked to this server now. */
    public List<Vantage> connected() {
        return far.values().stream()
                .filter(FarVantage::linked)
                .map(FarVantage::vantage)
                .toList();
    }

    /** The link to a vantage, whether or not it stands. */
    public FarVantage link(String name) {
        return far(name);
    }

    /** The vantage that a line is reached from; nothing where the server itself reaches it. */
    public Optional<FarVantage> farOf(LineAddress line) {
        if (line.protocol() == LineAddress.Protocol.DEVICE) {
            int at = line.device().indexOf(RoutedVantage.OF);
            return at < 0 ? Optional.empty() : Optional.of(far(line.device().substring(at + 1)));
        }
        if (line.protocol() == LineAddress.Protocol.BROWSER) {
            return Optional.empty();
        }
        Vantage place = placeOf(line.address());
        return far.values().stream().filter(each -> each.vantage() == place).findFirst();
    }

    // --- those who dial in ---

    private static String digest(String token) {
        return HexFormat.of().formatHex(Digest.of(token));
    }

    /** Who has this token, if it was not revoked. */
    @Transactional
    public Optional<String> nameOf(String token) {
        return db.createQuery(
                        "select v.name from VantageRow v where v.tokenDigest = :digest and v.revokedAt is null",
                        String.class)
                .setParameter("digest", digest(token))
                .getResultStream()
                .findFirst();
    }

    /** A vantage has dialled in. */
    @Transactional
    void linked(String name, Link link, LinkMessage.Hello hello) {
        far(name).linked(link, hello.hearsSilence());
        seen(name, hello.version());
        stillLinked(List.of(name));
        live.tell(0, "vantages");
    }

    /** A vantage has dialled in that speaks another version of the link. */
    @Transactional
    void turnedAway(String name, int version) {
        seen(name, version);
        live.tell(0, "vantages");
    }

    @Transactional
    boolean cut(String name, Link link) {
        if (!far(name).cut(link)) {
            return false; // another one stands by now
        }
        seen(name, LinkMessage.VERSION);
        db.createNativeMutationQuery("update vantage set linked_until = now() where name = :name and linked_to = :here")
                .setParameter("name", name)
                .setParameter("here", ThisServer.ID)
                .executeUpdate();
        live.tell(0, "vantages");
        return true;
    }

    /** Says for other servers on this database that these are linked to this one. */
    @Transactional
    void stillLinked(Collection<String> names) {
        if (!names.isEmpty()) {
            db.createNativeMutationQuery(
                            "update vantage set linked_to = :here, linked_until = now() + cast(:for as interval) "
                                    + "where name in :names and revoked_at is null")
                    .setParameter("here", ThisServer.ID)
                    .setParameter("for", LINKED_FOR)
                    .setParameter("names", names)
                    .executeUpdate();
        }
    }

    private void seen(String name, int version) {
        db.createMutationQuery("update VantageRow set seenAt = :now, linkVersion = :version where name = :name"
                        + " and revokedAt is null")
                .setParameter("now", clock.instant())
                .setParameter("version", version)
                .setParameter("name", name)
                .executeUpdate();
    }

    /** Which networks a vantage is for, and which there are besides. */
    @Transactional
    LinkMessage.Welcome welcome(String name) {
        Map<Boolean, List<Prefix>> own = db.createNativeQuery(
                        "select cast(n.prefix as text), bool_or(v.id is not null) from network n left join vantage v "
                                + "on v.id = n.vantage_id and v.name = :name and v.revoked_at is null group by "
                                + "n.prefix order by n.prefix",
                        Object[].class)
                .setParameter("name", name)
                .getResultStream()
                .collect(Collectors.partitioningBy(
                        row -> (Boolean) row[1],
                        Collectors.mapping(row -> Prefix.parse((String) row[0]), Collectors.toList())));
        return new LinkMessage.Welcome(name, own.get(true), own.get(false));
    }

    // --- for people ---

    /**
     * A vantage as it is shown.
     *
     * @param linked whether it is linked now, to this server or another one
     * @param otherVersion whether it was turned away when it was seen last, since it speaks another version of the link
     * @param networks by id, the networks that it is for
     */
    public record VantageView(
            long id,
            String name,
            Instant madeAt,
            @Nullable Instant seenAt,
            boolean linked,
            boolean otherVersion,
            Map<Long, String> networks) {}

    @Transactional
    public List<VantageView> all() {
        List<VantageView> all = new ArrayList<>();
        for (VantageRow row : db.createQuery("from VantageRow where revokedAt is null order by name", VantageRow.class)
                .getResultList()) {
            Map<Long, String> networks = new java.util.LinkedHashMap<>();
            db.createQuery("from Network where vantageId = :id order by name", Network.class)
                    .setParameter("id", row.id)
                    .getResultStream()
                    .forEach(network -> networks.put(network.id, network.name + " " + network.prefix));
            all.add(new VantageView(
                    row.id,
                    row.name,
                    row.madeAt,
                    row.seenAt,
                    far(row.name).linked() || row.linkedUntil != null && row.linkedUntil.isAfter(clock.instant()),
                    row.linkVersion != null && row.linkVersion != LinkMessage.VERSION,
                    networks));
        }
        return all;
    }

    /** A network that a vantage may be for. */
    public record ReachableNetwork(long id, String name, String prefix) {}

    @Transactional
    public List<ReachableNetwork> networks() {
        return db.createQuery("from Network order by name, prefix", Network.class)
                .getResultStream()
                .map(network -> new ReachableNetwork(network.id, network.name, network.prefix.toString()))
                .toList();
    }

    /** A vantage that was made, with its token, which is shown this once. */
    public record NewVantage(long id, String name, String token) {}

    @Transactional
    public NewVantage make(String name, Who.Person person) {
        String wanted = name == null ? "" : name.strip();
        if (!wanted.matches("[a-z0-9]([a-z0-9-]{0,38}[a-z0-9])?")) {
            throw Refusal.fields(
                    List.of(new Refusal.FieldFault("name", VantageText.NAME_OF_A_VANTAGE_POINT_CONSISTS.said())));
        }
        if (!db.createQuery("select v.id from VantageRow v where v.name = :name and v.revokedAt is null", Long.class)
                .setParameter("name", wanted)
                .getResultList()
                .isEmpty()) {
            throw Refusal.conflict(VantageText.ALREADY_A_VANTAGE_POINT_CALLED.said(wanted));
        }
        String token = Digest.token();
        VantageRow row = new VantageRow();
        row.name = wanted;
        row.tokenDigest = digest(token);
        row.madeBy = person.id();
        row.madeAt = clock.instant();
        db.persist(row);
        journal.write(person, null, null, VantageText.ADDED_VANTAGE_POINT.text(wanted), null, null);
        live.tell(0, "vantages");
        return new NewVantage(row.id, wanted, token);
    }

    private VantageRow get(long id) {
        VantageRow row = db.find(VantageRow.class, id);
        if (row == null || row.revokedAt != null) {
            throw Refusal.notFound(VantageText.NO_SUCH_VANTAGE_POINT.said());
        }
        return row;
    }

    /** Its token is taken no more; its networks are reached by the server again. */
    @Transactional
    public String revoke(long id, Who.Person person) {
        VantageRow row = get(id);
        row.revokedAt = clock.instant();
        networks.leaveVantage(id);
        journal.write(person, null, null, VantageText.REVOKED_VANTAGE_POINT.text(row.name), null, null);
        live.tell(0, "vantages");
        forget();
        return row.name;
    }

    /** Says which networks a vantage is for; each has one place at most. */
    @Transactional
    public String give(long id, Collection<Long> given, Who.Person person) {
        VantageRow row = get(id);
        networks.leaveVantage(id);
        for (long networkId : given) {
            Network network = db.find(Network.class, networkId);
            if (network == null) {
                throw Refusal.notFound(VantageText.NO_SUCH_NETWORK.said());
            }
            db.refresh(network);
            network.vantageId = id;
        }
        journal.write(
                person,
                null,
                null,
                "set networks of vantage point " + row.name + ": " + given.size()
                        + (given.size() == 1 ? " network" : " networks"),
                null,
                null);
        live.tell(0, "vantages");
        forget();
        return row.name;
    }

    private void forget() {
        routes = new Routes(routes.all, ticker.nanos() - 2 * FRESH_NANOS);
    }
}
