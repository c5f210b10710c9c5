package lychnos.server.log;

import io.quarkus.logging.LoggingFilter;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.logging.Filter;
import java.util.logging.LogRecord;

/**
 * Lets the same message through a few times a minute and counts the rest, so that a flood of requests cannot fill the
 * disk. The same message has the same logger, the same text before its values are put in, and the same sort of
 * exception. The next one that is let through says how many were left out.
 */
@LoggingFilter(name = "repeated")
public final class RepeatedLines implements Filter {

    static final int A_MINUTE = 10;
    private static final int MINUTE = 60;
    /** A message that was built of values is another one each time: no more of them are remembered. */
    private static final int REMEMBERED = 1000;

    private final Map<Key, Count> counts = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, Count> eldest) {
            return size() > REMEMBERED;
        }
    };

    private record Key(String logger, String message, String thrown) {}

    private static final class Count {
        private Instant since;
        private int passed;
        private int leftOut;
    }

    @Override
    public boolean isLoggable(LogRecord line) {
        Key key = new Key(
                line.getLoggerName(),
                line.getMessage(),
                line.getThrown() == null ? "" : line.getThrown().getClass().getName());
        int leftOut;
        synchronized (counts) {
            Count count = counts.computeIfAbsent(key, each -> new Count());
            if (count.since == null || !line.getInstant().isBefore(count.since.plusSeconds(MINUTE))) {
                count.since = line.getInstant();
                count.passed = 0;
            }
            if (count.passed == A_MINUTE) {
                count.leftOut++;
                return false;
            }
            count.passed++;
            leftOut = count.leftOut;
            count.leftOut = 0;
        }
        if (leftOut > 0) {
            line.setMessage(line.getMessage() + " (" + leftOut + " more like this were left out before)");
        }
        return true;
    }
}
