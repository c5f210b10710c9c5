package lychnos.server.prove;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.runtime.ShutdownEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.transaction.Transactional;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.server.allocate.AddressProbes;
import lychnos.server.allocate.FreeAddresses;
import lychnos.server.allocate.UnknownDevice;
import lychnos.server.live.Live;
import lychnos.server.site.AddressRange;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.text.ProveText;
import lychnos.server.units.BringUps;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;
import org.jboss.logging.Logger;
import org.jspecify.annotations.Nullable;

/**
 * Scans the pools for addresses that answer but were not allocated here, whenever everything is checked.
 */
@ApplicationScoped
public class UnknownDevices {

    private static final Logger LOG = Logger.getLogger(UnknownDevices.class);
    private static final Duration PATIENCE = Duration.ofMillis(700);
    /** Of a pool that is larger, only the front is scanned: unknown devices settle there. */
    private static final int MOST = 8192;

    private final Session db;
    private final BringUps bringUps;
    private final NetworkDefinitions networkDefinitions;
    private final FreeAddresses freeAddresses;
    private final AddressProbes addressProbes;
    private final Vantage vantage;
    private final Live live;
    private final Set<Long> looking = ConcurrentHashMap.newKeySet();
    private final ExecutorService thread = Executors.newSingleThreadExecutor();

    UnknownDevices(
            Session db,
            BringUps bringUps,
            NetworkDefinitions networkDefinitions,
            FreeAddresses freeAddresses,
            AddressProbes addressProbes,
            Vantage vantage,
            Live live) {
        this.db = db;
        this.bringUps = bringUps;
        this.networkDefinitions = networkDefinitions;
        this.freeAddresses = freeAddresses;
        this.addressProbes = addressProbes;
        this.vantage = vantage;
        this.live = live;
    }

    void stop(@Observes ShutdownEvent event) {
        thread.shutdownNow();
    }

    /** One of them, as people are told. */
    public record HeardDeviceView(
            String network,
            String address,
            @Nullable String mac,
            String sentence,
            Instant firstHeard,
            Instant lastHeard) {}

    /** Free addresses of the pools of one network. */
    private record DevicePool(Network network, List<Address> free) {}

    @Transactional
    public List<HeardDeviceView> of(long bringUpId) {
        List<Network> networks = networkDefinitions.networks(bringUps.get(bringUpId));
        Set<Address> ours = networks.isEmpty() ? Set.of() : freeAddresses.allocated(networks);
        List<HeardDeviceView> all = new ArrayList<>();
        for (Network network : networks) {
            for (UnknownDevice each : addressProbes.unknownDevices(network.id)) {
                if (!ours.contains(each.key.address())) {
                    all.add(new HeardDeviceView(
                            network.name,
                            each.key.address().toString(),
                            each.mac == null ? null : each.mac.toString(),
                            each.sentence,
                            each.firstHeard,
                            each.lastHeard));
                }
            }
        }
        return all;
    }

    /**
     * Scans in the background; does nothing where silence cannot be detected, or while a scan runs there
     * already.
     */
    public void look(long bringUpId) {
        if (addressProbes.possible() && looking.add(bringUpId)) {
            thread.execute(() -> {
                try {
                    pools(bringUpId).forEach(pool -> look(bringUpId, pool));
                } catch (RuntimeException e) {
                    LOG.warnf("unknown devices cannot be looked for now: %s", e.getMessage());
                } finally {
                    looking.remove(bringUpId);
                    QuarkusTransaction.requiringNew().run(() -> live.tell(bringUpId, "prove"));
                }
            });
        }
    }

    private List<DevicePool> pools(long bringUpId) {
        return QuarkusTransaction.requiringNew().call(() -> {
            List<Network> networks = networkDefinitions.networks(bringUps.get(bringUpId));
            Set<Address> ours = networks.isEmpty() ? Set.of() : freeAddresses.allocated(networks);
            return networks.stream()
                    .filter(network -> network.prefix.network().isV4())
                    .map(network -> {
                        List<Address> free = new ArrayList<>();
                        for (AddressRange range : db.createQuery(
                                        "from AddressRange where networkId = :id and purpose = 'pool' order by id",
                                        AddressRange.class)
                                .setParameter("id", network.id)
                                .getResultList()) {
                            for (long i = 0; i < range.run().size() && free.size() < MOST; i++) {
                                Address address = range.run().first().plus(i);
                                if (!ours.contains(address)) {
                                    free.add(address);
                                }
                            }
                        }
                        return new DevicePool(network, free);
                    })
                    .toList();
        });
    }

    private void look(long bringUpId, DevicePool pool) {
        Map<Address, Echo> echoes;
        try {
            echoes = vantage.sweep(pool.free, PATIENCE);
        } catch (WireFault e) {
            LOG.warnf("The pools of %s cannot be asked: %s", pool.network.name, e.getMessage());
            return;
        }
        Map<Address, AddressProbes.Heard> strange = new HashMap<>();
        echoes.forEach((address, echo) -> {
            if (echo.state() == Echo.State.ANSWERED) {
                strange.put(
                        address,
                        new AddressProbes.Heard(hardware(address), true, ProveText.ANSWERS_TO_PING.text(), null));
            }
        });
        if (!strange.isEmpty()) {
            addressProbes.note(pool.network, bringUpId, strange);
        }
        // what was read in a list stays: it never said that it answers
        addressProbes.unknownDevicesThatAnswered(pool.network.id).stream()
                .filter(address ->
                        echoes.containsKey(address) && echoes.get(address).state() == Echo.State.SILENT)
                .forEach(address -> addressProbes.forget(pool.network.id, address, bringUpId));
    }

    private Mac hardware(Address address) {
        try {
            return vantage.neighbour(address).orElse(null);
        } catch (WireFault e) {
            return null; // the address itself is reported anyway
        }
    }
}
