package lychnos.server.allocate;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.units.BringUps;

/** Addresses that a person wants probed now: what answers and is not ours becomes an unknown device. */
@ApplicationScoped
public class ProbesOnDemand {

    private final BringUps bringUps;
    private final NetworkDefinitions networkDefinitions;
    private final FreeAddresses freeAddresses;
    private final AddressProbes addressProbes;

    ProbesOnDemand(
            BringUps bringUps,
            NetworkDefinitions networkDefinitions,
            FreeAddresses freeAddresses,
            AddressProbes addressProbes) {
        this.bringUps = bringUps;
        this.networkDefinitions = networkDefinitions;
        this.freeAddresses = freeAddresses;
        this.addressProbes = addressProbes;
    }

    /** What the wire said about addresses. */
    public record Probed(int asked, boolean possible, List<Ribbons.UnknownDeviceView> answering) {}

    /** Probes addresses of the networks of a bring-up; blocks while it does. */
    Probed probe(long id, List<Address> addresses) {
        List<Network> networks =
                QuarkusTransaction.requiringNew().call(() -> networkDefinitions.networks(bringUps.get(id)));
        Map<Address, AddressProbes.Heard> heard = addressProbes.heard(
                addresses.stream()
                        .filter(address -> networks.stream().anyMatch(network -> network.prefix.contains(address)))
                        .toList(),
                networks);
        Set<Address> ours = QuarkusTransaction.requiringNew().call(() -> freeAddresses.allocated(networks));
        for (Network network : networks) {
            Map<Address, AddressProbes.Heard> strange = new LinkedHashMap<>(heard);
            strange.keySet().removeIf(address -> ours.contains(address) || !network.prefix.contains(address));
            if (!strange.isEmpty()) {
                addressProbes.note(network, id, strange);
            }
            if (addressProbes.possible()) {
                addresses.stream()
                        .filter(address -> network.prefix.contains(address) && !heard.containsKey(address))
                        .forEach(address -> addressProbes.forget(network.id, address, id));
            }
        }
        List<Ribbons.UnknownDeviceView> answering = heard.entrySet().stream()
                .map(each -> new Ribbons.UnknownDeviceView(
                        each.getKey().toString(),
                        each.getValue().mac() == null
                                ? null
                                : each.getValue().mac().toString(),
                        each.getValue().sentence(),
                        each.getValue().controller(),
                        null,
                        null,
                        null))
                .toList();
        return new Probed(addresses.size(), addressProbes.possible(), answering);
    }
}
