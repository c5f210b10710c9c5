package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

@QuarkusTest
class ImagesTest {

    private static final Path FOLDER = Path.of("target/images");
    private static final int BYTES = 700_000;

    private Client client;
    private long id;
    private String name;
    private byte[] bytes;

    @BeforeEach
    void begin() {
        client = Client.engineer();
        id = client.bringUp();
        name = "ard-acc-" + id + ".img";
        bytes = new byte[BYTES];
        new Random(id).nextBytes(bytes);
    }

    private static String sha256(byte[] bytes) throws Exception {
        return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    }

    private Response add(Map<String, Object> more) {
        Map<String, Object> statement = new HashMap<>(Map.of("name", name, "bytes", BYTES, "inFolder", false));
        statement.putAll(more);
        return client.post(path(), statement);
    }

    private String path() {
        return "/api/bring-ups/" + id + "/images";
    }

    private Response piece(long image, int at, int end) {
        return client.request()
                .contentType("application/octet-stream")
                .body(Arrays.copyOfRange(bytes, at, end))
                .put(path() + "/" + image + "/content?at=" + at);
    }

    private Json image(String state) {
        ConsoleStage.until(
                name + " is " + state,
                () -> state.equals(client.get(path()).getString("images[0].state")),
                () -> client.get(path()).prettify());
        return client.get(path()).at("images[0]");
    }

    @Test
    void anImageThatIsSentInPiecesIsReadAndCompared() throws Exception {
        long image = add(Map.of("manifest", sha256(bytes) + "  " + name))
                .statusCode(200)
                .json()
                .getLong("id");
        piece(image, 0, 300_000).statusCode(200).body("received", equalTo(300_000));
        piece(image, 200_000, 500_000).statusCode(409).body("received", equalTo(300_000));
        assertEquals("ARRIVING", client.get(path()).getString("images[0].state"));
        piece(image, 300_000, BYTES).statusCode(200);
        Json checked = image("CHECKED");
        assertEquals(sha256(bytes), checked.getString("sha256"));
        assertEquals(List.of(), checked.getList("contradictions"));
        assertTrue(checked.getBoolean("stated"));
        piece(image, 0, 10).statusCode(409);
    }

    @Test
    void aPieceFromTheBeginningStartsAgain() throws Exception {
        long image = add(Map.of()).statusCode(200).json().getLong("id");
        byte[] right = bytes.clone();
        new Random(1).nextBytes(bytes);
        piece(image, 0, 400_000).statusCode(200);
        bytes = right;
        piece(image, 0, 500_000).statusCode(200);
        piece(image, 500_000, BYTES).statusCode(200);
        assertEquals(sha256(right), image("CHECKED").getString("sha256"));
    }

    @Test
    void moreBytesThanAnnouncedAreRefused() {
        long image = add(Map.of("bytes", 100)).statusCode(200).json().getLong("id");
        piece(image, 0, 101).statusCode(400);
        piece(image, 0, 100).statusCode(200);
        image("CHECKED");
    }

    @Test
    void aFileInTheFolderIsReadWhereItLies() throws Exception {
        Files.createDirectories(FOLDER);
        Files.write(FOLDER.resolve(name), bytes);
        assertTrue(client.get(path()).<String>getList("waiting").contains(name));
        long image = add(Map.of("inFolder", true, "bytes", 0, "manifest", "0".repeat(64) + "  " + name))
                .statusCode(200)
                .json()
                .getLong("id");
        Json checked = image("CHECKED");
        assertEquals(sha256(bytes), checked.getString("contradictions[0].read"));
        assertFalse(client.get(path()).<String>getList("waiting").contains(name));
        client.put(path() + "/" + image + "/papers", Map.of("manifest", sha256(bytes) + "  " + name))
                .statusCode(204);
        assertEquals(List.of(), client.get(path()).getList("images[0].contradictions"));
        client.request().delete(path() + "/" + image).statusCode(204);
        assertTrue(Files.exists(FOLDER.resolve(name)), "what the operator put there stays");
    }

