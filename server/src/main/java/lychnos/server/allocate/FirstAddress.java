package lychnos.server.allocate;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.fact.Mac;
import lychnos.server.site.AddressRange;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.text.AllocateText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;

/** Where a machine answers that was never set up, and of which only the MAC address is known. */
@ApplicationScoped
public class FirstAddress {

    private static final Duration CONNECT = Duration.ofSeconds(2);
    private static final Duration ASK_ALL = Duration.ofSeconds(6);

    private final Leases leases;
    private final Plans plans;
    private final NetworkDefinitions networkDefinitions;
    private final Vantage vantage;

    FirstAddress(Leases leases, Plans plans, NetworkDefinitions networkDefinitions, Vantage vantage) {
        this.leases = leases;
        this.plans = plans;
        this.networkDefinitions = networkDefinitions;
        this.vantage = vantage;
    }

    /** An address, and how it was found, for people. */
    public record FoundAddress(Address address, String how) {}

    /**
     * Looks among what DHCP servers have leased, then asks the segment, from a vantage point that is in it.
     *
     * @throws lychnos.server.api.problem.Refusal when a lease file cannot be read
     */
    public Optional<FoundAddress> of(long unitId, Mac mac, int port) throws WireFault {
        for (Address leased : leases.held().values().stream()
                .filter(use -> use.mac().filter(mac::equals).isPresent())
                .map(use -> use.address())
                .toList()) {
            if (vantage.port(leased, port, CONNECT) == PortState.OPEN) {
                return Optional.of(new FoundAddress(leased, AllocateText.FOUND_AT_BY_ITS_LEASE.text(leased)));
            }
        }
        for (AddressRun scope : vantage.hearsSilence() ? scopes(unitId) : List.<AddressRun>of()) {
            Optional<Address> answers = vantage.findByMac(mac, scope, ASK_ALL);
            if (answers.isPresent()) {
                return Optional.of(
                        new FoundAddress(answers.get(), AllocateText.FOUND_AT_WHERE_ANSWERS.text(answers.get(), mac)));
            }
        }
        return Optional.empty();
    }

    /** What DHCP hands out in the networks that the unit is placed in. */
    @Transactional
    public List<AddressRun> scopes(long unitId) {
        return plans.seatsOf(unitId).stream()
                .map(seat -> seat.networkId())
                .distinct()
                .flatMap(network -> networkDefinitions.ranges(network).stream())
                .filter(range -> range.purpose.equals(AddressRange.DHCP))
                .map(AddressRange::run)
                .toList();
    }
}
