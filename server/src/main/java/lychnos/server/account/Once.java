package lychnos.server.account;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.function.Supplier;
import lychnos.core.record.CanonicalJson;
import lychnos.server.problem.Refusal;
import org.hibernate.Session;

/**
 * Requests that are carried out once although they come twice: whoever did not hear the answer sends the same again with the same key
 * in {@code Idempotency-Key}, and gets the answer of the first. Keys are kept for a day.
 */
@ApplicationScoped
public class Once {

    private static final Duration KEPT = Duration.ofDays(1);

    private final Session db;
    private final ObjectMapper json;
    private final Clock clock;

    Once(Session db, ObjectMapper json, Clock clock) {
        this.db = db;
        this.json = json;
        this.clock = clock;
    }

    /**
     * Does the work, or gives what it gave before.
     *
     * @param key null where nothing is asked for twice
     * @param what the request's own address, so that a key is not taken for another's
     */
    public <T> T once(String key, Who.Person person, String what, Object request, TypeReference<T> type, Supplier<T> work) {
        if (key == null) {
            return work.get();
        }
        if (key.length() < 8 || key.length() > 120) {
            throw Refusal.bad("An Idempotency-Key has 8 to 120 letters.");
        }
        try {
            String digest = CanonicalJson.sha256((what + " " + json.writeValueAsString(request)).getBytes(StandardCharsets.UTF_8));
            List<Object[]> before = QuarkusTransaction.requiringNew().call(() -> db.createNativeQuery("select request, answer from answered where account_id = :account and key = :key", Object[].class)
                    .setParameter("account", person.id())
                    .setParameter("key", key)
                    .getResultList());
            if (!before.isEmpty()) {
                if (!before.get(0)[0].equals(digest)) {
                    throw Refusal.conflict("This Idempotency-Key was used for another request.");
                }
                return json.readValue((String) before.get(0)[1], type);
            }
            T answer = work.get();
            keep(key, person, digest, json.writeValueAsString(answer));
            return answer;
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("requests and answers can be written", e);
        }
    }

    private void keep(String key, Who.Person person, String digest, String answer) {
        QuarkusTransaction.requiringNew().run(() -> {
            db.createNativeMutationQuery("delete from answered where at < :before").setParameter("before", clock.instant().minus(KEPT)).executeUpdate();
            db.createNativeMutationQuery("insert into answered (account_id, key, request, answer, at) values (:account, :key, :request, :answer, :now) on conflict do nothing")
                    .setParameter("account", person.id())
                    .setParameter("key", key)
                    .setParameter("request", digest)
                    .setParameter("answer", answer)
                    .setParameter("now", clock.instant())
                    .executeUpdate();
        });
    }
}
