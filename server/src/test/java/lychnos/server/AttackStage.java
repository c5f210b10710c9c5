package lychnos.server;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.common.http.TestHTTPResource;
import jakarta.inject.Inject;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.hibernate.Session;
import org.junit.jupiter.api.BeforeEach;

/** Two people who are signed in, and many requests at once. */
abstract class AttackStage {

    static final long NO_SUCH = 9223372036854775807L;

    @Inject
    Session db;

    @TestHTTPResource("/")
    URI root;

    Client engineer;
    Client lead;
    long id;

    @BeforeEach
    void signIn() {
        engineer = Client.engineer();
        lead = Client.lead();
        id = engineer.bringUp("R1 u1");
    }

    void sql(String statement) {
        QuarkusTransaction.requiringNew()
                .run(() -> db.createNativeMutationQuery(statement).executeUpdate());
    }

    <T> List<T> atOnce(int many, java.util.function.IntFunction<T> work) throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(many);
        try {
            List<Future<T>> begun = IntStream.range(0, many)
                    .mapToObj(i -> pool.submit(() -> work.apply(i)))
                    .toList();
            List<T> ended = new ArrayList<>();
            for (Future<T> each : begun) {
                ended.add(each.get(60, TimeUnit.SECONDS));
            }
            return ended;
        } finally {
            pool.shutdownNow();
        }
    }
}
