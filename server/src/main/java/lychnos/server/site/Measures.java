package lychnos.server.site;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.runtime.ShutdownEvent;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import lychnos.core.address.Address;
import lychnos.core.kind.Kind;
import lychnos.core.service.Measured;
import lychnos.core.service.Measured.State;
import lychnos.core.service.NameJudge;
import lychnos.core.service.NameSample;
import lychnos.core.service.Reply;
import lychnos.core.service.ServiceKind;
import lychnos.core.service.TimeJudge;
import lychnos.core.service.TimeSample;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.LychnosConfig;
import lychnos.server.live.Live;
import lychnos.wire.dns.NameKey;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.proxy.ProxyProbe.ProxySeen;
import lychnos.wire.smtp.RelaySeen;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;
import org.jboss.logging.Logger;

/** Asks the services that units lean on, when somebody looks and every few minutes, and keeps what they answered. */
@ApplicationScoped
public class Measures {

    private static final Logger LOG = Logger.getLogger(Measures.class);
    private static final Duration PATIENCE = Duration.ofSeconds(2);
    /** Who looks sees nothing older than this; who looks again at once is not made to wait. */
    private static final Duration FRESH = Duration.ofSeconds(15);

    private static final int AT_ONCE = 16;
    /** Planned names that are asked after in one measurement. */
    private static final int MOST_NAMES = 300;

    /** What a planned name leads to already stands among a name server's details, behind this word. */
    public static final String RECORD = "record ";

