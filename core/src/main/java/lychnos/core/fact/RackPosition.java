package lychnos.core.fact;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Where a unit is mounted.
 *
 * @param rack the rack's label, upper case, such as {@code R1}
 * @param unit the lowest rack unit it fills, 1 to 99, counted from the floor
 */
public record RackPosition(String rack, int unit) implements Comparable<RackPosition> {

    private static final Pattern FORM =
            Pattern.compile("([A-Za-z][A-Za-z0-9]{0,7})\\s*[ /:,-]\\s*[Uu]?0*([1-9][0-9]?)");

    public RackPosition {
        if (unit < 1 || unit > 99) {
            throw new IllegalArgumentException("rack units go from 1 to 99");
        }
    }

    /**
     * Reads {@code R1 u7}, {@code R1-U07}, {@code r1/7}.
     *
     * @throws IllegalArgumentException with a sentence that says what is wrong
     */
    public static RackPosition parse(String text) {
        Matcher matcher = FORM.matcher(text.strip());
        if (!matcher.matches()) {
            throw new IllegalArgumentException(FactText.NOT_A_RACK_POSITION.text(text.strip()));
        }
        return new RackPosition(
                matcher.group(1).toUpperCase(java.util.Locale.ROOT), Integer.parseInt(matcher.group(2)));
    }

    @Override
    public int compareTo(RackPosition other) {
        int byRack =
                rack.length() != other.rack.length() ? rack.length() - other.rack.length() : rack.compareTo(other.rack);
        return byRack != 0 ? byRack : Integer.compare(unit, other.unit);
    }

    @Override
    public String toString() {
        return rack + " u" + unit;
    }
}
