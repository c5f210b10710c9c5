package lychnos.wire.arp;

import com.sun.jna.LastErrorException;
import java.net.InterfaceAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.time.Duration;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;
import lychnos.wire.time.TimeLeft;

/**
 * Asks a segment who has an address (ARP, RFC 826; neighbor discovery, RFC 4861) and hears everybody who says so: the
 * kernel's own table keeps one of them alone. Wants a packet socket.
 */
public final class WhoHas {

    /** An interface of this machine on the segment of an address. */
    record Port(int index, byte[] mac, Address own) {}

    /** How a question is put, and its answer read. */
    interface Asking {

        short etherType();

        /** Whom it is sent to on the link. */
        byte[] to(Address wanted);

        byte[] question(Port port, Address wanted);

        /** Who says in this packet that the address is theirs. */
        Optional<Mac> answer(byte[] packet, Address wanted);
    }

    /**
     * Asks once and listens for the whole time.
     *
     * @return who said that it has the address, in the order heard; empty where nobody did, where this place is not on
     * the segment, or
     *     where packets of one's own are not permitted
     */
    public List<Mac> ask(Address address, Duration listen) {
        return ask(address, listen, Integer.MAX_VALUE);
    }

    /** The first who says so; listens no longer than that takes. */
    public Optional<Mac> first(Address address, Duration listen) {
        return ask(address, listen, 1).stream().findFirst();
    }

    private static List<Mac> ask(Address address, Duration listen, int enough) {
        Optional<Port> port = port(address);
        if (port.isEmpty()) {
            return List.of();
        }
        Asking asking = address.isV4() ? new ArpRequest() : new Solicitation();
        try {
            Optional<PacketSocket> opened = PacketSocket.open(port.get().index, asking.etherType());
            if (opened.isEmpty()) {
                return List.of();
            }
            try (PacketSocket socket = opened.get()) {
                TimeLeft left = TimeLeft.of(listen);
                socket.send(asking.question(port.get(), address), asking.to(address));
                Set<Mac> heard = new LinkedHashSet<>();
                Optional<byte[]> packet = socket.receive(left);
                while (packet.isPresent() && heard.size() < enough) {
                    asking.answer(packet.get(), address).ifPresent(heard::add);
                    packet = heard.size() < enough ? socket.receive(left) : packet;
                }
                return List.copyOf(heard);
            }
        } catch (LastErrorException e) {
            return List.of(); // the interface went away meanwhile
        }
    }

    private static Optional<Port> port(Address address) {
        try {
            for (NetworkInterface each : Collections.list(NetworkInterface.getNetworkInterfaces())) {
                if (each.getHardwareAddress() == null || !each.isUp()) {
                    continue;
                }
                for (InterfaceAddress own : each.getInterfaceAddresses()) {
                    Address at = Address.of(own.getAddress().getAddress());
                    int whole = at.isV4() ? 32 : 128;
                    if (at.isV4() == address.isV4()
                            && own.getNetworkPrefixLength() < whole
                            && Prefix.around(at, own.getNetworkPrefixLength()).contains(address)
                            && !at.equals(address)) {
                        return Optional.of(new Port(each.getIndex(), each.getHardwareAddress(), at));
                    }
                }
            }
            return Optional.empty();
        } catch (SocketException e) {
            return Optional.empty();
        }
    }
}
