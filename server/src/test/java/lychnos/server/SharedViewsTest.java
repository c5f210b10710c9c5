package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import lychnos.server.http.Response;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Views that are worked out once for all who ask are never older than the last change of the person who asks. */
@QuarkusTest
class SharedViewsTest {

    private Client client;
    private long id;

    @BeforeEach
    void begin() {
        client = Client.engineer();
        id = client.bringUp();
    }

    private Response board(String tag) {
        return (tag == null ? client.request() : client.request().header("If-None-Match", tag))
                .get("/api/bring-ups/" + id + "/board");
    }

    private void announce(int count) {
        client.post("/api/bring-ups/" + id + "/units", Map.of("kind", "hypervisor-host", "count", count, "members", 1))
                .statusCode(200);
    }

    @Test
    void whatSomebodyHasDoneTheySeeAtOnce() {
        for (int units = 1; units <= 20; units++) {
            announce(1);
            assertEquals(units, board(null).statusCode(200).json().getInt("units"));
        }
    }

    @Test
    void whatHasNotChangedIsNotSentAgain() {
        announce(30);
        String tag = board(null)
                .statusCode(200)
                .header("Cache-Control", "private, no-cache")
                .header("ETag");
        board(tag).statusCode(304);
        announce(1);
        assertNotEquals(tag, board(tag).statusCode(200).header("ETag"));
        assertEquals(
                "gzip",
                client.request()
                        .header("Accept-Encoding", "gzip")
                        .get("/api/bring-ups/" + id + "/board")
                        .statusCode(200)
                        .header("Content-Encoding"));
    }

    @Test
    void manyAtOnceSeeTheSame() throws Exception {
        announce(50);
        ExecutorService people = Executors.newFixedThreadPool(8);
        List<Callable<String>> asking = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            asking.add(() -> board(null).statusCode(200).header("ETag"));
        }
        List<String> tags = new ArrayList<>();
        for (Future<String> each : people.invokeAll(asking)) {
            tags.add(each.get());
        }
        people.shutdown();
        assertEquals(1, tags.stream().distinct().count(), tags::toString);
        assertTrue(tags.get(0).length() > 10);
    }

    @Test
    void whatThereIsNotIsSaidEachTime() {
        for (int i = 0; i < 2; i++) {
            client.request().get("/api/bring-ups/999999999/board").statusCode(404);
        }
    }
}
