package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lychnos.core.fact.Secret;
import lychnos.core.kind.KindPackage;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;
import lychnos.core.text.Texts;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import lychnos.server.secrets.SealedStore;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Recordings that are kept with a kind, and kinds that come and go as one file. */
@QuarkusTest
class KindSharingTest {

    private static final String SHIPPED = "console-manager";

    @Inject
    SealedStore sealed;

    private Client engineer;
    private Client lead;

    @BeforeEach
    void signIn() {
        engineer = Client.engineer();
        lead = Client.lead();
    }

    /** A kind of its own whose console is that of a shipped one. */
    private static String text(String id) {
        return KindReader.asWritten(SHIPPED)
                .replaceFirst("(?m)^kind: .*$", "kind: " + id)
                .replaceFirst("(?m)^short: .*$", "short: " + id.replace("-", ""));
    }

    /** A recording of it; each has another serial number, since the same one is kept once. */
    private static String cast(String id, int number) {
        String text = Recording.shippedText(SHIPPED).orElseThrow();
        String serial = Recording.read(text).values().get("serial");
        return text.replace("\"kind\":\"" + SHIPPED + "\"", "\"kind\":\"" + id + "\"")
                .replace(serial, serial.substring(0, serial.length() - 1) + number);
    }

    private Response save(String id, String text) {
        return engineer.request()
                .contentType("text/plain; charset=UTF-8")
                .header("If-Match", "\"0\"")
                .body(text)
                .put("/api/catalogue/" + id + "/draft");
    }

    private Response zip(Client who, String path, byte[] archive) {
        return who.request()
                .contentType("application/zip")
                .header("If-Match", "\"0\"")
                .body(archive)
                .post(path);
    }

    private Json keep(String id, String name, String cast) {
        return engineer.post(
                        "/api/catalogue/" + id + "/recordings/kept",
                        Map.of("name", name, "file", Map.of("recording", cast)))
                .statusCode(200)
                .json();
    }

    @Test
    void aVersionThatDoesNotAgreeWithARecordingNeedsAReason() {
        save("hub-a", text("hub-a")).statusCode(200);
        keep("hub-a", "first of row B", cast("hub-a", 1));
        lead.post("/api/catalogue/hub-a/publish", Map.of("note", "first")).statusCode(200);

        String other = text("hub-a")
                .replaceFirst("(?m)^  setup:$", "  setup:\n    - { asked: \"Never asked?\", answer: none }");
        save("hub-a", other).statusCode(200);
        Json trials = engineer.post("/api/catalogue/hub-a/recordings/trials", Map.of())
                .json();
        assertEquals("first-of-row-b", trials.getString("[0].name"));
        assertFalse(trials.getBoolean("[0].agrees"));
        Json refused = lead.post("/api/catalogue/hub-a/publish", Map.of("note", "second"))
                .statusCode(409)
                .json();
        assertEquals("first-of-row-b", refused.getString("recordings[0].name"));
        lead.post("/api/catalogue/hub-a/publish", Map.of("note", "second", "despite", "the firmware is another one"))
                .statusCode(200);
        Json page = engineer.get("/api/catalogue/hub-a");
        assertEquals("the firmware is another one", page.getString("history[0].despite"));
        assertEquals("", page.getString("history[1].despite"));
    }

    @Test
    void aRecordingThatIsRemovedIsNotAskedAnyMore() {
        save("hub-b", text("hub-b")).statusCode(200);
        long id = keep("hub-b", "one", cast("hub-b", 2)).getLong("recording.id");
        engineer.post(
                        "/api/catalogue/hub-b/recordings/kept",
                        Map.of("name", "again", "file", Map.of("recording", cast("hub-b", 2))))
                .statusCode(409);
        engineer.request().delete("/api/catalogue/hub-b/recordings/kept/" + id).statusCode(204);
        engineer.request().delete("/api/catalogue/hub-b/recordings/kept/" + id).statusCode(404);
        assertEquals(
                List.of(), engineer.get("/api/catalogue/hub-b/recordings/kept").getList(""));
    }

    @Test
    void aPasswordThatIsKnownIsBlankedBeforeItIsKept() {
        long bringUp = engineer.bringUp();
        long unit = engineer.post(
                        "/api/bring-ups/" + bringUp + "/units", Map.of("kind", SHIPPED, "count", 1, "members", 0))
                .statusCode(200)
                .json()
                .getLong("[0]");
        sealed.seal(unit, "keeper-password", Secret.of("Tarn-7-rb7sLx"));
        save("hub-c", text("hub-c")).statusCode(200);
        String cast = cast("hub-c", 3)
                + "[99.0,\"o\",\"it says Tarn-7-\"]\n[99.1,\"o\",\"rb7sLx aloud\"]\n[99.2,\"i\",\"typed unseen\"]\n";
        Json kept = keep("hub-c", "loud", cast);
        assertEquals(1, kept.getInt("blanked"));
        String text = engineer.request()
                .get("/api/catalogue/hub-c/recordings/kept/" + kept.getLong("recording.id"))
                .asString();
        assertFalse(text.contains("Tarn-7-") || text.contains("rb7sLx"), "in two pieces too");
        assertFalse(text.contains("typed unseen"), "what was typed may be a password that is not sealed here");
        assertTrue(text.contains(" aloud"));
    }

