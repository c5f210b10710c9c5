package lychnos.server.allocate;

import io.quarkus.runtime.ShutdownEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import lychnos.core.address.Address;
import lychnos.core.existing.InUse;
import lychnos.core.fact.Mac;
import lychnos.server.LychnosConfig;
import lychnos.server.database.Rows;
import lychnos.server.live.Live;
import lychnos.server.site.Network;
import lychnos.server.text.AllocateText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.redfish.ServiceRoot;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;

/**
 * Asks the wire about addresses before they are given out. One that answers is an unknown device and is given to
 * nobody. Silence proves nothing, and is only ever called silence.
 */
@ApplicationScoped
public class AddressProbes {

    private static final Duration PATIENCE = Duration.ofMillis(400);
    private static final int AT_ONCE = 192;
    /** More addresses than these are asked by ping alone, so that a whole hall is asked within seconds. */
    private static final int MOST_BY_PORT = 512;

    private static final int[] PORTS = {443, 22};

    /** A controller may take its time for the first handshake after a start. */
    private static final Duration ROOT = Duration.ofSeconds(3);

    private final Session db;
    private final Live live;
    private final Vantage vantage;
    private final Leases leases;
    private final int redfishPort;
    private final Clock clock;
    private final ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE);

    AddressProbes(Session db, Live live, Vantage vantage, Leases leases, LychnosConfig config, Clock clock) {
        this.db = db;
        this.live = live;
        this.vantage = vantage;
        this.leases = leases;
        this.redfishPort = config.labPort().orElse(ServiceRoot.PORT);
        this.clock = clock;
    }

    void stop(@Observes ShutdownEvent event) {
        threads.shutdownNow();
    }

    /**
     * What is at an address.
     *
     * @param mac where it is known, or null
     * @param answered whether anything answered there; false where the address is only named or leased
     * @param controller what its Redfish service root says, or null where none was read
     */
    public record Heard(Mac mac, boolean answered, String sentence, String controller) {}

    /**
     * Whether silence can be told from an answer here. On plain loopback everything answers, and nothing can be asked.
     */
    public boolean possible() {
        return vantage.hearsSilence();
    }

    /**
     * Asks each address by ping and by two ports, the name servers for its reverse record, and the lease files; gives
     * back those that answer, bear a name or are leased. Where silence cannot be told, only names and leases are looked
     * at.
     *
     * @param networks in which the addresses lie; their first name server that is an address is asked
     */
    public Map<Address, Heard> heard(Collection<Address> addresses, List<Network> networks) {
        // an echo that may not be sent says nothing: then ports are asked however many addresses there are
        boolean byPort = addresses.size() <= MOST_BY_PORT
                || possible()
                        && await(threads.submit(
                                () -> vantage.ping(addresses.iterator().next(), PATIENCE)
                                                .state()
                                        == Echo.State.NOT_PERMITTED));
        Map<Address, List<Future<String>>> asked = new LinkedHashMap<>();
        Map<Address, Future<String>> named = new LinkedHashMap<>();
        for (Address address : addresses) {
            List<Future<String>> ways = new ArrayList<>();
            if (possible()) {
                ways.add(threads.submit(
                        () -> vantage.ping(address, PATIENCE).state() == Echo.State.ANSWERED ? "ping" : ""));
                for (int port : byPort ? PORTS : new int[0]) {
                    ways.add(threads.submit(
                            () -> vantage.port(address, port, PATIENCE) == PortState.SILENT ? "" : "TCP " + port));
                }
            }
            asked.put(address, ways);
            nameServer(address, networks)
                    .ifPresent(server -> named.put(address, threads.submit(() -> reverse(server, address))));
        }
        Map<Address, Future<String>> roots = new LinkedHashMap<>();
        asked.forEach((address, ways) -> {
            if (ways.stream().map(AddressProbes::await).anyMatch(way -> !way.isEmpty())) {
                roots.put(address, threads.submit(() -> controller(address)));
            }
        });
        Map<Address, InUse> leased = leases.held();
        Map<Address, Heard> heard = new LinkedHashMap<>();
        asked.forEach((address, ways) -> {
            List<String> said = new ArrayList<>();
            List<String> answers = ways.stream()
                    .map(AddressProbes::await)
                    .filter(way -> !way.isEmpty())
                    .toList();
            if (!answers.isEmpty()) {
                said.add(AllocateText.ANSWERS.text(String.join(" and ", answers)));
            }
            String name = named.containsKey(address) ? await(named.get(address)) : "";
            if (!name.isEmpty()) {
                said.add(AllocateText.IS_CALLED_BY_ITS_REVERSE_RECORD.text(name));
            }
            InUse lease = leased.get(address);
            if (lease != null) {
                said.add(AllocateText.IS_LEASED_BY_DHCP.text((lease.name().isEmpty() ? "" : " to " + lease.name())));
            }
            if (!said.isEmpty()) {
                Mac mac = answers.isEmpty() ? null : neighbour(address);
                heard.put(
                        address,
                        new Heard(
                                mac == null && lease != null ? lease.mac().orElse(null) : mac,
                                !answers.isEmpty(),
                                String.join(" and ", said),
                                roots.containsKey(address) ? await(roots.get(address)) : null));
            }
        });
        return heard;
    }

    private static Optional<Address> nameServer(Address address, List<Network> networks) {
        return networks.stream()
                .filter(network -> network.prefix.contains(address))
                .flatMap(network -> network.nameServers.stream())
                .flatMap(server -> Address.tryParse(server).stream())
                .findFirst();
    }

    /** The name that a reverse record gives an address; empty where there is none or no name server answers. */
    private String reverse(Address server, Address address) {
        try {
            List<String> names = vantage.resolve(server, address.reverseName(), "PTR", PATIENCE);
            return names.isEmpty() ? "" : names.get(0);
        } catch (WireFault e) {
            return "";
        }
    }

    /** What a management controller says before anything about it is known; null for other machines. */
    private String controller(Address address) {
        return ServiceRoot.at(vantage, address, redfishPort, ROOT)
                .map(root -> root.product().isEmpty()
                        ? AllocateText.REDFISH.text(root.version())
                        : AllocateText.REDFISH_PRODUCT.text(root.product(), root.version()))
                .orElse(null);
    }

    private Mac neighbour(Address address) {
        try {
            return vantage.neighbour(address).orElse(null);
        } catch (WireFault e) {
            return null;
        }
    }

    private static <T> T await(Future<T> future) {
        try {
            return future.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted while the wire was asked", e);
        } catch (ExecutionException e) {
            throw new IllegalStateException("the wire could not be asked", e.getCause());
        }
    }

    /** Records addresses that answer but were not allocated here. */
    @Transactional
    public void note(Network network, long bringUpId, Map<Address, Heard> heard) {
        String now = clock.instant().toString();
        // in one order; a second result adds to the first: two people may look at the same
        // moment
        Rows.of(heard.entrySet().stream().sorted(Map.Entry.comparingByKey()).toList())
                .column("inet", each -> each.getKey().toString())
                .column(
                        "macaddr",
                        each -> each.getValue().mac() == null
                                ? null
                                : each.getValue().mac().toString())
                .column("boolean", each -> String.valueOf(each.getValue().answered()))
                .column("text", each -> each.getValue().sentence())
                .column("text", each -> each.getValue().controller())
                .column("timestamptz", each -> now)
                .write(
                        db,
                        "insert into unknown_device (network_id, address, mac, answered, sentence, controller, "
                                + "first_heard, last_heard) select "
                                + network.id
                                + ", address, mac, answered, sentence, controller, at, at from %s as heard (address, "
                                + "mac, answered, sentence, controller, at)"
                                + " on conflict (network_id, address) do update set mac = excluded.mac, "
                                + "answered = excluded.answered, sentence = "
                                + "excluded.sentence, last_heard = excluded.last_heard, "
                                // a look that asked for no root takes nothing from what the same machine said before
                                + "controller = coalesce(excluded.controller, case when unknown_device.mac = "
                                + "excluded.mac then unknown_device.controller end)");
        live.tell(bringUpId, "allocate");
    }

    /** Forgets an unknown device that is silent now. */
    @Transactional
    public void forget(long networkId, Address address, long bringUpId) {
        if (db.createMutationQuery("delete from UnknownDevice where key = :key")
                        .setParameter("key", new UnknownDevice.UnknownDeviceKey(networkId, address))
                        .executeUpdate()
                > 0) {
            live.tell(bringUpId, "allocate");
        }
    }

    /** Those that were heard to answer, not only read of. */
    @Transactional
    public List<Address> unknownDevicesThatAnswered(long networkId) {
        return unknownDevices(networkId).stream()
                .filter(each -> each.answered)
                .map(each -> each.key.address())
                .toList();
    }

    public List<UnknownDevice> unknownDevices(long networkId) {
        return db.createQuery("from UnknownDevice where key.networkId = :id order by key.address", UnknownDevice.class)
                .setParameter("id", networkId)
                .getResultList();
    }
}
