package lychnos.core.address;

import java.util.Optional;

/**
 * One IPv4 or IPv6 address, as a 128-bit number and a family. An IPv4 address holds its 32 bits in {@code low}.
 *
 * <p>Only the full textual forms are read: four decimal numbers without leading zeros (RFC 6943 section 3.1.1 tells why
 * the laxer forms are dangerous), or the forms of RFC 4291 section 2.2. {@link #toString()} writes RFC 5952, and
 * {@link #parse} reads it back. Zone identifiers are refused: they mean nothing off the machine that wrote them.
 *
 * @param family which of the two protocols
 * @param high the upper 64 bits, zero for IPv4
 * @param low the lower 64 bits
 */
public record Address(Family family, long high, long low) implements Comparable<Address> {

    /** The two versions of the Internet Protocol. */
    public enum Family {
        IPV4(32),
        IPV6(128);

        private final int bits;

        Family(int bits) {
            this.bits = bits;
        }

        /** How many bits an address has. */
        public int bits() {
            return bits;
        }
    }

    public Address {
        if (family == Family.IPV4 && (high != 0 || low >>> 32 != 0)) {
            throw new IllegalArgumentException("an IPv4 address has 32 bits");
        }
    }

    /** The IPv4 address with these 32 bits, in network order. */
    public static Address v4(long bits) {
        return new Address(Family.IPV4, 0, bits);
    }

    /**
     * Reads an address.
     *
     * @throws MalformedAddress if the text is no address; the message says what is wrong with it
     */
    public static Address parse(String text) {
        return AddressText.parse(text);
    }

    /** Reads an address, or gives nothing where the text is none. */
    public static Optional<Address> tryParse(String text) {
        try {
            return Optional.of(parse(text));
        } catch (MalformedAddress e) {
            return Optional.empty();
        }
    }

    /** Reads 4 or 16 bytes in network order. */
    public static Address of(byte[] bytes) {
        if (bytes.length == 4) {
            return v4(number(bytes, 0, 4));
        }
        if (bytes.length == 16) {
            return new Address(Family.IPV6, number(bytes, 0, 8), number(bytes, 8, 16));
        }
        throw new IllegalArgumentException("an address has 4 or 16 bytes, not " + bytes.length);
    }

    private static long number(byte[] bytes, int from, int to) {
        long value = 0;
        for (int i = from; i < to; i++) {
            value = value << 8 | bytes[i] & 0xff;
        }
        return value;
    }

    /** The address as 4 or 16 bytes in network order. */
    public byte[] toBytes() {
        int length = family.bits() / 8;
        byte[] bytes = new byte[length];
        for (int i = 0; i < length; i++) {
            int shift = (length - 1 - i) * 8;
            bytes[i] = (byte) (shift >= 64 ? high >>> (shift - 64) : low >>> shift);
        }
        return bytes;
    }

    public boolean isV4() {
        return family == Family.IPV4;
    }

    /** The address after this one. Past the last one it wraps to the first, as the bits do. */
    public Address next() {
        return plus(1);
    }

    /** The address this many further on, or back where {@code distance} is negative; wraps at the ends. */
    public Address plus(long distance) {
        if (isV4()) {
            return v4(low + distance & 0xffffffffL);
        }
        long sum = low + distance;
        long carry = distance >= 0 && Long.compareUnsigned(sum, low) < 0 ? 1 : 0;
        long borrow = distance < 0 && Long.compareUnsigned(sum, low) > 0 ? 1 : 0;
        return new Address(family, high + carry - borrow, sum);
    }

    /**
     * How far it is from {@code from} to this one, counting neither: 0 for the same address, capped at
     * {@link Long#MAX_VALUE}.
     *
     * @throws IllegalArgumentException if {@code from} lies behind this one or is of the other family
     */
    public long distanceFrom(Address from) {
        if (family != from.family || compareTo(from) < 0) {
            throw new IllegalArgumentException(from + " does not come before " + this);
        }
        long difference = low - from.low;
        long upper = high - from.high - (Long.compareUnsigned(low, from.low) < 0 ? 1 : 0);
        return upper != 0 || difference < 0 ? Long.MAX_VALUE : difference;
    }

    /**
     * The domain name under which the reverse record lies: in-addr.arpa (RFC 1035 section 3.5) or ip6.arpa (RFC 3596).
     */
    public String reverseName() {
        byte[] bytes = toBytes();
        StringBuilder name = new StringBuilder();
        for (int i = bytes.length - 1; i >= 0; i--) {
            int value = bytes[i] & 0xff;
            if (isV4()) {
                name.append(value).append('.');
            } else {
                name.append(Integer.toHexString(value & 15))
                        .append('.')
                        .append(Integer.toHexString(value >> 4))
                        .append('.');
            }
        }
        return name.append(isV4() ? "in-addr.arpa" : "ip6.arpa").toString();
    }

    /** IPv4 before IPv6, then by number. */
    @Override
    public int compareTo(Address other) {
        int byFamily = family.compareTo(other.family);
        if (byFamily != 0) {
            return byFamily;
        }
        int byHigh = Long.compareUnsigned(high, other.high);
        return byHigh != 0 ? byHigh : Long.compareUnsigned(low, other.low);
    }

    /** The canonical text of RFC 5952. */
    @Override
    public String toString() {
        return AddressText.format(this);
    }
}
