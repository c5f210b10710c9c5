package lychnos.core.place;

import java.util.Collection;
import lychnos.core.address.AddressSet;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.address.Run;

/**
 * What may be given out in one network: the pools, less everything that must stay free of units.
 *
 * @param network the prefix; its network and broadcast address are never given out
 * @param gateway the gateway, or null where the network has none
 * @param pools the runs that units may take from
 * @param kept runs that are kept for something else: infrastructure, a DHCP scope, growth
 * @param taken addresses that live units bear
 */
public record Ground(Prefix network, Address gateway, Collection<Run> pools, Collection<Run> kept, Collection<Address> taken) {

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
        // neighbours leave in one piece: a full network costs its runs, not its addresses
        Address[] sorted = taken.stream().sorted().toArray(Address[]::new);
        for (int from = 0, to; from < sorted.length; from = to + 1) {
            to = from;
            while (to + 1 < sorted.length && sorted[to + 1].equals(sorted[to].next())) {
                to++;
            }
            free.remove(new Run(sorted[from], sorted[to]));
        }
        return free;
    }
}
