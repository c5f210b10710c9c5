package lychnos.wire.arp;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;

/** The kernel's table of neighbours on the segment (ARP, RFC 826). IPv4 only: that is what the table file holds. */
public final class Neighbours {

    private static final Path TABLE = Path.of("/proc/net/arp");
    private static final int COMPLETE = 2;
    private static final int DISCARD_PORT = 9;

    /** One complete entry. */
    public record Entry(Address address, Mac mac) {}

    /** The entries that the kernel holds for complete now; empty where the machine has no such table. */
    public List<Entry> entries() {
        try {
            return Files.isReadable(TABLE) ? parse(Files.readAllLines(TABLE)) : List.of();
        } catch (IOException e) {
            return List.of();
        }
    }

    static List<Entry> parse(List<String> lines) {
        List<Entry> entries = new ArrayList<>();
        for (String line : lines.subList(Math.min(1, lines.size()), lines.size())) {
            String[] words = line.trim().split("\\s+");
            if (words.length >= 4
                    && (Integer.decode(words[2]) & COMPLETE) != 0
                    && !words[3].equals("00:00:00:00:00:00")) {
                entries.add(new Entry(Address.parse(words[0]), Mac.parse(words[3])));
            }
        }
        return entries;
    }

    public Optional<Mac> of(Address address) {
        return entries().stream()
                .filter(entry -> entry.address().equals(address))
                .map(Entry::mac)
                .findFirst();
    }

    /**
     * Makes the kernel ask for the MAC addresses of these: sends each an empty datagram to the discard port (RFC
     * 863).
     */
    public void ask(List<InetSocketAddress> peers) throws IOException {
        try (DatagramChannel channel = DatagramChannel.open()) {
            for (InetSocketAddress peer : peers) {
                try {
                    channel.send(ByteBuffer.allocate(0), new InetSocketAddress(peer.getAddress(), DISCARD_PORT));
                } catch (IOException e) {
                    // an earlier peer's silence comes back as an error on this send; the question to this one still
                    // went out or is asked again
                    channel.send(ByteBuffer.allocate(0), new InetSocketAddress(peer.getAddress(), DISCARD_PORT));
                }
            }
        }
    }
}
