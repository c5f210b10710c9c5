package lychnos.server.prove;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.core.address.Address;
import lychnos.server.time.Clockwork;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.time.Ticker;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;
import org.jboss.logging.Logger;

/**
 * Pings what is waiting to be checked, all of it together, before it is anybody's turn. Of many addresses those that
 * are dead cost one time-out together then, and endpoints that answer do not wait for them.
 */
@ApplicationScoped
public class Echoes {

    private final Ticker ticker;

    private static final Logger LOG = Logger.getLogger(Echoes.class);
    private static final Duration LOOK = Duration.ofMillis(300);
    /** A few are pinged one by one, when it is their turn. */
    private static final int FEW = 24;
    /** With so many known, the next ones are asked for later. */
    private static final int MANY = 4000;

    private static final int MOST = 16_000;
    private static final long FRESH_NANOS = 20_000_000_000L;
    private static final Duration PATIENCE = Duration.ofMillis(700);

    private final Session db;
    private final Vantage vantage;
    private volatile Sweep sweep = new Sweep(Set.of(), CompletableFuture.completedFuture(null));
    private volatile long sweptAt;
    private final Map<Address, Heard> heard = new ConcurrentHashMap<>();

    Echoes(Session db, Vantage vantage, Ticker ticker) {
        this.ticker = ticker;
        this.db = db;
        this.vantage = vantage;
    }

    private record Heard(Echo echo, long at) {}

    /** Addresses that nothing is known of and that are being pinged. */
    private record Sweep(Set<Address> addresses, CompletableFuture<Void> over) {}

    void start(@Observes StartupEvent event, Clockwork clockwork) {
        clockwork.every(LOOK, "What waits to be checked cannot be pinged ahead now", this::look);
    }

    /**
     * What was heard of an address a moment ago, or null; each echo is given once. Where it is just being pinged with
     * others, that is waited for.
     */
    Echo of(Address address) {
        Sweep going = sweep;
        if (going.addresses.contains(address)) {
            going.over.join();
        }
        Heard last = heard.remove(address);
        return last == null || ticker.nanos() - last.at > FRESH_NANOS || last.echo.state() == Echo.State.NOT_PERMITTED
                ? null
                : last.echo;
    }

    private void look() {
        try {
            long now = ticker.nanos();
            heard.values().removeIf(each -> now - each.at > FRESH_NANOS);
            if (heard.size() > MANY && now - sweptAt < FRESH_NANOS / 2) {
                return;
            }
            List<Address> waiting =
                    new ArrayList<>(QuarkusTransaction.requiringNew().call(this::waiting));
            // what would soon be too old is pinged again before it is
            waiting.removeIf(address -> heard.containsKey(address) && now - heard.get(address).at < FRESH_NANOS / 2
                    || !vantage.at(address).hearsSilence());
            if (waiting.size() > FEW) {
                ping(waiting);
            }
        } catch (WireFault e) {
            LOG.debugf("Nothing is pinged ahead: %s", e.getMessage());
        }
    }

    private void ping(List<Address> waiting) throws WireFault {
        Set<Address> fresh = new HashSet<>(waiting);
        fresh.removeAll(heard.keySet());
        sweep = new Sweep(fresh, new CompletableFuture<>());
        try {
            Map<Address, Echo> echoes = vantage.sweep(waiting, PATIENCE);
            sweptAt = ticker.nanos();
            echoes.forEach((address, echo) -> heard.put(address, new Heard(echo, sweptAt)));
        } finally {
            sweep.over.complete(null);
        }
    }

    private List<Address> waiting() {
        return db.createNativeQuery(
                        "select host(c.address) from run r join claim c on c.unit_id = r.unit_id and c.released_at "
                                + "is null where r.purpose = 'prove' and r.state = 'WAITING' order by r.id limit "
                                + MOST,
                        String.class)
                .getResultStream()
                .map(Address::parse)
                .toList();
    }
}
