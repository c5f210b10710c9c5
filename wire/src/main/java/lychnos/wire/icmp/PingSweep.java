package lychnos.wire.icmp;

import com.sun.jna.LastErrorException;
import com.sun.jna.Native;
import com.sun.jna.ptr.IntByReference;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import lychnos.core.address.Address;
import lychnos.wire.time.Ticker;

/**
 * ICMP echo to many addresses over one datagram socket for each family (RFC 792, RFC 4443). What is sent goes out at a
 * steady pace and nobody waits for the silent ones: they cost one time-out together. An answer counts by its sender,
 * its sequence number and the word that was sent with it.
 */
public final class PingSweep {

    /** So many echoes a second and no more: a hall's switches and a router's ARP table shall not notice. */
    public static final int PER_SECOND = 12_000;

    private static final int SOL_SOCKET = 1;
    private static final int SO_RCVBUF = 8;
    private static final int MSG_DONTWAIT = 0x40;
    private static final int EAGAIN = 11;
    private static final int ENOBUFS = 105;
    private static final int EACCES = 13;
    private static final int EPERM = 1;
    private static final int BURST = 64;
    private static final int BUFFER = 4 << 20;
    private static final int LENGTH = 24;
    private static final int TRIES = 2;
    private static final int TIMES_THE_SLOWEST = 4;
    private static final Duration SHORTEST_AGAIN = Duration.ofMillis(250);
    private static final long WHEN_FULL_NANOS = 2_000_000;
    private static final int WHEN_FULL_TRIES = 50;

    static {
        Native.register(PingSweep.class, "c");
    }

    private static native int socket(int domain, int type, int protocol) throws LastErrorException;

    private static native int setsockopt(int fd, int level, int option, byte[] value, int length)
            throws LastErrorException;

    private static native int sendto(int fd, byte[] data, int length, int flags, byte[] address, int addressLength)
            throws LastErrorException;

    private static native int recvfrom(
            int fd, byte[] data, int length, int flags, byte[] address, IntByReference addressLength)
            throws LastErrorException;

    private static native int poll(byte[] entries, int count, int timeoutMillis) throws LastErrorException;

    private static native int close(int fd) throws LastErrorException;

    /**
     * Pings them all; those that stay silent a second time.
     *
     * @param timeout for each echo
     */
    public Map<Address, Echo> ping(Collection<Address> addresses, Duration timeout) {
        Map<Address, Echo> all = new HashMap<>();
        for (boolean v4 : new boolean[] {true, false}) {
            List<Address> family = addresses.stream()
                    .filter(address -> address.isV4() == v4)
                    .distinct()
                    .toList();
            if (!family.isEmpty()) {
                all.putAll(family(family, v4, timeout));
            }
        }
        return all;
    }

    private static Map<Address, Echo> family(List<Address> addresses, boolean v4, Duration timeout) {
        int fd;
        try {
            fd = socket(
                    v4 ? Pinger.AF_INET : Pinger.AF_INET6,
                    Pinger.SOCK_DGRAM_CLOEXEC,
                    v4 ? Pinger.IPPROTO_ICMP : Pinger.IPPROTO_ICMPV6);
        } catch (LastErrorException e) {
            if (e.getErrorCode() != EACCES && e.getErrorCode() != EPERM) {
                throw e;
            }
            Map<Address, Echo> none = new HashMap<>();
            addresses.forEach(address -> none.put(address, new Echo(Echo.State.NOT_PERMITTED, null)));
            return none;
        }
        try {
            setsockopt(
                    fd,
                    SOL_SOCKET,
                    SO_RCVBUF,
                    ByteBuffer.allocate(4)
                            .order(ByteOrder.nativeOrder())
                            .putInt(BUFFER)
                            .array(),
                    4);
            Map<Address, Echo> heard = new HashMap<>();
            List<Address> left = addresses;
            for (int round = 0; round < TRIES && !left.isEmpty(); round++) {
                new Round(fd, v4, left, heard).carryOut(round == 0 ? timeout : again(timeout, heard));
                left = left.stream()
                        .filter(address -> !heard.containsKey(address))
                        .toList();
            }
            left.forEach(address -> heard.put(address, new Echo(Echo.State.SILENT, null)));
            return heard;
        } finally {
            close(fd);
        }
    }

