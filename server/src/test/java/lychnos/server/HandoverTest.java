package lychnos.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.startsWith;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import lychnos.lab.Controller;
import lychnos.server.handover.HandoverTestAccess;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.hibernate.Session;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Signing what is proven, the record that it leaves, and what other teams are given. */
@QuarkusTest
class HandoverTest extends ProvenMachine {

    @Inject
    Session db;

    @TempDir
    Path directory;

    private Client lead;

    @BeforeEach
    void signIn() {
        lead = Client.lead();
    }

    private Json handover() {
        return client.get("/api/bring-ups/" + id + "/handover");
    }

    private Response sign(Client by, String face) {
        Map<String, Object> seen = new LinkedHashMap<>(Map.of("unit", unit));
        seen.put("face", face);
        return by.post("/api/bring-ups/" + id + "/signatures", Map.of("units", List.of(seen)));
    }

    private Response sign() {
        return sign(lead, handover().getString("units[0].face"));
    }

    private Json verify() {
        return lead.post("/api/chain/verifications", Map.of()).statusCode(200).json();
    }

    private void sql(String statement) {
        QuarkusTransaction.requiringNew()
                .run(() -> db.createNativeMutationQuery(statement).executeUpdate());
    }

    // --- signing ---

    @Test
    void whatIsProvenIsSignedOnceByALead() {
        assertEquals("READY", handover().getString("units[0].state"));
        sign(client, handover().getString("units[0].face")).statusCode(403);
        sign(lead, "another-face").statusCode(409).body("detail", containsString("has changed since you saw it"));
        String digest = sign().statusCode(200).json().getString("[0].digest");
        Json after = handover();
        assertEquals("SIGNED", after.getString("units[0].state"));
        assertEquals(digest, after.getString("units[0].digest"));
        sign().statusCode(409).body("detail", containsString("already"));
        assertTrue(verify().getList("breaks").isEmpty());
        // nothing of it is changed now
        client.post("/api/units/" + unit + "/release", Map.of());
        client.request()
                .body(Map.of("cells", List.of(Map.of("unitId", unit, "member", "", "name", "serial", "value", "XX-1"))))
                .put("/api/bring-ups/" + id + "/facts")
                .body("faults[0].reason", containsString("is signed"));
        lead.post("/api/units/" + unit + "/reopenings", Map.of("why", " ")).statusCode(400);
        lead.post("/api/units/" + unit + "/reopenings", Map.of("why", "a new board"))
                .statusCode(204);
        assertEquals("READY", handover().getString("units[0].state"));
        lead.post("/api/units/" + unit + "/reopenings", Map.of("why", "again")).statusCode(409);
        sign().statusCode(200);
        assertTrue(verify().getList("breaks").isEmpty());
    }

    @Test
    void aSignatureThatIsSentAgainIsTheSameOne() {
        Map<String, Object> wanted =
                Map.of("units", List.of(Map.of("unit", unit, "face", handover().getString("units[0].face"))));
        String first = lead.request()
                .header("Idempotency-Key", "signing-" + id)
                .body(wanted)
                .post("/api/v1/bring-ups/" + id + "/signatures")
                .statusCode(200)
                .json()
                .getString("[0].digest");
        String again = lead.request()
                .header("Idempotency-Key", "signing-" + id)
                .body(wanted)
                .post("/api/v1/bring-ups/" + id + "/signatures")
                .statusCode(200)
                .json()
                .getString("[0].digest");
        assertEquals(first, again);
        lead.request()
                .header("Idempotency-Key", "signing-" + id)
                .body(Map.of("units", List.of()))
                .post("/api/v1/bring-ups/" + id + "/signatures")
                .statusCode(409)
                .body("detail", containsString("another request"));
    }

    @Test
    void whatHasAFaultOrAChangeIsNotSigned() {
        machine().controller().setFirmware("4.17.0");
        check(null);
        sign().statusCode(409).body("detail", containsString("Something has changed since it was accepted: firmware"));
        client.post(
                        "/api/endpoints/" + claim + "/changes",
                        Map.of("what", "firmware", "now", "4.17.0", "accept", true, "reason", ""))
                .statusCode(204);
        machine().controller().setMask("255.255.0.0");
        check(null);
        assertEquals("BLOCKED", handover().getString("units[0].state"));
        sign().statusCode(409).body("detail", containsString("Mask is 255.255.0.0"));
    }

