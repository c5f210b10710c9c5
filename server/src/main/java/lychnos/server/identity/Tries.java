package lychnos.server.identity;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * How long a try to sign in is held back: nothing at first, then longer with every failure of the same login or from
 * the same source.
 * The right password is always looked at in the end, so that failures of one person lock nobody out. Safe for use by
 * many threads.
 */
final class Tries {

    private static final Duration REMEMBERED = Duration.ofMinutes(15);
    private static final Duration LONGEST = Duration.ofSeconds(5);
    private static final long FIRST_MILLIS = 250;
    private static final int FREE_OF_A_LOGIN = 4;
    private static final int FREE_OF_A_SOURCE = 20;
    private static final int MOST = 20_000;

    private final Clock clock;
    /** By login and by source; the oldest falls off. */
    private final Map<String, Failed> failed = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Failed> eldest) {
            return size() > MOST;
        }
    };

    private record Failed(Instant last, int count) {}

    Tries(Clock clock) {
        this.clock = clock;
    }

    synchronized Duration wait(String login, String source) {
        Duration ofLogin = wait(count("login " + login) - FREE_OF_A_LOGIN);
        Duration ofSource = wait(count("source " + source) - FREE_OF_A_SOURCE);
        return ofLogin.compareTo(ofSource) > 0 ? ofLogin : ofSource;
    }

    private static Duration wait(int over) {
        if (over <= 0) {
            return Duration.ZERO;
        }
        Duration wait = Duration.ofMillis(FIRST_MILLIS << Math.min(over - 1, 10));
        return wait.compareTo(LONGEST) > 0 ? LONGEST : wait;
    }

    private int count(String what) {
        Failed known = failed.get(what);
        return known == null || known.last.plus(REMEMBERED).isBefore(clock.instant()) ? 0 : known.count;
    }

    synchronized void failed(String login, String source) {
        for (String what : new String[] {"login " + login, "source " + source}) {
            failed.put(what, new Failed(clock.instant(), count(what) + 1));
        }
    }

    /** The right password came: failures of that login are forgotten, those of its source are not. */
    synchronized void succeeded(String login) {
        failed.remove("login " + login);
    }
}