    private final Duration every;
    private final Session db;
    private final Sites sites;
    private final NetworkDefinitions networkDefinitions;
    private final SiteResources siteResources;
    private final Live live;
    private final Vantage vantage;
    private final Clock clock;
    private final ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE);
    private final ScheduledExecutorService clockwork = Executors.newSingleThreadScheduledExecutor();
    private final Map<Long, Last> last = new ConcurrentHashMap<>();

    /** When what was asked last. */
    private record Last(Instant at, String what) {}

    Measures(
            Session db,
            Sites sites,
            NetworkDefinitions networkDefinitions,
            SiteResources siteResources,
            Live live,
            Vantage vantage,
            Clock clock,
            LychnosConfig config) {
        every = config.measureEvery();
        this.db = db;
        this.sites = sites;
        this.networkDefinitions = networkDefinitions;
        this.siteResources = siteResources;
        this.live = live;
        this.vantage = vantage;
        this.clock = clock;
    }

    void start(@Observes StartupEvent event) {
        clockwork.scheduleWithFixedDelay(this::measureAll, every.toSeconds(), every.toSeconds(), TimeUnit.SECONDS);
    }

    void stop(@Observes ShutdownEvent event) {
        clockwork.shutdownNow();
        threads.shutdownNow();
    }

    private void measureAll() {
        try {
            List<Long> ids = QuarkusTransaction.requiringNew()
                    .call(() ->
                            sites.bringUps().stream().map(bringUp -> bringUp.id).toList());
            ids.forEach(id -> measure(id, true));
        } catch (RuntimeException e) {
            LOG.warnf("Services cannot be measured now (%s); trying again.", e.getMessage());
        }
    }

    /** Starts a check of the services; the screen is told of results. */
    public void ask(long bringUpId) {
        clockwork.execute(() -> {
            try {
                measure(bringUpId, false);
            } catch (RuntimeException e) {
                LOG.warnf("Services cannot be measured now: %s", e.getMessage());
            }
        });
    }

    /** The questions, read in one transaction; they are asked outside of the transaction. */
    private record Questions(
            long siteId,
            Set<String> gateways,
            Set<String> names,
            Set<String> times,
            List<String> zones,
            Map<String, Map<String, NameKey>> keys,
            List<SiteResourceRow> services,
            List<String> senders,
            List<String> planned) {

        /** What is asked, in words: another question is asked at once, however fresh the last answer is. */
        String what() {
            return gateways + " " + names + " " + times + " " + zones + " " + keys + " "
                    + services.stream()
                            .map(resource -> resource.name + resource.value)
                            .toList() + " " + senders + " " + planned;
        }
    }

    private Questions questions(long bringUpId) {
        BringUp bringUp = sites.bringUp(bringUpId);
        Set<String> gateways = new LinkedHashSet<>();
        Set<String> names = new LinkedHashSet<>();
        Set<String> times = new LinkedHashSet<>();
        Set<String> zones = new LinkedHashSet<>();
        for (Network network : networkDefinitions.networks(bringUp)) {
            if (network.gateway != null) {
                gateways.add(network.gateway.toString());
            }
            names.addAll(network.nameServers);
            times.addAll(network.timeServers);
        }
        Map<String, Map<String, NameKey>> keys = new LinkedHashMap<>();
        List<SiteResourceRow> services = new ArrayList<>();
        for (SiteResourceRow row : siteResources.rows(bringUp.site.id)) {
            SiteResourceSort sort = row.resource().sort();
            if (sort == SiteResourceSort.DOMAIN) {
                List<String> of = zones(row);
                zones.addAll(of);
                key(row).ifPresent(key -> of.forEach(
                        zone -> keys.computeIfAbsent(row.value.get("primary"), primary -> new LinkedHashMap<>())
                                .put(zone, key)));
                names.add(row.value.get("primary"));
            } else if (sort == SiteResourceSort.TIME) {
                times.add(row.value.get("address"));
            } else if (sort == SiteResourceSort.RELAY || sort == SiteResourceSort.PROXY) {
                services.add(row);
            }
        }
        List<String> senders = db.createQuery(
                        "select distinct f.value from GivenFact f join Unit u on u.id = f.key.unitId where "
                                + "u.bringUpId = :id and f.key.name = 'mail-sender'",
                        String.class)
                .setParameter("id", bringUpId)
                .getResultList();
        times.removeIf(time -> Address.tryParse(time).isEmpty());
        List<String> planned = db.createQuery(
                        "select distinct c.hostName || '.' || c.domain from Claim c join Unit u on u.id = c.unitId "
                                + "where u.bringUpId = :id and c.releasedAt is null"
                                + " and not exists (select 1 from NameRecord n where n.claimId = c.id and n.state = "
                                + "MADE)",
                        String.class)
                .setParameter("id", bringUpId)
                .setMaxResults(MOST_NAMES)
                .getResultList();
        return new Questions(
                bringUp.site.id, gateways, names, times, List.copyOf(zones), keys, services, senders, planned);
    }

    /** The zones of a domain: its own and the reverse ones that are kept with it. */
    public static List<String> zones(SiteResourceRow domain) {
        List<String> zones = new ArrayList<>(List.of(domain.name));
        for (String zone : domain.value.getOrDefault("reverse-zones", "").split("[\\s,;]+")) {
            if (!zone.isBlank()) {
                zones.add(zone);
            }
        }
        return zones;
    }

    /** The key with which a domain's primary server takes updates from us. */
    public Optional<NameKey> key(SiteResourceRow domain) {
        String name = domain.value.get("key-name");
        return name == null ? Optional.empty() : siteResources.secret(domain).map(secret -> new NameKey(name, secret));
    }

    private void measure(long bringUpId, boolean anyway) {
        Questions questions = QuarkusTransaction.requiringNew().call(() -> questions(bringUpId));
        Last before = last.get(bringUpId);
        if (!anyway
                && before != null
                && before.what.equals(questions.what())
                && before.at.plus(FRESH).isAfter(clock.instant())) {
            return;
        }
        List<Measured> measured = all(questions);
        last.put(bringUpId, new Last(clock.instant(), questions.what()));
        QuarkusTransaction.requiringNew().run(() -> keep(bringUpId, questions.siteId, measured));
    }

    private void keep(long bringUpId, long siteId, List<Measured> measured) {
        for (Measured each : measured) {
            db.merge(MeasuredService.of(siteId, each));
        }
        live.tell(bringUpId, "prepare");
    }

    private List<Measured> all(Questions questions) {
        Instant at = clock.instant();
        List<Future<List<Measured>>> asked = new ArrayList<>();
        questions.gateways.forEach(gateway -> asked.add(threads.submit(() -> List.of(gateway(gateway, at)))));
        asked.add(threads.submit(() -> names(questions, at)));
        asked.add(threads.submit(() -> times(questions.times, at)));
        questions.services.forEach(resource -> asked.add(threads.submit(() -> List.of(
                resource.resource().sort() == SiteResourceSort.RELAY
                        ? relay(resource, questions, at)
                        : proxy(resource, at)))));
        List<Measured> measured = new ArrayList<>();
        for (Future<List<Measured>> each : asked) {
            measured.addAll(await(each));
        }
        return measured;
    }

    private static <T> T await(Future<T> future) {
        try {
            return future.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted while services were asked", e);
        } catch (ExecutionException e) {
            throw new IllegalStateException("a service could not be asked", e.getCause());
        }
    }

    private static Measured measured(ServiceKind kind, String address, State state, String sentence, Instant at) {
        return new Measured(kind, address, state, sentence, Map.of(), at);
    }

    private Measured gateway(String gateway, Instant at) {
        try {
            Echo echo = vantage.ping(Address.parse(gateway), PATIENCE);
            boolean answers = echo.state() == Echo.State.ANSWERED;
            String sentence = answers
                    ? "answers"
                    : echo.state() == Echo.State.SILENT
                            ? "silent"
                            : "not measured: " + vantage.name() + " may not ping";
            return measured(
                    ServiceKind.GATEWAY,
                    gateway,
                    echo.state() == Echo.State.SILENT ? State.SILENT : State.FINE,
                    sentence,
                    at);
        } catch (WireFault e) {
            return measured(ServiceKind.GATEWAY, gateway, State.SILENT, e.getMessage(), at);
        }
    }

    private List<Measured> names(Questions questions, Instant at) {
        Map<String, Future<NameSample>> asked = new LinkedHashMap<>();
        questions.names.forEach(server -> asked.put(server, threads.submit(sample(server, questions))));
        Map<String, NameSample> samples = new LinkedHashMap<>();
        asked.forEach((server, sample) -> samples.put(server, await(sample)));
        List<Measured> judged = NameJudge.judge(samples, questions.zones, at);
        return judged.stream()
                .map(server -> server.state() == State.SILENT || server != judged.get(0)
                        ? server
                        : withRecords(server, questions.planned))
                .toList();
    }

    /** What planned names lead to already, as the first name server has it. */
    private Measured withRecords(Measured server, List<String> planned) {
        Map<String, String> detail = new LinkedHashMap<>(server.detail());
        Map<String, Future<List<String>>> asked = new LinkedHashMap<>();
        planned.forEach(name -> asked.put(
                name, threads.submit(() -> vantage.resolve(Address.parse(server.address()), name, "A", PATIENCE))));
        asked.forEach((name, answer) -> {
            try {
                answer.get().stream().findFirst().ifPresent(address -> detail.put(RECORD + name, address));
            } catch (ExecutionException e) {
                LOG.debugf("%s does not answer for %s", server.address(), name);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        return new Measured(
                server.kind(),
                server.address(),
                server.state(),
                server.sentence(),
                detail,
                server.replies(),
                server.at());
    }

    private Callable<NameSample> sample(String server, Questions questions) {
        return () -> {
            try {
                return vantage.names(
                        Address.parse(server),
                        questions.zones,
                        questions.keys.getOrDefault(server, Map.of()),
                        PATIENCE);
            } catch (WireFault e) {
                return new NameSample(false, false, Map.of(), false, List.of(), e.getMessage());
            }
        };
    }

    private List<Measured> times(Set<String> servers, Instant at) {
        Map<String, Future<Optional<TimeSample>>> asked = new LinkedHashMap<>();
        servers.forEach(server -> asked.put(server, threads.submit(() -> {
            try {
                return vantage.time(Address.parse(server), PATIENCE);
            } catch (WireFault e) {
                return Optional.<TimeSample>empty();
            }
        })));
        Map<String, Optional<TimeSample>> samples = new LinkedHashMap<>();
        asked.forEach((server, sample) -> samples.put(server, await(sample)));
        return TimeJudge.judge(samples, at);
    }

    private Measured relay(SiteResourceRow resource, Questions questions, Instant at) {
        String address = resource.value.get("address");
        try {
            RelaySeen seen = vantage.relay(
                    Address.parse(address), resource.resource().number("port", 25), questions.senders, null, PATIENCE);
            Map<String, String> detail = new LinkedHashMap<>();
            detail.put("greeting", seen.greeting());
            detail.put("STARTTLS", seen.startTls() ? "offered" : "not offered");
            List<Reply> replies = new ArrayList<>(seen.senders());
            for (Reply sender : seen.senders()) {
                detail.put("from " + sender.about(), sender.said());
                String domain = sender.about().substring(sender.about().indexOf('@') + 1);
                if (!sender.accepted() && leadsNowhere(domain, questions)) {
                    detail.put(domain, "neither MX nor address record");
                    replies.add(Reply.refused(Reply.Request.MAIL_DOMAIN, domain, ""));
                }
            }
            State state = !seen.answers() ? State.SILENT : seen.startTls() ? State.FINE : State.ODD;
            String sentence =
                    !seen.answers() ? "silent" : seen.startTls() ? "greets, TLS" : "greets, but offers no TLS";
            return new Measured(ServiceKind.RELAY, address, state, sentence, detail, replies, at);
        } catch (WireFault e) {
            return measured(ServiceKind.RELAY, address, State.SILENT, e.getMessage(), at);
        }
    }

    /** Whether the first name server that answers knows neither a mail exchanger nor an address for a domain. */
    private boolean leadsNowhere(String domain, Questions questions) {
        for (String server : questions.names) {
            try {
                Address at = Address.parse(server);
                return vantage.resolve(at, domain, "MX", PATIENCE).isEmpty()
                        && vantage.resolve(at, domain, "A", PATIENCE).isEmpty()
                        && vantage.resolve(at, domain, "AAAA", PATIENCE).isEmpty();
            } catch (WireFault e) {
                LOG.debugf("%s does not answer; asking the next", server);
            }
        }
        return false;
    }

    private Measured proxy(SiteResourceRow resource, Instant at) {
        String address = resource.value.get("address");
        try {
            ProxySeen seen = vantage.proxy(
                    Address.parse(address),
                    resource.resource().number("port", 3128),
                    resource.value.getOrDefault("target", "activate.invalid:443"),
                    login(resource),
                    PATIENCE);
            boolean through = seen.status() >= 200 && seen.status() < 300;
            State state = through ? State.FINE : seen.status() == 0 ? State.SILENT : State.ODD;
            String sentence = through
                    ? "lets through"
                    : seen.status() == 407
                            ? (login(resource) == null ? "needs a login" : "refuses the configured login")
                            : seen.status() == 0 ? seen.line() : "answers " + seen.line();
            return new Measured(ServiceKind.PROXY, address, state, sentence, Map.of("answer", seen.line()), at);
        } catch (WireFault e) {
            return measured(ServiceKind.PROXY, address, State.SILENT, e.getMessage(), at);
        }
    }

    private Kind.Login login(SiteResourceRow proxy) {
        String user = proxy.value.getOrDefault("user", "");
        return user.isEmpty()
                ? null
                : siteResources
                        .secret(proxy)
                        .map(phrase -> new Kind.Login(user, phrase))
                        .orElse(null);
    }

    /** What was measured at a site, newest first where something was asked twice. */
    @Transactional
    public List<Measured> of(long siteId) {
        return db.createQuery(
                        "from MeasuredService where key.siteId = :site order by key.kind, key.address",
                        MeasuredService.class)
                .setParameter("site", siteId)
                .getResultStream()
                .map(MeasuredService::measured)
                .toList();
    }
}
