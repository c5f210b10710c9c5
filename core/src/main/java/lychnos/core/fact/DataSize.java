package lychnos.core.fact;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * An amount of memory or disk in whole mebibytes (IEC 80000-13: 1 MiB is 1,048,576 bytes).
 *
 * @param mebibytes at least 1
 */
public record DataSize(long mebibytes) implements Comparable<DataSize> {

    private static final Pattern FORM = Pattern.compile("([1-9][0-9]{0,8})\\s*(M|G|T)i?B?", Pattern.CASE_INSENSITIVE);

    public DataSize {
        if (mebibytes < 1) {
            throw new IllegalArgumentException("a size is at least 1 MiB");
        }
    }

    /**
     * Reads {@code 512 MiB}, {@code 16 GiB}, {@code 16G}, {@code 2 TiB}. The letters without i are taken for the binary
     * ones, as hypervisors do.
     *
     * @throws IllegalArgumentException with a sentence that says what is wrong
     */
    public static DataSize parse(String text) {
        Matcher matcher = FORM.matcher(text.strip());
        if (!matcher.matches()) {
            throw new IllegalArgumentException(FactText.NOT_A_SIZE.text(text.strip()));
        }
        long amount = Long.parseLong(matcher.group(1));
        return switch (matcher.group(2).toUpperCase(Locale.ROOT)) {
            case "M" -> new DataSize(amount);
            case "G" -> new DataSize(amount * 1024);
            default -> new DataSize(amount * 1024 * 1024);
        };
    }

    public DataSize plus(DataSize other) {
        return new DataSize(mebibytes + other.mebibytes);
    }

    @Override
    public int compareTo(DataSize other) {
        return Long.compare(mebibytes, other.mebibytes);
    }

    @Override
    public String toString() {
        if (mebibytes % (1024 * 1024) == 0) {
            return mebibytes / (1024 * 1024) + " TiB";
        }
        return mebibytes % 1024 == 0 ? mebibytes / 1024 + " GiB" : mebibytes + " MiB";
    }
}
