package lychnos.core.rule;

import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.Prefix;

/**
 * A network as the rules look at it.
 *
 * @param purpose what it is for
 * @param gateway the gateway, or null
 * @param vlan the VLAN, or null
 * @param mtu the largest frame payload in bytes, or null where nobody said
 * @param pools runs that units take from
 * @param dhcp runs that DHCP hands out
 * @param ours whether the bring-up takes from it; the others are there to be compared with
 * @param toPlace how many addresses units still want from it
 * @param free how many addresses its pools still have
 * @param takenLately how many were taken from it in the last 28 days
 */
public record PlannedNetwork(
        long id,
        String name,
        String purpose,
        Prefix prefix,
        Address gateway,
        Integer vlan,
        Integer mtu,
        String domain,
        List<String> nameServers,
        List<String> timeServers,
        List<AddressRun> pools,
        List<AddressRun> dhcp,
        boolean ours,
        long toPlace,
        long free,
        long takenLately) {

    String called() {
        return name + " " + prefix;
    }
}
