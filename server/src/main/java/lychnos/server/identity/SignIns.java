package lychnos.server.identity;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.runtime.ShutdownEvent;
import io.smallrye.mutiny.Uni;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import lychnos.server.api.problem.Refusal;
import lychnos.server.journal.Journal;
import lychnos.server.text.IdentityText;
import org.hibernate.Session;
import org.jboss.logging.Logger;

/**
 * Signs people in. Passwords are hashed by few threads of their own and outside of any transaction, so that many tries
 * slow each other down and nobody else; so many wait at once from one source and in all, and the rest is refused with a
 * time to come back.
 */
@ApplicationScoped
public class SignIns {

    private static final Logger LOG = Logger.getLogger(SignIns.class);
    private static final int HASHERS = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);
    private static final int MOST_WAITING = 32;
    private static final int MOST_OF_A_SOURCE = 8;
    private static final int COME_BACK_SECONDS = 3;
    /** Failures from one source within this time are one entry of the journal. */
    private static final Duration TOLD_EVERY = Duration.ofMinutes(1);

    private final Session db;
    private final Sessions sessions;
    private final Journal journal;
    private final Clock clock;
    private final PasswordHashes hashes;
    private final Tries tries;
    private final Map<String, AtomicInteger> atOnce = new ConcurrentHashMap<>();
    private final Map<String, Told> told = new ConcurrentHashMap<>();
    private final ThreadPoolExecutor hashers = new ThreadPoolExecutor(
            HASHERS, HASHERS, 0, TimeUnit.SECONDS, new LinkedBlockingQueue<>(MOST_WAITING), work -> {
                Thread thread = new Thread(work, "sign-in");
                thread.setDaemon(true);
                return thread;
            });

    private record Told(Instant at, int since) {}

    SignIns(Session db, Sessions sessions, Journal journal, Clock clock, PasswordHashes hashes) {
        this.db = db;
        this.sessions = sessions;
        this.journal = journal;
        this.clock = clock;
        this.hashes = hashes;
        this.tries = new Tries(clock);
    }

    void stop(@Observes ShutdownEvent event) {
        hashers.shutdownNow();
    }

    /** Where a request comes from: its address and what the browser says that it is. */
    public record Origin(String source, String agent) {}

    /**
     * Signs a person in.
     *
     * @return the token for the cookie; fails with 401, or 429 with Retry-After where too many wait
     */
    public Uni<String> signIn(String login, String password, Origin origin) {
        return hashed(login, origin, hashing -> {
            Account account = right(login, password, origin);
            return QuarkusTransaction.requiringNew().call(() -> sessions.begin(account, origin));
        });
    }

    /** Whether this is the person's own password; 401 where it is not. */
    public Uni<Void> confirm(String login, String password, Origin origin) {
        return hashed(login, origin, hashing -> {
            right(login, password, origin);
            return null;
        });
    }

    /**
     * Carries out what hashes a password: after a wait where tries have failed, and by one of the few threads for it.
     */
    <T> Uni<T> hashed(String login, Origin origin, Function<PasswordHashes, T> work) {
        AtomicInteger mine = atOnce.computeIfAbsent(origin.source, none -> new AtomicInteger());
        if (mine.incrementAndGet() > MOST_OF_A_SOURCE) {
            left(origin.source, mine);
            return Uni.createFrom().failure(tooMany(origin));
        }
        Duration wait = tries.wait(login, origin.source);
        Uni<Integer> begin = Uni.createFrom().item(0);
        return (wait.isZero() ? begin : begin.onItem().delayIt().by(wait))
                .emitOn(this::hash)
                .map(now -> work.apply(hashes))
                .onFailure(RejectedExecutionException.class)
                .transform(full -> tooMany(origin))
                .onTermination()
                .invoke(() -> left(origin.source, mine));
    }

    private void hash(Runnable work) {
        hashers.execute(work);
    }

    private void left(String source, AtomicInteger mine) {
        atOnce.computeIfPresent(source, (same, count) -> count == mine && mine.decrementAndGet() <= 0 ? null : count);
    }

    private Refusal tooMany(Origin origin) {
        tell(origin, IdentityText.REFUSED_SIGN_INS.text(origin.source));
        return Refusal.tooMany(IdentityText.TOO_MANY_SIGN_INS_AT_THE_MOMENT.said(COME_BACK_SECONDS), COME_BACK_SECONDS);
    }

    private Account right(String login, String password, Origin origin) {
        Optional<Account> account = QuarkusTransaction.requiringNew()
                .call(() -> db.createQuery("from Account where login = :login", Account.class)
                        .setParameter("login", login)
                        .getResultStream()
                        .findFirst());
        boolean right = hashes.matches(
                password,
                account.filter(found -> found.disabledAt == null)
                        .map(found -> found.passwordHash)
                        .orElse(null));
        if (!right) {
            tries.failed(login, origin.source);
            tell(
                    origin,
                    account.isPresent()
                            ? IdentityText.REFUSED_A_WRONG_PASSWORD.text(login, origin.source)
                            : IdentityText.REFUSED_AN_UNKNOWN_LOGIN.text(origin.source));
            throw Refusal.unauthorised(IdentityText.LOGIN_OR_PASSWORD_IS_WRONG.said());
        }
        tries.succeeded(login);
        return account.get();
    }

    /** In the log and in the journal, at most once a minute for each source, with how many there were since. */
    private void tell(Origin origin, String what) {
        Instant now = clock.instant();
        int[] since = {-1};
        if (told.size() > 1000) {
            told.clear();
        }
        told.compute(origin.source, (source, before) -> {
            if (before != null && before.at.plus(TOLD_EVERY).isAfter(now)) {
                return new Told(before.at, before.since + 1);
            }
            since[0] = before == null ? 0 : before.since;
            return new Told(now, 0);
        });
        if (since[0] < 0) {
            return;
        }
        String entry =
                what + (since[0] == 0 ? "" : IdentityText.AND_MORE_FROM_THERE_SINCE_THE_ENTRY_BEFORE.text(since[0]));
        LOG.warnf("%s", entry);
        try {
            QuarkusTransaction.requiringNew().run(() -> journal.writeWork(null, null, entry));
        } catch (RuntimeException e) {
            LOG.errorf("that could not be written to the journal: %s", e.getMessage());
        }
    }
}
