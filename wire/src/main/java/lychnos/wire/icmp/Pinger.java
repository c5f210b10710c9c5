package lychnos.wire.icmp;

import com.sun.jna.LastErrorException;
import com.sun.jna.Native;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.core.address.Address;
import lychnos.wire.time.Ticker;

/**
 * ICMP echo over a datagram socket, which Linux grants to the groups in {@code net.ipv4.ping_group_range} and to nobody
 * where that is empty. One socket an echo: connected, so that the kernel hands over only answers from the asked
 * address.
 */
public final class Pinger {

    static final int AF_INET = 2;
    static final int AF_INET6 = 10;
    static final int SOCK_DGRAM_CLOEXEC = 2 | 0x80000;
    static final int IPPROTO_ICMP = 1;
    static final int IPPROTO_ICMPV6 = 58;
    private static final short POLLIN = 1;
    private static final int EPERM = 1;
    private static final int EACCES = 13;
    private static final int ECHO_LENGTH = 24;

    private static final AtomicInteger SEQUENCE = new AtomicInteger();

    static {
        Native.register(Pinger.class, "c");
    }

    private static native int socket(int domain, int type, int protocol) throws LastErrorException;

    private static native int connect(int fd, byte[] address, int length) throws LastErrorException;

    private static native int send(int fd, byte[] data, int length, int flags) throws LastErrorException;

    private static native int recv(int fd, byte[] data, int length, int flags) throws LastErrorException;

    private static native int poll(byte[] entries, int count, int timeoutMillis) throws LastErrorException;

    private static native int close(int fd) throws LastErrorException;

    /** Sends one echo and waits for its answer; an error on the way counts as silence. */
    public Echo ping(Address address, Duration timeout) {
        int fd;
        try {
            fd = socket(
                    address.isV4() ? AF_INET : AF_INET6,
                    SOCK_DGRAM_CLOEXEC,
                    address.isV4() ? IPPROTO_ICMP : IPPROTO_ICMPV6);
        } catch (LastErrorException e) {
            if (e.getErrorCode() == EACCES || e.getErrorCode() == EPERM) {
                return new Echo(Echo.State.NOT_PERMITTED, null);
            }
            throw e;
        }
        try {
            return exchange(fd, address, timeout);
        } catch (LastErrorException e) {
            // host or network unreachable, as the kernel learnt from ARP or from a router
            return new Echo(Echo.State.SILENT, null);
        } finally {
            close(fd);
        }
    }

    private static Echo exchange(int fd, Address address, Duration timeout) {
        byte[] peer = socketAddress(address);
        connect(fd, peer, peer.length);
        short sequence = (short) SEQUENCE.incrementAndGet();
        byte[] request = ByteBuffer.allocate(ECHO_LENGTH)
                .put((byte) (address.isV4() ? 8 : 128))
                .putShort(6, sequence)
                .putLong(8, Ticker.SYSTEM.nanos())
                .array();
        long start = Ticker.SYSTEM.nanos();
        send(fd, request, request.length, 0);
        long deadline = start + timeout.toNanos();
        byte[] answer = new byte[ECHO_LENGTH * 2];
        while (true) {
            int left = (int) Math.max(0, (deadline - Ticker.SYSTEM.nanos()) / 1_000_000);
            byte[] entry = ByteBuffer.allocate(8)
                    .order(ByteOrder.nativeOrder())
                    .putInt(fd)
                    .putShort(POLLIN)
                    .array();
            if (poll(entry, 1, left) == 0) {
                return new Echo(Echo.State.SILENT, null);
            }
            int length = recv(fd, answer, answer.length, 0);
            if (isOurs(answer, length, request, address.isV4())) {
                return new Echo(Echo.State.ANSWERED, Duration.ofNanos(Ticker.SYSTEM.nanos() - start));
            }
        }
    }

    private static boolean isOurs(byte[] answer, int length, byte[] request, boolean v4) {
        boolean typeMatches = answer[0] == (byte) (v4 ? 0 : 129);
        boolean lengthMatches = length == request.length;
        boolean sequenceMatches = answer[6] == request[6] && answer[7] == request[7];
        boolean payloadMatches =
                ByteBuffer.wrap(answer).getLong(8) == ByteBuffer.wrap(request).getLong(8);
        return typeMatches && lengthMatches && sequenceMatches && payloadMatches;
    }

    static byte[] socketAddress(Address address) {
        ByteBuffer buffer = ByteBuffer.allocate(address.isV4() ? 16 : 28).order(ByteOrder.nativeOrder());
        buffer.putShort((short) (address.isV4() ? AF_INET : AF_INET6));
        buffer.position(address.isV4() ? 4 : 8);
        return buffer.put(address.toBytes()).array();
    }
}
