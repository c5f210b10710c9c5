package lychnos.server.allocate;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.existing.ExistingList;
import lychnos.core.existing.InUse;
import lychnos.core.fact.LabelFault;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.site.BringUp;
import lychnos.server.site.Measures;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.site.SiteResourceRow;
import lychnos.server.site.SiteResources;
import lychnos.server.text.AllocateText;
import lychnos.server.units.BringUps;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.ZoneRecord;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;

/** Brings in what is in use already, from files and from whole zones, so that none of it is given out. */
@ApplicationScoped
public class Existing {

    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final Session db;
    private final BringUps bringUps;
    private final NetworkDefinitions networkDefinitions;
    private final FreeAddresses freeAddresses;
    private final SiteResources siteResources;
    private final Measures measures;
    private final Vantage vantage;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    Existing(
            Session db,
            BringUps bringUps,
            NetworkDefinitions networkDefinitions,
            FreeAddresses freeAddresses,
            SiteResources siteResources,
            Measures measures,
            Vantage vantage,
            Journal journal,
            Live live,
            Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.networkDefinitions = networkDefinitions;
        this.freeAddresses = freeAddresses;
        this.siteResources = siteResources;
        this.measures = measures;
        this.vantage = vantage;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** One address that is in use. */
    public record AddressUse(String address, String name, String source) {}

    /**
     * What was found.
     *
     * @param fresh addresses of the bring-up's networks that were unknown here
     * @param ours how many are addresses that were given out here
     * @param elsewhere how many lie in none of the networks
     */
    public record AddressReport(List<AddressUse> fresh, int ours, int elsewhere, List<LabelFault> faults) {}

    /** Reads a file, or only says what it would do. */
    public AddressReport read(long bringUpId, String text, boolean preview, Who.Person person) {
        ExistingList list = ExistingList.parse(text);
        return QuarkusTransaction.requiringNew()
                .call(() -> take(bringUpId, list.uses(), list.faults(), preview, person));
    }

    /** One zone with who gives it out. */
    private record ZoneSource(String zone, Address primary, Optional<NameKey> key) {}

    /** Reads every zone of the site's domains from its primary server. A zone that is cut short is not taken at all. */
    public AddressReport transfer(long bringUpId, boolean preview, Who.Person person) {
        List<ZoneSource> sources = QuarkusTransaction.requiringNew().call(() -> sources(bringUpId));
        if (sources.isEmpty()) {
            throw Refusal.conflict(AllocateText.NO_DOMAIN_WITH_A_PRIMARY_NAME_SERVER.said());
        }
        List<InUse> uses = new ArrayList<>();
        for (ZoneSource source : sources) {
            try {
                for (ZoneRecord record :
                        vantage.transfer(source.primary, source.zone, source.key.orElse(null), PATIENCE)) {
                    if (record.type().equals("A") || record.type().equals("AAAA")) {
                        uses.add(new InUse(Address.parse(record.data()), record.owner(), Optional.empty(), "zone"));
                    }
                }
            } catch (WireFault e) {
                throw Refusal.conflict(e.getMessage());
            }
        }
        return QuarkusTransaction.requiringNew().call(() -> take(bringUpId, uses, List.of(), preview, person));
    }

    private List<ZoneSource> sources(long bringUpId) {
        List<ZoneSource> sources = new ArrayList<>();
        for (SiteResourceRow row : siteResources.rows(bringUps.get(bringUpId).site.id)) {
            if (row.resource().sort() == SiteResourceSort.DOMAIN) {
                sources.add(new ZoneSource(row.name, Address.parse(row.value.get("primary")), measures.key(row)));
            }
        }
        return sources;
    }

    private AddressReport take(
            long bringUpId, List<InUse> uses, List<LabelFault> faults, boolean preview, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        List<Network> networks = networkDefinitions.networks(bringUp);
        Set<Address> ours = freeAddresses.allocated(networks);
        List<AddressUse> fresh = new ArrayList<>();
        int known = 0;
        int elsewhere = 0;
        for (InUse use : uses) {
            Optional<Network> network = networks.stream()
                    .filter(each -> each.prefix.contains(use.address()))
                    .findFirst();
            if (network.isEmpty()) {
                elsewhere++;
            } else if (ours.contains(use.address())) {
                known++;
            } else if (db.find(UnknownDevice.class, new UnknownDevice.UnknownDeviceKey(network.get().id, use.address()))
                    == null) {
                fresh.add(new AddressUse(use.address().toString(), use.name(), use.source()));
                if (!preview) {
                    db.persist(unknownDevice(network.get(), use));
                }
            }
        }
        if (!preview && !fresh.isEmpty()) {
            journal.write(
                    person, bringUpId, null, AllocateText.IMPORTED_EXISTING_ADDRESSES.text(fresh.size()), null, fresh);
            live.tell(bringUpId, "allocate");
        }
        return new AddressReport(fresh, known, elsewhere, faults);
    }

    private UnknownDevice unknownDevice(Network network, InUse use) {
        UnknownDevice unknownDevice = new UnknownDevice();
        unknownDevice.key = new UnknownDevice.UnknownDeviceKey(network.id, use.address());
        unknownDevice.mac = use.mac().orElse(null);
        unknownDevice.sentence =
                AllocateText.SAYS.text((use.name().isEmpty() ? "in use" : "is " + use.name()), use.source());
        unknownDevice.firstHeard = clock.instant();
        unknownDevice.lastHeard = clock.instant();
        return unknownDevice;
    }

    /** Takes back what was brought in. */
    @Transactional
    public void forget(long bringUpId, List<String> addresses, Who.Person person) {
        List<Network> networks = networkDefinitions.networks(bringUps.get(bringUpId));
        for (String address : addresses) {
            Address read = Address.parse(address);
            networks.stream().filter(network -> network.prefix.contains(read)).forEach(network -> {
                UnknownDevice unknownDevice =
                        db.find(UnknownDevice.class, new UnknownDevice.UnknownDeviceKey(network.id, read));
                if (unknownDevice != null) {
                    db.remove(unknownDevice);
                }
            });
        }
        journal.write(
                person,
                bringUpId,
                null,
                AllocateText.DELETED_IMPORTED_ADDRESSES.text(addresses.size()),
                addresses,
                null);
        live.tell(bringUpId, "allocate");
    }
}
