package lychnos.wire.arp;

import com.sun.jna.LastErrorException;
import com.sun.jna.Native;
import java.net.InterfaceAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;

/**
 * Asks a segment who has an address (RFC 826) and hears everybody who says so: the kernel's own table keeps one of them alone. Wants
 * a packet socket, which Linux gives to root and to holders of CAP_NET_RAW.
 */
public final class WhoHas {

    private static final int AF_PACKET = 17;
    private static final int SOCK_DGRAM_CLOEXEC = 2 | 0x80000;
    private static final short ETHER_ARP = 0x0806;
    private static final short ETHERNET = 1;
    private static final short IPV4 = 0x0800;
    private static final short REQUEST = 1;
    private static final short REPLY = 2;
    private static final int PACKET = 28;
    private static final int LINK_ADDRESS = 20;
    private static final short POLLIN = 1;

    static {
        Native.register(WhoHas.class, "c");
    }

    private static native int socket(int domain, int type, int protocol) throws LastErrorException;

    private static native int bind(int fd, byte[] address, int length) throws LastErrorException;

    private static native int sendto(int fd, byte[] data, int length, int flags, byte[] address, int addressLength) throws LastErrorException;

    private static native int recv(int fd, byte[] data, int length, int flags) throws LastErrorException;

    private static native int poll(byte[] entries, int count, int timeoutMillis) throws LastErrorException;

    private static native int close(int fd) throws LastErrorException;

    /** An interface of this machine on the segment of an address. */
    private record Port(int index, byte[] mac, Address own) {}

    /**
     * Asks once and listens for the whole time.
     *
     * @return who said that it has the address, in the order heard; empty where nobody did, where this place is not on the segment, or
     *     where packets of one's own are not permitted
     */
    public List<Mac> ask(Address address, Duration listen) {
        Optional<Port> port = address.isV4() ? port(address) : Optional.empty();
        if (port.isEmpty()) {
            return List.of();
        }
        int fd;
        try {
            fd = socket(AF_PACKET, SOCK_DGRAM_CLOEXEC, Short.toUnsignedInt(bigEndian(ETHER_ARP)));
        } catch (LastErrorException e) {
            return List.of(); // not permitted here
        }
        try {
            byte[] here = linkAddress(port.get().index, new byte[6]);
            bind(fd, here, here.length);
            byte[] everybody = linkAddress(port.get().index, new byte[] {-1, -1, -1, -1, -1, -1});
            byte[] request = request(port.get(), address);
            sendto(fd, request, request.length, 0, everybody, everybody.length);
            return listen(fd, address, System.nanoTime() + listen.toNanos());
        } catch (LastErrorException e) {
            return List.of();
        } finally {
            close(fd);
        }
    }

    private static short bigEndian(short value) {
        return ByteOrder.nativeOrder() == ByteOrder.LITTLE_ENDIAN ? Short.reverseBytes(value) : value;
    }

    private static Optional<Port> port(Address address) {
        try {
            for (NetworkInterface each : java.util.Collections.list(NetworkInterface.getNetworkInterfaces())) {
                if (each.getHardwareAddress() == null || !each.isUp()) {
                    continue;
                }
                for (InterfaceAddress own : each.getInterfaceAddresses()) {
                    Address at = Address.of(own.getAddress().getAddress());
                    if (at.isV4() && own.getNetworkPrefixLength() < 32 && Prefix.around(at, own.getNetworkPrefixLength()).contains(address) && !at.equals(address)) {
                        return Optional.of(new Port(each.getIndex(), each.getHardwareAddress(), at));
                    }
                }
            }
            return Optional.empty();
        } catch (SocketException e) {
            return Optional.empty();
        }
    }

    /** As {@code sockaddr_ll} has it. */
    private static byte[] linkAddress(int index, byte[] mac) {
        ByteBuffer buffer = ByteBuffer.allocate(LINK_ADDRESS).order(ByteOrder.nativeOrder());
        buffer.putShort((short) AF_PACKET).putShort(bigEndian(ETHER_ARP)).putInt(index);
        buffer.putShort((short) 0).put((byte) 0).put((byte) mac.length).put(mac);
        return buffer.array();
    }

    private static byte[] request(Port port, Address wanted) {
        return ByteBuffer.allocate(PACKET)
                .putShort(ETHERNET).putShort(IPV4).put((byte) 6).put((byte) 4).putShort(REQUEST)
                .put(port.mac).put(port.own.toBytes())
                .put(new byte[6]).put(wanted.toBytes())
                .array();
    }

    private static List<Mac> listen(int fd, Address wanted, long end) {
        Set<Mac> heard = new LinkedHashSet<>();
        byte[] packet = new byte[64];
        while (true) {
            int left = (int) ((end - System.nanoTime()) / 1_000_000);
            byte[] entry = ByteBuffer.allocate(8).order(ByteOrder.nativeOrder()).putInt(fd).putShort(POLLIN).array();
            if (left <= 0 || poll(entry, 1, left) == 0) {
                return List.copyOf(heard);
            }
            int length = recv(fd, packet, packet.length, 0);
            ByteBuffer answer = ByteBuffer.wrap(packet);
            byte[] from = new byte[4];
            answer.get(14, from);
            if (length >= PACKET && answer.getShort(6) == REPLY && java.util.Arrays.equals(from, wanted.toBytes())) {
                heard.add(new Mac(answer.getLong(6) & 0xffffffffffffL));
            }
        }
    }
}
