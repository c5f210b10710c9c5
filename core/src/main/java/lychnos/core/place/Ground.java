package lychnos.core.place;

import java.util.Collection;
import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.AddressSet;
import lychnos.core.address.Prefix;
import lychnos.core.address.Run;

/**
 * What may be given out in one network: the pools, less everything that must stay free of units.
 *
 * @param purpose what the network is for, by which a {@link Need} names it
 * @param network the prefix; its network and broadcast address are never given out
 * @param gateway the gateway, or null where the network has none
 * @param pools the runs that units may take from
 * @param kept runs that are kept for something else: infrastructure, a DHCP scope, growth
 * @param taken addresses that live units bear, and strangers that answer at theirs
 * @param cooling addresses that were released a short while ago
 */
public record Ground(
        String purpose, Prefix network, Address gateway, Collection<Run> pools, Collection<Run> kept, Collection<Address> taken, Collection<Address> cooling) {

    public Ground {
        pools = List.copyOf(pools);
        kept = List.copyOf(kept);
    }

    /** The addresses that are free to be proposed. */
    public AddressSet free() {
        AddressSet free = new AddressSet();
        pools.forEach(free::add);
        free.remove(network.network());
        if (network.network().isV4() && network.length() < 31) {
            free.remove(network.last());
        }
        if (gateway != null) {
            free.remove(gateway);
        }
        kept.forEach(free::remove);
        taken.forEach(free::remove);
        cooling.forEach(free::remove);
        return free;
    }
}