    @Test
    void aKindLeavesWithItsRecordingsAndComesBackElsewhere() {
        save("hub-d", text("hub-d")).statusCode(200);
        keep("hub-d", "shared", cast("hub-d", 4));
        String own = cast("hub-d", 5).replace("\"values\":{", "\"values\":{\"factory.user\":\"our-own-login\",");
        assertTrue(keep("hub-d", "of this site", own).getBoolean("recording.stays"));
        lead.post("/api/catalogue/hub-d/publish", Map.of("note", "", "despite", "the login is ours"))
                .statusCode(200);

        byte[] archive = engineer.request()
                .get("/api/catalogue/hub-d/versions/1/package")
                .statusCode(200)
                .asByteArray();
        KindPackage read = KindPackage.read(archive);
        assertEquals(text("hub-d"), read.description());
        assertEquals(
                List.of("shared"), List.copyOf(read.recordings().keySet()), "a login of this site never leaves it");

        KindPackage elsewhere = new KindPackage(
                read.description().replace("kind: hub-d", "kind: hub-e").replace("short: hubd", "short: hube"),
                new TreeMap<>(Map.of("shared", read.recordings().get("shared").replace("hub-d", "hub-e"))));
        Json looked = zip(engineer, "/api/kinds/packages/check", elsewhere.write())
                .statusCode(200)
                .json();
        assertEquals("hub-e", looked.getString("kind"));
        assertTrue(looked.getBoolean("recordings[0].agrees"));
        assertEquals(404, engineer.request().get("/api/catalogue/hub-e").statusCode(), "looking keeps nothing");
        zip(engineer, "/api/kinds/packages", elsewhere.write()).statusCode(200);
        assertEquals(
                "shared", engineer.get("/api/catalogue/hub-e/recordings/kept").getString("[0].name"));
        lead.post("/api/catalogue/hub-e/publish", Map.of("note", "from elsewhere"))
                .statusCode(200);
    }

    @Test
    void whatDiffersFromTheKindHereIsShown() {
        save("hub-f", text("hub-f")).statusCode(200);
        lead.post("/api/catalogue/hub-f/publish", Map.of("note", "")).statusCode(200);
        KindPackage other =
                new KindPackage(text("hub-f").replace("title: line port", "title: port of the line"), new TreeMap<>());
        Json looked = zip(engineer, "/api/kinds/packages/check", other.write()).json();
        assertEquals(1, looked.getInt("newest"));
        assertTrue(looked.at("changes").prettify().contains("port of the line"));
    }

    @Tag("wording")
    @Test
    void aBrokenPackageIsRefusedAndKeepsNothing() {
        Response none = zip(engineer, "/api/kinds/packages", "no archive".getBytes());
        assertTrue(Texts.says(
                "core.kind.KindFileText.NOT_A_ZIP", none.statusCode(400).json().getString("detail")));
        KindPackage faulty = new KindPackage("kind: hub-g\ntitle: Hub\n", new TreeMap<>());
        assertTrue(zip(engineer, "/api/kinds/packages/check", faulty.write())
                        .json()
                        .getList("faults")
                        .size()
                > 3);
        Json refused = zip(engineer, "/api/kinds/packages", faulty.write())
                .statusCode(409)
                .json();
        assertTrue(refused.getInt("kindFaults[0].line") >= 1);
        KindPackage noRecording = new KindPackage(text("hub-g"), new TreeMap<>(Map.of("broken", "no recording")));
        assertTrue(zip(engineer, "/api/kinds/packages", noRecording.write())
                .statusCode(400)
                .json()
                .getString("detail")
                .contains("“broken”"));
        assertEquals(404, engineer.request().get("/api/catalogue/hub-g").statusCode());
        zip(engineer, "/api/kinds/packages", new byte[KindPackage.MOST_BYTES + 4096])
                .statusCode(413);
    }

    @Tag("wording")
    @Test
    void aDraftThatIsThereIsNotReplacedUnseen() {
        save("hub-i", text("hub-i")).statusCode(200);
        byte[] archive = new KindPackage(text("hub-i") + "# from elsewhere\n", new TreeMap<>()).write();
        Json refused =
                zip(engineer, "/api/kinds/packages", archive).statusCode(409).json();
        assertTrue(refused.getString("detail").contains("There is a draft of “hub-i” already"));
        assertEquals(text("hub-i"), engineer.get("/api/catalogue/hub-i/draft").getString("text"));
        engineer.request()
                .contentType("application/zip")
                .header("If-Match", "\"1\"")
                .body(archive)
                .post("/api/kinds/packages")
                .statusCode(200);
    }

    @Test
    void aViewerTakesNoPackage() {
        byte[] archive = new KindPackage(text("hub-h"), new TreeMap<>()).write();
        zip(Client.viewer(), "/api/kinds/packages", archive).statusCode(403);
        zip(Client.viewer(), "/api/kinds/packages/check", archive).statusCode(403);
    }
}
