package lychnos.core.place;

import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.AddressSet;
import lychnos.core.address.Prefix;

/**
 * What may be given out in one network: the pools, less everything that must stay free of units.
 *
 * @param purpose what the network is for, by which a {@link Need} names it
 * @param network the prefix; its network and broadcast address are never given out
 * @param gateway the gateway, or null where the network has none
 * @param pools the runs that units may take from
 * @param kept runs that are kept for something else: infrastructure, a DHCP scope, growth
 * @param taken addresses that live units bear, and unknown devices that answer at theirs
 * @param cooling addresses that were released a short while ago
 */
public record FreeSpace(
        String purpose,
        Prefix network,
        Address gateway,
        Collection<AddressRun> pools,
        Collection<AddressRun> kept,
        Collection<Address> taken,
        Collection<Address> cooling) {

    public FreeSpace {
        pools = List.copyOf(pools);
        kept = List.copyOf(kept);
    }

    /** The addresses that are free to be proposed. */
    public AddressSet free() {
        AddressSet free = usable();
        taken.forEach(free::remove);
        cooling.forEach(free::remove);
        return free;
    }

    /** How many addresses are free: the size of {@link #free}, without building it. */
    public long freeSize() {
        AddressSet usable = usable();
        Set<Address> used = new HashSet<>(taken);
        used.addAll(cooling);
        return usable.size() - used.stream().filter(usable::contains).count();
    }

    /** The pools, less what no unit ever gets. */
    private AddressSet usable() {
        AddressSet usable = new AddressSet();
        pools.forEach(usable::add);
        usable.remove(network.network());
        if (network.network().isV4() && network.length() < 31) {
            usable.remove(network.last());
        }
        if (gateway != null) {
            usable.remove(gateway);
        }
        kept.forEach(usable::remove);
        return usable;
    }
}