    @Test
    void nothingOutsideOfTheFolderIsRead() throws Exception {
        Files.createDirectories(FOLDER);
        Files.deleteIfExists(FOLDER.resolve(name));
        Files.createSymbolicLink(FOLDER.resolve(name), Path.of("/etc/hostname"));
        add(Map.of("inFolder", true)).statusCode(400);
        for (String outside : List.of("../pom.xml", "/etc/hostname", "..", ".uploads", "a\u0000b", "")) {
            add(Map.of("inFolder", true, "name", outside)).statusCode(400);
            add(Map.of("name", outside)).statusCode(400);
        }
        assertEquals(List.of(), client.get(path()).getList("images"));
    }

    @Test
    void whatIsWrongWithAnImageIsSaidByField() {
        add(Map.of("manifest", "no digest", "description", "<html/>"))
                .statusCode(400)
                .body("faults.field", equalTo(List.of("manifest", "description")));
        add(Map.of("bytes", 0)).statusCode(400);
        add(Map.of("bytes", 1L << 50)).statusCode(400);
    }

    @Test
    void aViewerChangesNothingAndAnotherSiteSeesNothing() {
        long image = add(Map.of()).statusCode(200).json().getLong("id");
        assertEquals(1, Client.viewer().get(path()).getList("images").size());
        Client.viewer()
                .post(path(), Map.of("name", "a", "bytes", 1, "inFolder", false))
                .statusCode(403);
        Client.viewer().request().delete(path() + "/" + image).statusCode(403);
        long other = client.bringUp();
        client.request().delete("/api/bring-ups/" + other + "/images/" + image).statusCode(404);
    }

    @Test
    void ofManyWhoAddTheSameFileOneDoes() throws Exception {
        ExecutorService people = Executors.newFixedThreadPool(6);
        try {
            List<Callable<Integer>> all = new ArrayList<>();
            for (int i = 0; i < 6; i++) {
                all.add(() -> add(Map.of()).statusCode());
            }
            List<Integer> answers = new ArrayList<>();
            for (Future<Integer> answer : people.invokeAll(all)) {
                answers.add(answer.get());
            }
            answers.sort(null);
            assertEquals(List.of(200, 400, 400, 400, 400, 400), answers);
        } finally {
            people.shutdownNow();
        }
    }

    @Test
    void aPlanWithAnotherDigestIsBlocked() throws Exception {
        int unit = client.post(
                        "/api/bring-ups/" + id + "/units", Map.of("kind", "access-appliance", "count", 1, "members", 1))
                .json()
                .getInt("[0]");
        fact(unit, "image", name);
        fact(unit, "image-digest", "f".repeat(64));
        assertEquals(List.of("image-not-checked"), findings());
        long image = add(Map.of()).json().getLong("id");
        piece(image, 0, BYTES);
        image("CHECKED");
        assertEquals(List.of("image-digest", "image-format"), findings());
        fact(unit, "image-digest", sha256(bytes));
        assertEquals(List.of("image-format"), findings(), "random bytes are no package");
    }

    private void fact(int unit, String fact, String value) {
        client.put(
                        "/api/bring-ups/" + id + "/facts",
                        Map.of("cells", List.of(Map.of("unitId", unit, "member", "", "name", fact, "value", value))))
                .statusCode(200)
                .body("changed", equalTo(1));
    }

    private List<String> findings() {
        return client.get("/api/bring-ups/" + id + "/prepare").<String>getList("site.findings.code").stream()
                .filter(code -> code.startsWith("image"))
                .toList();
    }

    @Test
    void aBrokenPackageSaysSo() throws Exception {
        bytes = Arrays.copyOf(bytes, BYTES);
        System.arraycopy("ustar".getBytes(StandardCharsets.US_ASCII), 0, bytes, 257, 5);
        long image = add(Map.of()).json().getLong("id");
        piece(image, 0, BYTES);
        assertEquals("PACKAGE_BROKEN", image("FAILED").getString("fault"));
    }
}
