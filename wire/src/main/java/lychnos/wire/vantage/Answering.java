package lychnos.wire.vantage;

import java.time.Duration;
import lychnos.core.address.Address;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.tcp.PortState;

/**
 * Whether anything answers at an address. Where this place may not send an echo, as in a new network namespace or
 * container, that says nothing about the address: its segment is asked who has it (ARP, neighbor discovery), and ports
 * that management endpoints have.
 */
public enum Answering {
    ANSWERS,
    SILENT,
    /** Nothing can be said from here. */
    UNKNOWN;

    private static final int[] PORTS = {443, 22, 80};

    /** Asks once. An error on the way to a port is silence. */
    public static Answering at(Vantage vantage, Address address, Duration timeout) throws WireFault {
        if (!vantage.hearsSilence()) {
            return UNKNOWN;
        }
        Echo.State echo = vantage.ping(address, timeout).state();
        if (echo != Echo.State.NOT_PERMITTED) {
            return echo == Echo.State.ANSWERED ? ANSWERS : SILENT;
        }
        if (!vantage.claimants(address).isEmpty()) {
            return ANSWERS;
        }
        for (int port : PORTS) {
            if (vantage.port(address, port, timeout) != PortState.SILENT) {
                return ANSWERS;
            }
        }
        return vantage.neighbour(address).isPresent() ? ANSWERS : SILENT;
    }
}