    @Test
    void ofTwoLeadsAtOnceOneSigns() throws Exception {
        String face = handover().getString("units[0].face");
        ExecutorService both = Executors.newFixedThreadPool(2);
        List<Callable<Integer>> signing = IntStream.range(0, 2)
                .mapToObj(i -> (Callable<Integer>) () -> sign(lead, face).statusCode())
                .toList();
        List<Integer> answers = both.invokeAll(signing).stream()
                .map(each -> {
                    try {
                        return each.get();
                    } catch (Exception e) {
                        throw new AssertionError(e);
                    }
                })
                .sorted()
                .toList();
        both.shutdown();
        assertEquals(List.of(200, 409), answers);
        assertTrue(verify().getList("breaks").isEmpty());
    }

    @Test
    void whatIsChangedBehindTheProgramsBackShows() {
        sign().statusCode(200);
        assertTrue(verify().getList("breaks").isEmpty());
        String before = QuarkusTransaction.requiringNew().call(() -> (String) db.createNativeQuery(
                        "select act from journal where unit_id = " + unit + " order by id limit 1", String.class)
                .getSingleResult());
        sql("alter table journal disable trigger journal_is_kept");
        sql("update journal set act = 'did nothing' where id = (select min(id) from journal where unit_id = " + unit
                + ")");
        assertEquals("A journal entry was changed after it was put in.", verify().getString("breaks[0].why"));
        QuarkusTransaction.requiringNew().run(() -> db.createNativeMutationQuery(
                        "update journal set act = :act where id = (select min(id) from journal where unit_id = " + unit
                                + ")")
                .setParameter("act", before)
                .executeUpdate());
        sql("alter table journal enable trigger journal_is_kept");
        sql("alter table record disable trigger record_frozen");
        sql("update record set body = replace(body, '" + serial() + "', 'OTHER') where unit_id = " + unit);
        assertEquals("A record was changed after it was put in.", verify().getString("breaks[0].why"));
        sql("update record set body = replace(body, 'OTHER', '" + serial() + "') where unit_id = " + unit);
        sql("alter table record enable trigger record_frozen");
        assertTrue(verify().getList("breaks").isEmpty());
        // by the front door it is not possible at all
        for (String statement : List.of(
                "update record set body = '{}' where unit_id = " + unit,
                "delete from record where unit_id = " + unit,
                "update chain_link set body = previous",
                "delete from chain_link",
                "update journal set act = 'did nothing' where unit_id = " + unit)) {
            boolean refused = false;
            try {
                sql(statement);
            } catch (RuntimeException e) {
                refused = true;
            }
            assertTrue(refused, statement);
        }
    }

    @Test
    void anOpenItemHasAReasonADateAndALead() {
        Map<String, Object> item = new LinkedHashMap<>(Map.of(
                "sort",
                "open",
                "unit",
                unit,
                "text",
                "trial licence",
                "reason",
                "the order is on its way",
                "due",
                LocalDate.now().plusDays(20).toString()));
        client.post("/api/bring-ups/" + id + "/items", item).statusCode(403);
        for (String lacks : List.of("text", "reason", "due")) {
            Map<String, Object> less = new LinkedHashMap<>(item);
            less.remove(lacks);
            lead.post("/api/bring-ups/" + id + "/items", less).statusCode(400).body("faults[0].field", equalTo(lacks));
        }
        item.put("due", "2020-01-01");
        lead.post("/api/bring-ups/" + id + "/items", item).statusCode(400).body("detail", containsString("has passed"));
        item.put("due", LocalDate.now().plusDays(20).toString());
        int made = lead.post("/api/bring-ups/" + id + "/items", item)
                .statusCode(200)
                .json()
                .getInt("id");
        assertEquals("trial licence", handover().getString("items[0].text"));
        lead.request().delete("/api/items/" + made).statusCode(204);
        lead.request().delete("/api/items/" + made).statusCode(409);
        assertEquals(List.of(), handover().getList("items"));
    }

    // --- the pack ---

    private byte[] pack(String paper) {
        return client.post("/api/bring-ups/" + id + "/packs?paper=" + paper, Map.of())
                .statusCode(200)
                .asByteArray();
    }

