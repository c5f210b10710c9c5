package lychnos.core.address;

import java.util.Optional;
import java.util.stream.IntStream;

/**
 * A network prefix in the notation of RFC 4632 section 3.1: an address whose host bits are zero, and a length.
 *
 * @param network the first address; its host bits are zero
 * @param length how many bits are fixed, 0 to 32 or 128
 */
public record Prefix(Address network, int length) implements Comparable<Prefix> {

    public Prefix {
        int bits = network.family().bits();
        if (length < 0 || length > bits) {
            throw new MalformedAddress(AddressFaultText.PREFIX_LENGTH.text(length, bits));
        }
        Address masked = mask(network, length);
        if (!masked.equals(network)) {
            throw new MalformedAddress(AddressFaultText.HOST_BITS.text(network, length, masked));
        }
    }

    /**
     * Reads {@code 10.40.8.0/24}.
     *
     * @throws MalformedAddress if the text is no prefix or has host bits set
     */
    public static Prefix parse(String text) {
        int slash = text == null ? -1 : text.indexOf('/');
        if (slash < 0) {
            throw new MalformedAddress(AddressFaultText.NO_LENGTH.text(text == null ? "" : text));
        }
        Address address = Address.parse(text.substring(0, slash));
        String length = text.substring(slash + 1);
        if (!length.matches("0|[1-9][0-9]{0,2}")) {
            throw new MalformedAddress(AddressFaultText.LENGTH_NOT_A_NUMBER.text(length));
        }
        return new Prefix(address, Integer.parseInt(length));
    }

    /** The prefix of this length that an address lies in. */
    public static Prefix around(Address address, int length) {
        return new Prefix(mask(address, length), length);
    }

    private static Address mask(Address address, int length) {
        int host = address.family().bits() - length;
        long low = host >= 64 ? 0 : address.low() & -1L << host;
        long high = host >= 128 ? 0 : host > 64 ? address.high() & -1L << host - 64 : address.high();
        return new Address(address.family(), high, low);
    }

    /** The last address of the prefix; for IPv4 up to /30 this is the broadcast address. */
    public Address last() {
        int host = network.family().bits() - length;
        long low = host >= 64 ? -1L : network.low() | (1L << host) - 1;
        long high = host <= 64 ? network.high() : host == 128 ? -1L : network.high() | (1L << host - 64) - 1;
        return new Address(network.family(), high, low);
    }

    public boolean contains(Address address) {
        return address.family() == network.family()
                && address.compareTo(network) >= 0
                && address.compareTo(last()) <= 0;
    }

    public boolean contains(AddressRun run) {
        return contains(run.first()) && contains(run.last());
    }

    public boolean overlaps(Prefix other) {
        return contains(other.network) || other.contains(network);
    }

    /** All addresses of the prefix. */
    public AddressRun run() {
        return new AddressRun(network, last());
    }

    /**
     * The addresses that hosts may bear. IPv4 leaves out the network and the broadcast address (RFC 1122 section
     * 3.2.1.3) except in /31 and /32 (RFC 3021); IPv6 leaves out the Subnet-Router anycast address (RFC 4291 section
     * 2.6.1) except in /127 (RFC 6164) and /128.
     */
    public AddressRun hosts() {
        int host = network.family().bits() - length;
        if (host <= 1) {
            return run();
        }
        return network.isV4()
                ? new AddressRun(network.next(), last().plus(-1))
                : new AddressRun(network.next(), last());
    }

    /**
     * The mask in dotted form, as IPv4 settings want it.
     *
     * @throws IllegalStateException for IPv6, which has none
     */
    public Address subnetMask() {
        if (!network.isV4()) {
            throw new IllegalStateException("IPv6 has no dotted mask");
        }
        return Address.v4(length == 0 ? 0 : -1L << 32 - length & 0xffffffffL);
    }

    /** The prefix length that a mask in dotted form stands for; empty where its ones are not all at the left. */
    public static Optional<Integer> lengthOfMask(Address mask) {
        return mask.isV4()
                ? IntStream.rangeClosed(0, mask.family().bits())
                        .boxed()
                        .filter(length ->
                                around(Address.v4(0), length).subnetMask().equals(mask))
                        .findFirst()
                : Optional.empty();
    }

    @Override
    public int compareTo(Prefix other) {
        int byNetwork = network.compareTo(other.network);
        return byNetwork != 0 ? byNetwork : Integer.compare(length, other.length);
    }

    @Override
    public String toString() {
        return network + "/" + length;
    }
}
