package lychnos.server.site;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.transaction.Transactional;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentSkipListSet;
import java.util.concurrent.atomic.AtomicBoolean;
import lychnos.core.address.Address;
import lychnos.core.service.Measured;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.LychnosConfig;
import lychnos.server.live.Live;
import lychnos.server.text.PrepareText;
import lychnos.server.time.Clockwork;
import lychnos.wire.dns.NameKey;
import lychnos.wire.time.Ticker;
import org.hibernate.Session;

/** Asks the services that units lean on, when somebody looks and every few minutes, and keeps what they answered. */
@ApplicationScoped
public class Measures {

    private static final Set<SiteResourceSort> SERVICES =
            EnumSet.of(SiteResourceSort.RELAY, SiteResourceSort.PROXY, SiteResourceSort.DIRECTORY);

    private static final String NOT_MEASURED = PrepareText.SERVICES_CANNOT_BE_MEASURED.text();
    /** Who looks sees nothing older than this; who looks again at once is not made to wait. */
    private static final Duration FRESH = Duration.ofSeconds(15);

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
    private final ServiceProbes probes;
    private final Clockwork clockwork;
    /** By bring-up, what was asked a moment ago. */
    private final Cache<Long, String> last;

    private final NavigableSet<Long> asked = new ConcurrentSkipListSet<>();
    private final AtomicBoolean measuring = new AtomicBoolean();

    Measures(
            Session db,
            Sites sites,
            NetworkDefinitions networkDefinitions,
            SiteResources siteResources,
            Live live,
            ServiceProbes probes,
            LychnosConfig config,
            Clockwork clockwork,
            Ticker ticker) {
        this.clockwork = clockwork;
        last = Caffeine.newBuilder()
                .expireAfterWrite(FRESH)
                .ticker(ticker::nanos)
                .maximumSize(10_000)
                .build();
        every = config.measureEvery();
        this.db = db;
        this.sites = sites;
        this.networkDefinitions = networkDefinitions;
        this.siteResources = siteResources;
        this.live = live;
        this.probes = probes;
    }

    void start(@Observes StartupEvent event) {
        clockwork.every(every, NOT_MEASURED, this::measureAll);
    }

    private void measureAll() {
        List<Long> ids = QuarkusTransaction.requiringNew()
                .call(() -> sites.bringUps().stream().map(bringUp -> bringUp.id).toList());
        ids.forEach(id -> measure(id, true));
    }

    /** Starts a check of the services; the screen is told of results. */
    public void ask(long bringUpId) {
        asked.add(bringUpId);
        measureAsked();
    }

    /** One bring-up after the other, however many screens ask. */
    private void measureAsked() {
        if (!asked.isEmpty() && measuring.compareAndSet(false, true)) {
            clockwork.after(Duration.ZERO, NOT_MEASURED, () -> {
                try {
                    Long next = asked.pollFirst();
                    if (next != null) {
                        measure(next, false);
                    }
                } finally {
                    measuring.set(false);
                    measureAsked();
                }
            });
        }
    }

    private ServiceProbes.Questions questions(long bringUpId) {
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
            } else if (SERVICES.contains(sort)) {
                services.add(row);
            }
        }
        // of the whole site: what a service answers is kept once, and bring-ups would overwrite each other's answers
        List<String> senders = db.createNativeQuery(
                        "select distinct f.value from unit_fact f join bring_up b on b.id = f.bring_up_id where "
                                + "b.site_id = :site and f.name = 'mail-sender' and f.value is not null",
                        String.class)
                .setParameter("site", bringUp.site.id)
                .getResultList();
        times.removeIf(time -> Address.tryParse(time).isEmpty());
        List<String> planned = db.createNativeQuery(
                        "select c.host_name || '.' || c.domain from unit_address c join unit_kind u on "
                                + "u.unit_id = c.unit_id join bring_up b on b.id = u.bring_up_id where b.site_id = "
                                + ":site and u.in_use and c.live and not c.has_record group by 1 order by "
                                + "bool_or(b.id = :id) desc, 1",
                        String.class)
                .setParameter("site", bringUp.site.id)
                .setParameter("id", bringUpId)
                .setMaxResults(MOST_NAMES)
                .getResultList();
        return new ServiceProbes.Questions(
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

    private synchronized void measure(long bringUpId, boolean anyway) {
        ServiceProbes.Questions questions = QuarkusTransaction.requiringNew().call(() -> questions(bringUpId));
        if (!anyway && questions.what().equals(last.getIfPresent(bringUpId))) {
            return;
        }
        List<Measured> measured = probes.all(questions);
        last.put(bringUpId, questions.what());
        QuarkusTransaction.requiringNew().run(() -> keep(bringUpId, questions.siteId(), measured));
    }

    private void keep(long bringUpId, long siteId, List<Measured> measured) {
        for (Measured each : measured) {
            db.merge(MeasuredService.of(siteId, each));
        }
        live.tell(bringUpId, "prepare");
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