    private static Map<String, byte[]> entries(byte[] pack) throws IOException {
        Map<String, byte[]> entries = new LinkedHashMap<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(pack))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                entries.put(entry.getName(), zip.readAllBytes());
            }
        }
        return entries;
    }

    private List<String> faults(byte[] pack) throws IOException {
        return HandoverTestAccess.check(Files.write(directory.resolve("pack.zip"), pack));
    }

    @Test
    void oneByteChangedAnywhereInAPackIsCaught() throws IOException {
        client.post("/api/bring-ups/" + id + "/packs", Map.of()).statusCode(409);
        sign().statusCode(200);
        byte[] pack = pack("a4");
        assertEquals(List.of(), faults(pack));
        Map<String, byte[]> entries = entries(pack);
        assertTrue(
                entries.keySet()
                        .containsAll(List.of(
                                "certificates.pem",
                                "endpoints.csv",
                                "flows.csv",
                                "hosts",
                                "inventory.yaml",
                                "known_hosts",
                                "manifest.json",
                                "pack.pdf",
                                "records.json",
                                "records.schema.json",
                                "reservations.json",
                                "targets.json")),
                entries.keySet()::toString);
        // one in each file, and every hundredth of the whole
        entries.forEach((name, bytes) -> {
            if (bytes.length > 0) {
                int at = indexOf(pack, bytes);
                assertTrue(at > 0, name);
                changed(pack, at + bytes.length / 2, name);
            }
        });
        for (int at = 0; at < pack.length; at += Math.max(1, pack.length / 100)) {
            changed(pack, at, "byte " + at);
        }
        assertFalse(faults(java.util.Arrays.copyOf(pack, pack.length - 30)).isEmpty(), "cut off");
        assertTrue(verify().getList("breaks").isEmpty());
    }

    private void changed(byte[] pack, int at, String what) {
        byte[] other = pack.clone();
        other[at] ^= 1;
        try {
            assertFalse(faults(other).isEmpty(), what);
        } catch (IOException e) {
            // it cannot even be read
        }
    }

    private static int indexOf(byte[] all, byte[] part) {
        for (int at = 0; at <= all.length - part.length; at++) {
            if (java.util.Arrays.equals(all, at, at + part.length, part, 0, part.length)) {
                return at;
            }
        }
        return -1;
    }

    @Test
    void thePdfIsTaggedAndReadsLikeThePage() throws IOException {
        sign().statusCode(200);
        for (String paper : List.of("a4", "letter")) {
            try (PDDocument pdf = Loader.loadPDF(entries(pack(paper)).get("pack.pdf"))) {
                assertTrue(pdf.getDocumentCatalog().getMarkInfo().isMarked());
                assertEquals("en", pdf.getDocumentCatalog().getLanguage());
                assertEquals(
                        paper.equals("a4") ? 842 : 792,
                        Math.round(pdf.getPage(0).getMediaBox().getHeight()));
                String text = new PDFTextStripper().getText(pdf);
                assertTrue(
                        text.contains(serial())
                                && text.contains(at(101))
                                && text.contains("units signed of 1")
                                && text.contains("Signed by"),
                        text);
                assertFalse(pdf.getPage(0).getAnnotations().isEmpty(), "links inside");
            }
        }
    }

    // --- for others ---

    private String export(String name) {
        return client.request()
                .get("/api/bring-ups/" + id + "/exports/" + name)
                .statusCode(200)
                .asString();
    }

    private int run(String... command) throws IOException, InterruptedException {
        return new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(directory.resolve("said").toFile())
                .start()
                .waitFor();
    }

    @Test
    void serversOfOthersReadWhatTheyAreGiven() throws Exception {
        client.request()
                .body(Map.of(
                        "sort",
                        "domain",
                        "name",
                        "ardal.example",
                        "values",
                        Map.of("primary", at(3), "reverse-zones", net + ".40.127.in-addr.arpa")))
                .put("/api/bring-ups/" + id + "/site-resources")
                .statusCode(200);
        List<String> names = handover().getList("exports");
        List<String> zones =
                names.stream().filter(name -> name.startsWith("zones/")).toList();
        assertEquals(2, zones.size(), names::toString);
        for (String zone : zones) {
            Path file = Files.writeString(directory.resolve("zone"), export(zone));
            assertEquals(
                    0,
                    run("named-checkzone", zone.substring(6, zone.length() - 5), file.toString()),
                    () -> read("said"));
            Files.copy(file, directory.resolve(zone.substring(6)));
        }
        served(zones.stream().map(zone -> zone.substring(6, zone.length() - 5)).toList());
        Path reservations = Files.writeString(directory.resolve("kea.json"), export("reservations.json"));
        assertTrue(Files.readString(reservations).contains(mac()));
        assertEquals(0, run("../lab/services/dhcp-check.sh", reservations.toString()), () -> read("said"));
        Files.writeString(directory.resolve("certificate"), export("certificates.pem"));
        assertEquals(
                0,
                run("openssl", "x509", "-in", directory.resolve("certificate").toString(), "-noout"),
                () -> read("said"));
        assertTrue(export("endpoints.csv").contains(",127.40." + net + ".101/24,"));
        client.request().get("/api/bring-ups/" + id + "/exports/passwd").statusCode(404);
    }

    /** A name server that has never heard of anything answers with what it is given. */
    private void served(List<String> zones) throws Exception {
        int port;
        try (java.net.DatagramSocket free = new java.net.DatagramSocket(0)) {
            port = free.getLocalPort();
        }
        StringBuilder settings = new StringBuilder(
                ("options { directory \"%1$s\"; pid-file none; session-keyfile none; managed-keys-directory \"%1$s\"; "
                                + "listen-on port %2$d { 127.0.0.1; }; listen-on-v6 { none; }; recursion no; "
                                + "dnssec-validation no; };\ncontrols { };\n")
                        .formatted(directory, port));
        zones.forEach(
                zone -> settings.append("zone \"%1$s\" { type primary; file \"%1$s.zone\"; };\n".formatted(zone)));
        Path file = Files.writeString(directory.resolve("named.conf"), settings);
        Path log = directory.resolve("named.log");
        Process named = new ProcessBuilder("named", "-c", file.toString(), "-n", "1", "-g", "-4")
                .redirectErrorStream(true)
                .redirectOutput(log.toFile())
                .start();
        try {
            ConsoleStage.until("it serves", () -> read("named.log").contains("running") || !named.isAlive());
            String name = client.get("/api/bring-ups/" + id + "/handover").getString("lines[0].name");
            byte[] forward = ask(port, name, 1);
            assertArrayEquals(
                    new byte[] {127, 40, (byte) net, 101},
                    java.util.Arrays.copyOfRange(forward, 0, 4),
                    () -> read("named.log"));
            String label = name.substring(0, name.indexOf('.'));
            assertEquals(
                    label,
                    new String(
                            ask(port, "101." + net + ".40.127.in-addr.arpa", 12),
                            1,
                            label.length(),
                            StandardCharsets.US_ASCII));
        } finally {
            named.destroy();
            named.waitFor();
        }
    }

    /** The data of the one record that answers (RFC 1035, section 4.1). */
    private static byte[] ask(int port, String name, int type) throws IOException {
        java.nio.ByteBuffer query = java.nio.ByteBuffer.allocate(512)
                .putShort((short) 4711)
                .putShort((short) 0)
                .putShort((short) 1)
                .putShort((short) 0)
                .putInt(0);
        for (String label : name.split("\\.")) {
            query.put((byte) label.length()).put(label.getBytes(StandardCharsets.US_ASCII));
        }
        query.put((byte) 0).putShort((short) type).putShort((short) 1);
        try (java.net.DatagramSocket socket = new java.net.DatagramSocket()) {
            socket.setSoTimeout(5000);
            socket.send(new java.net.DatagramPacket(
                    query.array(), query.position(), java.net.InetAddress.getByName("127.0.0.1"), port));
            java.net.DatagramPacket answer = new java.net.DatagramPacket(new byte[512], 512);
            socket.receive(answer);
            java.nio.ByteBuffer said = java.nio.ByteBuffer.wrap(answer.getData(), 0, answer.getLength());
            assertEquals(1, said.getShort(6), "records in the answer");
            // behind the question: a pointer to its name, type, class, time to live, length
            int at = query.position() + 2 + 2 + 2 + 4;
            return java.util.Arrays.copyOfRange(answer.getData(), at + 2, at + 2 + said.getShort(at));
        }
    }

    private String read(String name) {
        try {
            return Files.readString(directory.resolve(name));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void passwordsGoToWhoeverHoldsTheKeyAlone() throws Exception {
        sign().statusCode(200);
        lead.post("/api/bring-ups/" + id + "/credentials", Map.of("key", "no key"))
                .statusCode(400)
                .body("detail", startsWith("Paste an OpenPGP public key"));
        Path home = Files.createDirectory(directory.resolve("gpg"));
        home.toFile().setReadable(false, false);
        home.toFile().setReadable(true, true);
        assertEquals(
                0,
                run(
                        "gpg",
                        "--homedir",
                        home.toString(),
                        "--batch",
                        "--quiet",
                        "--passphrase",
                        "",
                        "--quick-generate-key",
                        "Operations <ops@ardal.example>",
                        "default",
                        "default",
                        "1d"),
                () -> read("said"));
        assertEquals(
                0,
                run(
                        "gpg",
                        "--homedir",
                        home.toString(),
                        "--batch",
                        "--armor",
                        "--output",
                        directory.resolve("public").toString(),
                        "--export"),
                () -> read("said"));
        client.post("/api/bring-ups/" + id + "/credentials", Map.of("key", read("public")))
                .statusCode(403);
        String sealed = lead.post("/api/bring-ups/" + id + "/credentials", Map.of("key", read("public")))
                .statusCode(200)
                .header("Cache-Control", "no-store")
                .asString();
        Files.writeString(directory.resolve("sealed"), sealed);
        assertEquals(
                0,
                run(
                        "gpg",
                        "--homedir",
                        home.toString(),
                        "--batch",
                        "--quiet",
                        "--output",
                        directory.resolve("open").toString(),
                        "--decrypt",
                        directory.resolve("sealed").toString()),
                () -> read("said"));
        String open = read("open");
        assertTrue(open.contains("account: \"" + Controller.FACTORY_USER + "\""), open);
        String password = open.lines()
                .filter(line -> line.contains("password: "))
                .findFirst()
                .orElseThrow()
                .replaceFirst(".*password: \"", "")
                .replaceFirst("\"$", "");
        assertTrue(
                machine().controller().admits(password.replace("\\\\", "\\").replace("\\\"", "\"")),
                "it is the one that works");
        assertTrue(verify().getList("breaks").isEmpty());
        assertFalse(new String(pack("a4"), StandardCharsets.ISO_8859_1).contains(password), "in no pack");
        run("gpgconf", "--homedir", home.toString(), "--kill", "all");
    }

    // --- tokens ---

    @Test
    void aTokenMayDoWhatItWasMadeFor() {
        Json made = client.post("/api/tokens", Map.of("name", "inventory " + net, "role", "viewer", "days", 30))
                .statusCode(200)
                .header("Cache-Control", "no-store")
                .json();
        String token = made.getString("token");
        client.post("/api/tokens", Map.of("name", "inventory " + net, "role", "viewer", "days", 30))
                .statusCode(409);
        client.post("/api/tokens", Map.of("name", "more", "role", "lead", "days", 30))
                .statusCode(400)
                .body("detail", containsString("higher role"));
        client.post("/api/tokens", Map.of("name", "more", "role", "viewer", "days", 9999))
                .statusCode(400);
        assertArrayEquals(
                export("hosts").getBytes(StandardCharsets.UTF_8),
                lychnos.server.http.Request.given()
                        .header("Authorization", "Bearer " + token)
                        .get("/api/bring-ups/" + id + "/exports/hosts")
                        .statusCode(200)
                        .asByteArray());
        lychnos.server.http.Request.given()
                .header("Authorization", "Bearer " + token)
                .contentType("application/json")
                .body("{}")
                .post("/api/bring-ups/" + id + "/checks")
                .statusCode(403);
        lychnos.server.http.Request.given()
                .header("Authorization", "Bearer " + token + "x")
                .get("/api/bring-ups/" + id + "/exports/hosts")
                .statusCode(401);
        sql("update api_token set ends_at = now() - interval '1 second' where id = " + made.getInt("id"));
        lychnos.server.http.Request.given()
                .header("Authorization", "Bearer " + token)
                .get("/api/bring-ups/" + id + "/exports/hosts")
                .statusCode(401);
        sql("update api_token set ends_at = now() + interval '1 day' where id = " + made.getInt("id"));
        client.request().delete("/api/tokens/" + made.getInt("id")).statusCode(204);
        lychnos.server.http.Request.given()
                .header("Authorization", "Bearer " + token)
                .get("/api/bring-ups/" + id + "/exports/hosts")
                .statusCode(401);
    }
}
