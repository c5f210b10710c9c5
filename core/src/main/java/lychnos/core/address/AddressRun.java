package lychnos.core.address;

/**
 * A row of consecutive addresses, both ends included.
 *
 * @param first the lowest
 * @param last the highest, of the same family
 */
public record AddressRun(Address first, Address last) implements Comparable<AddressRun> {

    public AddressRun {
        if (first.family() != last.family()) {
            throw new MalformedAddress(AddressFaultText.TWO_FAMILIES.text(first, last));
        }
        if (first.compareTo(last) > 0) {
            throw new MalformedAddress(AddressFaultText.REVERSED.text(first, last));
        }
    }

    public static AddressRun of(Address only) {
        return new AddressRun(only, only);
    }

    /** A run of this many addresses from the first on. */
    public static AddressRun of(Address first, long size) {
        return new AddressRun(first, first.plus(size - 1));
    }

    /**
     * Reads {@code 10.40.8.10-10.40.8.31}, {@code 10.40.8.10-31}, with an en dash too, a prefix, or one address.
     *
     * @throws MalformedAddress if the text is none of these or is reversed
     */
    public static AddressRun parse(String text) {
        String trimmed = text == null ? "" : text.strip();
        if (trimmed.indexOf('/') >= 0) {
            return Prefix.parse(trimmed).run();
        }
        String[] ends = trimmed.split("\\s*[-–]\\s*", 2);
        Address first = Address.parse(ends[0]);
        if (ends.length == 1) {
            return of(first);
        }
        String last = ends[1];
        if (first.isV4() && last.matches("\\.?[0-9]{1,3}")) {
            String text4 = first.toString();
            last = text4.substring(0, text4.lastIndexOf('.') + 1) + last.replace(".", "");
        }
        return new AddressRun(first, Address.parse(last));
    }

    /** How many addresses, capped at {@link Long#MAX_VALUE}. */
    public long size() {
        long distance = last.distanceFrom(first);
        return distance == Long.MAX_VALUE ? distance : distance + 1;
    }

    public boolean contains(Address address) {
        return address.family() == first.family() && first.compareTo(address) <= 0 && address.compareTo(last) <= 0;
    }

    public boolean contains(AddressRun other) {
        return contains(other.first) && contains(other.last);
    }

    public boolean overlaps(AddressRun other) {
        return first.family() == other.first.family()
                && first.compareTo(other.last) <= 0
                && other.first.compareTo(last) <= 0;
    }

    @Override
    public int compareTo(AddressRun other) {
        int byFirst = first.compareTo(other.first);
        return byFirst != 0 ? byFirst : last.compareTo(other.last);
    }

    @Override
    public String toString() {
        return first.equals(last) ? first.toString() : first + "-" + last;
    }
}
