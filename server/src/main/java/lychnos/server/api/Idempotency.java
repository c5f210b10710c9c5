package lychnos.server.api;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.ws.rs.container.ContainerRequestContext;
import jakarta.ws.rs.container.ContainerResponseContext;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Response;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Pattern;
import lychnos.core.text.Sha256;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.ApiText;
import lychnos.wire.time.Ticker;
import org.hibernate.Session;
import org.jboss.logging.Logger;
import org.jboss.resteasy.reactive.server.ServerRequestFilter;
import org.jboss.resteasy.reactive.server.ServerResponseFilter;

/**
 * Carries a POST out once although it comes twice. A program that did not hear the answer sends the same request again
 * with the same {@code Idempotency-Key} and gets the first answer. The key is reserved before the work begins; a second
 * request waits for the first one's answer, and is refused with 409 where that takes longer than {@link #LONGEST_WAIT}.
 * A request that is refused or fails frees its key. Keys are kept for a day. An answer that must not be stored, such as
 * a new token, is not given a second time.
 */
public class Idempotency {

    private final Ticker ticker;

    static final String KEY = "Idempotency-Key";

    private static final Logger LOG = Logger.getLogger(Idempotency.class);
    private static final String RESERVED = "lychnos.idempotency";
    private static final Duration KEPT = Duration.ofDays(1);
    private static final Duration LONGEST_WAIT = Duration.ofSeconds(10);
    private static final Duration LOOK_EVERY = Duration.ofMillis(50);
    /** Signing in, and what a person does with the own session: none of it creates anything. */
    private static final Pattern OWN_SESSION = Pattern.compile("/api/(session|first-lead|invitation)(/.*)?");

    private static final int SHORTEST = 8;
    private static final int LONGEST = 120;

    private final Session db;
    private final ObjectMapper json;
    private final Clock clock;
    private final Who who;

    Idempotency(Session db, ObjectMapper json, Clock clock, Ticker ticker, Who who) {
        this.ticker = ticker;
        this.db = db;
        this.json = json;
        this.clock = clock;
        this.who = who;
    }

    private record Reservation(long account, String key) {}

    /** What is kept of a key: the request's digest, and its answer once there is one. */
    private record Kept(String request, Integer status, String answer) {}

    /** Reserves the key of a request, or answers as the first request with that key was answered. */
    @ServerRequestFilter
    public Optional<Response> reserve(ContainerRequestContext request) throws IOException {
        String key = request.getHeaderString(KEY);
        if (key == null
                || !request.getMethod().equals("POST")
                || OWN_SESSION.matcher(request.getUriInfo().getPath()).matches()
                || who.person() == null) {
            return Optional.empty();
        }
        Who.Person person = who.person();
        if (key.length() < SHORTEST || key.length() > LONGEST || key.chars().anyMatch(c -> c < ' ' || c > '~')) {
            throw Refusal.bad(ApiText.IDEMPOTENCY_KEY_HAS_ANOTHER_LENGTH.said(SHORTEST, LONGEST));
        }
        byte[] body = request.getEntityStream().readAllBytes();
        request.setEntityStream(new ByteArrayInputStream(body));
        String what = "POST " + request.getUriInfo().getRequestUri().getRawPath() + "?"
                + request.getUriInfo().getRequestUri().getRawQuery() + " " + Sha256.hex(body);
        String digest = Sha256.hex(what);
        Reservation wanted = new Reservation(person.id(), key);
        if (insert(wanted, digest)) {
            request.setProperty(RESERVED, wanted);
            return Optional.empty();
        }
        return Optional.of(answerOfTheFirst(wanted, digest));
    }

    private boolean insert(Reservation wanted, String digest) {
        return QuarkusTransaction.requiringNew().call(() -> {
            db.createNativeMutationQuery("delete from answered where reserved_at < :before")
                    .setParameter("before", clock.instant().minus(KEPT))
                    .executeUpdate();
            return db.createNativeMutationQuery(
                                    "insert into answered (account_id, key, request, reserved_at) values (:account, "
                                            + ":key, :request, :now) on conflict do nothing")
                            .setParameter("account", wanted.account)
                            .setParameter("key", wanted.key)
                            .setParameter("request", digest)
                            .setParameter("now", clock.instant())
                            .executeUpdate()
                    == 1;
        });
    }

    private Response answerOfTheFirst(Reservation wanted, String digest) {
        long end = ticker.nanos() + LONGEST_WAIT.toNanos();
        while (true) {
            Kept kept = find(wanted).orElseThrow(() -> Refusal.conflict(ApiText.FIRST_REQUEST_WAS_REFUSED.said()));
            if (!kept.request.equals(digest)) {
                throw Refusal.conflict(ApiText.IDEMPOTENCY_KEY_WAS_USED_ALREADY.said());
            }
            if (kept.status != null) {
                return repeated(kept);
            }
            if (ticker.nanos() > end) {
                throw Refusal.conflict(ApiText.FIRST_REQUEST_HAS_NO_ANSWER_YET.said());
            }
            LockSupport.parkNanos(LOOK_EVERY.toNanos());
        }
    }

    private Optional<Kept> find(Reservation wanted) {
        return QuarkusTransaction.requiringNew().call(() -> db.createNativeQuery(
                        "select request, status, answer from answered where account_id = :account and key = :key",
                        Object[].class)
                .setParameter("account", wanted.account)
                .setParameter("key", wanted.key)
                .getResultStream()
                .findFirst()
                .map(row -> new Kept(
                        (String) row[0], row[1] == null ? null : ((Number) row[1]).intValue(), (String) row[2])));
    }

    private static Response repeated(Kept kept) {
        if (kept.answer == null && kept.status != 204) {
            throw Refusal.conflict(ApiText.REQUEST_WAS_ALREADY_CARRIED_OUT.said());
        }
        Response.ResponseBuilder answer = Response.status(kept.status);
        return (kept.answer == null
                        ? answer
                        : answer.type(MediaType.APPLICATION_JSON_TYPE).entity(kept.answer))
                .build();
    }

    /** Keeps the answer of a request that reserved its key, or frees the key where it was not carried out. */
    @ServerResponseFilter
    public void keep(ContainerRequestContext request, ContainerResponseContext response) {
        if (!(request.getProperty(RESERVED) instanceof Reservation reserved)) {
            return;
        }
        boolean done = response.getStatus() >= 200 && response.getStatus() < 300;
        QuarkusTransaction.requiringNew().run(() -> {
            var write = db.createNativeMutationQuery(
                            done
                                    ? "update answered set status = :status, answer = :answer, answered_at = :now "
                                            + "where account_id = :account and key = :key"
                                    : "delete from answered where account_id = :account and key = :key and "
                                            + "answered_at is null")
                    .setParameter("account", reserved.account)
                    .setParameter("key", reserved.key);
            if (done) {
                write.setParameter("status", response.getStatus())
                        .setParameter("answer", text(response))
                        .setParameter("now", clock.instant());
            }
            write.executeUpdate();
        });
    }

    /** The answer as it is kept; null where there is none or it must not be stored. */
    private String text(ContainerResponseContext response) {
        boolean secret = String.valueOf(response.getHeaderString(HttpHeaders.CACHE_CONTROL))
                .contains("no-store");
        boolean isJson = response.getMediaType() != null
                && response.getMediaType().isCompatible(MediaType.APPLICATION_JSON_TYPE);
        if (!response.hasEntity() || secret || !isJson) {
            return null;
        }
        try {
            return json.writeValueAsString(response.getEntity());
        } catch (JsonProcessingException e) {
            LOG.errorf(e, "an answer cannot be kept for its key");
            return null;
        }
    }
}
