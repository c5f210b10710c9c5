package lychnos.core.rule;

import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.address.Run;

/**
 * What has been said about a network, as the rules look at it.
 *
 * @param gateway the gateway, or null
 * @param pools runs that units take from
 * @param kept runs kept for something else
 * @param toPlace how many units still want an address from this network
 * @param free how many addresses its pools still have
 */
public record Groundwork(
        Prefix prefix,
        Address gateway,
        List<String> nameServers,
        List<String> timeServers,
        List<Run> pools,
        List<Run> kept,
        long toPlace,
        long free) {}
