package lychnos.wire.arp;

import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;

/** A request of ARP (RFC 826) for an IPv4 address over Ethernet. */
final class ArpRequest implements WhoHas.Asking {

    private static final short ETHER_ARP = 0x0806;
    private static final short ETHERNET = 1;
    private static final short IPV4 = 0x0800;
    private static final short REQUEST = 1;
    private static final short REPLY = 2;
    private static final int PACKET = 28;
    private static final int OPERATION = 6;
    private static final int SENDER = 8;
    private static final int SENDER_PROTOCOL = 14;

    @Override
    public short etherType() {
        return ETHER_ARP;
    }

    @Override
    public byte[] to(Address wanted) {
        return new byte[] {-1, -1, -1, -1, -1, -1};
    }

    @Override
    public byte[] question(WhoHas.Port port, Address wanted) {
        return ByteBuffer.allocate(PACKET)
                .putShort(ETHERNET)
                .putShort(IPV4)
                .put((byte) 6)
                .put((byte) 4)
                .putShort(REQUEST)
                .put(port.mac())
                .put(port.own().toBytes())
                .put(new byte[6])
                .put(wanted.toBytes())
                .array();
    }

    @Override
    public Optional<Mac> answer(byte[] packet, Address wanted) {
        ByteBuffer answer = ByteBuffer.wrap(packet);
        boolean is = packet.length >= PACKET
                && answer.getShort(OPERATION) == REPLY
                && Arrays.equals(packet, SENDER_PROTOCOL, SENDER_PROTOCOL + 4, wanted.toBytes(), 0, 4);
        return is ? Optional.of(new Mac(answer.getLong(SENDER - 2) & 0xffffffffffffL)) : Optional.empty();
    }
}