    /** Where others have answered quickly, the second echo of a silent one is not waited for as long as the first. */
    private static Duration again(Duration timeout, Map<Address, Echo> heard) {
        Duration slowest = heard.values().stream()
                .map(Echo::roundTrip)
                .max(Duration::compareTo)
                .orElse(timeout)
                .multipliedBy(TIMES_THE_SLOWEST);
        Duration patience = slowest.compareTo(SHORTEST_AGAIN) < 0 ? SHORTEST_AGAIN : slowest;
        return patience.compareTo(timeout) < 0 ? patience : timeout;
    }

    /** One echo to each, and what comes back meanwhile. */
    private static final class Round {
        private final int fd;
        private final boolean v4;
        private final List<Address> addresses;
        private final Map<Address, Echo> heard;
        private final long word = Ticker.SYSTEM.nanos();
        private final long[] sentAt;
        private final Map<Address, Integer> indexes = new HashMap<>();
        private final byte[] answer = new byte[LENGTH * 2];
        private final byte[] from = new byte[28];

        Round(int fd, boolean v4, List<Address> addresses, Map<Address, Echo> heard) {
            this.fd = fd;
            this.v4 = v4;
            this.addresses = new ArrayList<>(addresses);
            this.heard = heard;
            sentAt = new long[addresses.size()];
        }

        void carryOut(Duration timeout) {
            long begun = Ticker.SYSTEM.nanos();
            int all = heard.size() + addresses.size();
            for (int i = 0; i < addresses.size(); i++) {
                indexes.put(addresses.get(i), i);
                send(i);
                if (i % BURST == BURST - 1) {
                    listen(begun + (long) (i + 1) * 1_000_000_000L / PER_SECOND, all);
                }
            }
            listen(Ticker.SYSTEM.nanos() + timeout.toNanos(), all);
        }

        private void send(int index) {
            byte[] peer = Pinger.socketAddress(addresses.get(index));
            byte[] echo = ByteBuffer.allocate(LENGTH)
                    .put((byte) (v4 ? 8 : 128))
                    .putShort(6, (short) index)
                    .putLong(8, word)
                    .putInt(16, index)
                    .array();
            for (int i = 0; i < WHEN_FULL_TRIES; i++) {
                sentAt[index] = Ticker.SYSTEM.nanos();
                try {
                    sendto(fd, echo, echo.length, MSG_DONTWAIT, peer, peer.length);
                    return;
                } catch (LastErrorException e) {
                    if (e.getErrorCode() != EAGAIN && e.getErrorCode() != ENOBUFS) {
                        return; // no way there, as the kernel or a router says: that is silence, and the second round
                        // asks again
                    }
                    LockSupport.parkNanos(WHEN_FULL_NANOS);
                    drain();
                }
            }
        }

        /** Takes in answers until then, or until everybody has answered. */
        private void listen(long until, int all) {
            drain();
            while (heard.size() < all) {
                int left = (int) ((until - Ticker.SYSTEM.nanos()) / 1_000_000);
                if (left <= 0) {
                    return;
                }
                byte[] entry = ByteBuffer.allocate(8)
                        .order(ByteOrder.nativeOrder())
                        .putInt(fd)
                        .putShort((short) 1)
                        .array();
                poll(entry, 1, left);
                drain();
            }
        }

        private void drain() {
            while (true) {
                int length;
                try {
                    length = recvfrom(fd, answer, answer.length, MSG_DONTWAIT, from, new IntByReference(from.length));
                } catch (LastErrorException e) {
                    if (e.getErrorCode() == EAGAIN) {
                        return;
                    }
                    continue; // an error that a router sent to one of them
                }
                long now = Ticker.SYSTEM.nanos();
                ByteBuffer packet = ByteBuffer.wrap(answer);
                if (length == LENGTH && answer[0] == (byte) (v4 ? 0 : 129) && packet.getLong(8) == word) {
                    Address sender = sender();
                    Integer index = indexes.get(sender);
                    if (index != null && packet.getInt(16) == index) {
                        heard.putIfAbsent(sender, new Echo(Echo.State.ANSWERED, Duration.ofNanos(now - sentAt[index])));
                    }
                }
            }
        }

        private Address sender() {
            return Address.of(java.util.Arrays.copyOfRange(from, v4 ? 4 : 8, v4 ? 8 : 24));
        }
    }
}
