package lychnos.wire.arp;

import com.sun.jna.LastErrorException;
import com.sun.jna.Native;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import java.util.Optional;
import lychnos.wire.time.TimeLeft;

/**
 * Packets of one protocol on one interface (packet(7)), with the link's own header taken off. Linux gives such a socket
 * to root and to holders of CAP_NET_RAW.
 */
final class PacketSocket implements AutoCloseable {

    private static final int AF_PACKET = 17;
    private static final int SOCK_DGRAM_CLOEXEC = 2 | 0x80000;
    private static final int LINK_ADDRESS = 20;
    private static final int MAC = 6;
    private static final short POLLIN = 1;
    private static final int LONGEST = 2048;

    static {
        Native.register(PacketSocket.class, "c");
    }

    private static native int socket(int domain, int type, int protocol) throws LastErrorException;

    private static native int bind(int fd, byte[] address, int length) throws LastErrorException;

    private static native int sendto(int fd, byte[] data, int length, int flags, byte[] address, int addressLength)
            throws LastErrorException;

    private static native int recv(int fd, byte[] data, int length, int flags) throws LastErrorException;

    private static native int poll(byte[] entries, int count, int timeoutMillis) throws LastErrorException;

    private static native int close(int fd) throws LastErrorException;

    private final int fd;
    private final int index;
    private final short etherType;
    private final byte[] packet = new byte[LONGEST];

    private PacketSocket(int fd, int index, short etherType) {
        this.fd = fd;
        this.index = index;
        this.etherType = etherType;
    }

    /**
     * Opens one.
     *
     * @param index of the interface
     * @return empty where it is not permitted
     * @throws LastErrorException where the interface is gone
     */
    static Optional<PacketSocket> open(int index, short etherType) {
        int fd;
        try {
            fd = socket(AF_PACKET, SOCK_DGRAM_CLOEXEC, Short.toUnsignedInt(bigEndian(etherType)));
        } catch (LastErrorException e) {
            return Optional.empty();
        }
        PacketSocket opened = new PacketSocket(fd, index, etherType);
        try {
            byte[] here = opened.linkAddress(new byte[MAC]);
            bind(fd, here, here.length);
            return Optional.of(opened);
        } catch (LastErrorException e) {
            opened.close();
            throw e;
        }
    }

    private static short bigEndian(short value) {
        return ByteOrder.nativeOrder() == ByteOrder.LITTLE_ENDIAN ? Short.reverseBytes(value) : value;
    }

    /** As {@code sockaddr_ll} has it. */
    private byte[] linkAddress(byte[] mac) {
        ByteBuffer buffer = ByteBuffer.allocate(LINK_ADDRESS).order(ByteOrder.nativeOrder());
        buffer.putShort((short) AF_PACKET).putShort(bigEndian(etherType)).putInt(index);
        buffer.putShort((short) 0).put((byte) 0).put((byte) mac.length).put(mac);
        return buffer.array();
    }

    void send(byte[] data, byte[] mac) {
        byte[] to = linkAddress(mac);
        sendto(fd, data, data.length, 0, to, to.length);
    }

    /**
     * The next packet.
     *
     * @param limit for how long it is waited for
     */
    Optional<byte[]> receive(TimeLeft limit) {
        byte[] entry = ByteBuffer.allocate(8)
                .order(ByteOrder.nativeOrder())
                .putInt(fd)
                .putShort(POLLIN)
                .array();
        if (limit.over() || poll(entry, 1, limit.millis()) == 0) {
            return Optional.empty();
        }
        return Optional.of(Arrays.copyOf(packet, recv(fd, packet, packet.length, 0)));
    }

    @Override
    public void close() {
        close(fd);
    }
}
