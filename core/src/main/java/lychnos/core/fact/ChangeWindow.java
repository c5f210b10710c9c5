package lychnos.core.fact;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;

/**
 * When a machine may be changed: an interval of two moments with their offsets (ISO 8601-1, 5.5.1), such as {@code
 * 2026-12-05T22:00Z/2026-12-06T04:00Z}.
 *
 * @param from the first moment
 * @param to the moment after the last one
 */
public record ChangeWindow(Instant from, Instant to) {

    private static final DateTimeFormatter MINUTE =
            DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mmX").withZone(ZoneOffset.UTC);

    /**
     * Reads a window.
     *
     * @throws IllegalArgumentException with a sentence, if the text is not two moments or they are reversed
     */
    public static ChangeWindow parse(String text) {
        String[] moments = text.strip().split("/", -1);
        if (moments.length != 2) {
            throw new IllegalArgumentException(FactText.NOT_A_CHANGE_WINDOW.text(text.strip()));
        }
        try {
            ChangeWindow window = new ChangeWindow(moment(moments[0]), moment(moments[1]));
            if (!window.from.isBefore(window.to)) {
                throw new IllegalArgumentException(FactText.CHANGE_WINDOW_REVERSED.text(text.strip()));
            }
            return window;
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(FactText.NOT_A_CHANGE_WINDOW.text(text.strip()), e);
        }
    }

    private static Instant moment(String text) {
        return OffsetDateTime.parse(text.strip()).toInstant();
    }

    /** Whether a moment is in the window. */
    public boolean contains(Instant moment) {
        return !moment.isBefore(from) && moment.isBefore(to);
    }

    /** The window in UTC, to the minute. */
    @Override
    public String toString() {
        return MINUTE.format(from) + "/" + MINUTE.format(to);
    }
}
