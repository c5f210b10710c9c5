package lychnos.wire.ntp;

import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.function.LongSupplier;
import lychnos.core.service.TimeSample;

/**
 * Asks a time server once (RFC 5905, client mode). The time stamp that is sent is random in its last bits and must come
 * back as the origin of the answer, as RFC 5905 section 8 demands, so that nobody who cannot see our packet can answer
 * for the server. What the answer says is handed on as it stands; judging it is not done here.
 */
public final class NtpClient {

    private static final int PACKET = 48;
    private static final int CLIENT_VERSION_4 = 4 << 3 | 3;
    /** Seconds from 1900, where NTP begins, to 1970. */
    private static final long EPOCH = 2_208_988_800L;

    private static final SecureRandom RANDOM = new SecureRandom();

    private final LongSupplier nanosSinceEpoch;

    /** @param clock ours, which the server's is compared with */
    public NtpClient(Clock clock) {
        this(() -> {
            Instant now = clock.instant();
            return now.getEpochSecond() * 1_000_000_000L + now.getNano();
        });
    }

    /** @param nanosSinceEpoch our clock, in nanoseconds since 1970 */
    NtpClient(LongSupplier nanosSinceEpoch) {
        this.nanosSinceEpoch = nanosSinceEpoch;
    }

    /** One question; nothing where no answer came in time. */
    public Optional<TimeSample> ask(InetSocketAddress server, Duration timeout) {
        try (DatagramSocket socket = new DatagramSocket()) {
            socket.connect(server);
            socket.setSoTimeout((int) Math.max(1, timeout.toMillis()));
            long sentAt = nanosSinceEpoch.getAsLong();
            long stamp = stamp(sentAt) & ~0xfffL | RANDOM.nextInt(0x1000);
            ByteBuffer question = ByteBuffer.allocate(PACKET);
            question.put(0, (byte) CLIENT_VERSION_4);
            question.putLong(40, stamp);
            socket.send(new DatagramPacket(question.array(), PACKET));
            DatagramPacket answer = new DatagramPacket(new byte[PACKET + 512], PACKET + 512);
            socket.receive(answer);
            long receivedAt = nanosSinceEpoch.getAsLong();
            return answer.getLength() < PACKET
                    ? Optional.empty()
                    : Optional.of(read(ByteBuffer.wrap(answer.getData()), stamp, sentAt, receivedAt));
        } catch (SocketTimeoutException e) {
            return Optional.empty();
        } catch (IOException e) {
            // a refused port or an unreachable network: nothing that keeps time is there
            return Optional.empty();
        }
    }

    private static TimeSample read(ByteBuffer packet, long stamp, long sentAt, long receivedAt) {
        int first = packet.get(0) & 0xff;
        double serverReceived = millis(packet.getLong(32), sentAt);
        double serverSent = millis(packet.getLong(40), sentAt);
        double sent = 0;
        double received = (receivedAt - sentAt) / 1e6;
        double offset = ((serverReceived - sent) + (serverSent - received)) / 2;
        double delay = Math.max(0, received - sent - (serverSent - serverReceived));
        double dispersion = (packet.getInt(8) & 0xffffffffL) / 65536.0 * 1000;
        return new TimeSample(
                packet.get(1) & 0xff, first >> 6, first & 7, offset, delay, dispersion, packet.getLong(24) == stamp);
    }

    /** An NTP time stamp of the era that we live in: seconds since 1900 and their fraction, 32 bits each. */
    private static long stamp(long nanos) {
        long seconds = Math.floorDiv(nanos, 1_000_000_000L) + EPOCH;
        long fraction = (Math.floorMod(nanos, 1_000_000_000L) << 32) / 1_000_000_000L;
        return seconds << 32 | fraction;
    }

    /**
     * A time stamp as milliseconds after our own time; the difference is taken in 64 bits, so that eras do not matter.
     */
    private static double millis(long stamp, long ours) {
        long difference = stamp - stamp(ours);
        return difference / 4294967296.0 * 1000;
    }
}
