package lychnos.wire.arp;

import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;

/** A neighbor solicitation (RFC 4861, sections 4.3 and 4.4) for an IPv6 address over Ethernet (RFC 2464). */
final class Solicitation implements WhoHas.Asking {

    private static final short ETHER_IPV6 = (short) 0x86dd;
    private static final byte ICMP_V6 = 58;
    /** Whatever has another hop limit came through a router and is to be read over (RFC 4861, section 7.1). */
    private static final byte HOP_LIMIT = (byte) 255;

    private static final byte NEIGHBOR_SOLICITATION = (byte) 135;
    private static final byte NEIGHBOR_ADVERTISEMENT = (byte) 136;
    private static final byte SOURCE_LINK_ADDRESS = 1;
    private static final byte TARGET_LINK_ADDRESS = 2;
    private static final int HEADER = 40;
    private static final int MESSAGE = 24;
    private static final int OPTION = 8;
    private static final int NEXT_HEADER_AT = 6;
    private static final int HOP_LIMIT_AT = 7;
    private static final int TARGET_AT = HEADER + 8;
    private static final int ADDRESS = 16;

    @Override
    public short etherType() {
        return ETHER_IPV6;
    }

    /** The multicast address of the solicited node's group (RFC 2464, section 7). */
    @Override
    public byte[] to(Address wanted) {
        byte[] bytes = wanted.toBytes();
        return new byte[] {0x33, 0x33, (byte) 0xff, bytes[13], bytes[14], bytes[15]};
    }

    /** RFC 4291, section 2.7.1. */
    private static byte[] group(Address wanted) {
        byte[] bytes = wanted.toBytes();
        return ByteBuffer.allocate(ADDRESS)
                .put((byte) 0xff)
                .put((byte) 2)
                .putLong(0)
                .put((byte) 0)
                .put((byte) 1)
                .put((byte) 0xff)
                .put(bytes, 13, 3)
                .array();
    }

    @Override
    public byte[] question(WhoHas.Port port, Address wanted) {
        byte[] source = port.own().toBytes();
        byte[] group = group(wanted);
        byte[] message = ByteBuffer.allocate(MESSAGE + OPTION)
                .put(NEIGHBOR_SOLICITATION)
                .put((byte) 0)
                .putShort((short) 0)
                .putInt(0)
                .put(wanted.toBytes())
                .put(SOURCE_LINK_ADDRESS)
                .put((byte) 1)
                .put(port.mac())
                .array();
        ByteBuffer.wrap(message).putShort(2, checksum(source, group, message));
        return ByteBuffer.allocate(HEADER + message.length)
                .putInt(6 << 28)
                .putShort((short) message.length)
                .put(ICMP_V6)
                .put(HOP_LIMIT)
                .put(source)
                .put(group)
                .put(message)
                .array();
    }

    /** Over the pseudo-header as well (RFC 4443, section 2.3). */
    private static short checksum(byte[] source, byte[] to, byte[] message) {
        ByteBuffer all = ByteBuffer.allocate(2 * ADDRESS + 8 + message.length)
                .put(source)
                .put(to)
                .putInt(message.length)
                .putInt(ICMP_V6)
                .put(message);
        all.flip();
        int sum = 0;
        while (all.remaining() > 1) {
            sum += Short.toUnsignedInt(all.getShort());
        }
        while (sum >>> 16 != 0) {
            sum = (sum & 0xffff) + (sum >>> 16);
        }
        return (short) ~sum;
    }

    @Override
    public Optional<Mac> answer(byte[] packet, Address wanted) {
        boolean is = packet.length >= HEADER + MESSAGE
                && packet[NEXT_HEADER_AT] == ICMP_V6
                && packet[HOP_LIMIT_AT] == HOP_LIMIT
                && packet[HEADER] == NEIGHBOR_ADVERTISEMENT
                && Arrays.equals(packet, TARGET_AT, TARGET_AT + ADDRESS, wanted.toBytes(), 0, ADDRESS);
        return is ? linkAddress(packet) : Optional.empty();
    }

    private static Optional<Mac> linkAddress(byte[] packet) {
        int at = HEADER + MESSAGE;
        while (at + OPTION <= packet.length && packet[at + 1] != 0) {
            if (packet[at] == TARGET_LINK_ADDRESS) {
                return Optional.of(new Mac(ByteBuffer.wrap(packet).getLong(at) & 0xffffffffffffL));
            }
            at += (packet[at + 1] & 0xff) * OPTION;
        }
        return Optional.empty();
    }
}
