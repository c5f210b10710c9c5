package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import lychnos.lab.Controller;
import lychnos.server.http.Json;
import lychnos.server.text.SecretText;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What other teams are given. */
@QuarkusTest
class HandoverExportsTest extends HandoverStage {

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
        try (DatagramSocket free = new DatagramSocket(0)) {
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
        try (DatagramSocket socket = new DatagramSocket()) {
            socket.setSoTimeout(5000);
            DatagramPacket answer = new DatagramPacket(new byte[512], 512);
            exchange(
                    socket,
                    new DatagramPacket(query.array(), query.position(), InetAddress.getByName("127.0.0.1"), port),
                    answer);
            java.nio.ByteBuffer said = java.nio.ByteBuffer.wrap(answer.getData(), 0, answer.getLength());
            assertEquals(1, said.getShort(6), "records in the answer");
            // behind the question: a pointer to its name, type, class, time to live, length
            int at = query.position() + 2 + 2 + 2 + 4;
            return java.util.Arrays.copyOfRange(answer.getData(), at + 2, at + 2 + said.getShort(at));
        }
    }

    /** A question is asked again, as resolvers do: one datagram may be lost while a server loads its zones. */
    private static void exchange(DatagramSocket socket, DatagramPacket query, DatagramPacket answer)
            throws IOException {
        for (int left = 4; ; left--) {
            socket.send(query);
            try {
                socket.receive(answer);
                return;
            } catch (SocketTimeoutException e) {
                if (left == 0) {
                    throw e;
                }
            }
        }
    }

    private String read(String name) {
        try {
            return Files.readString(directory.resolve(name));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Tag("wording")
    @Test
    void passwordsGoToWhoeverHoldsTheKeyAlone() throws Exception {
        sign().statusCode(200);
        lead.post("/api/bring-ups/" + id + "/credentials", Map.of("key", "no key"))
                .statusCode(400)
                .body("detail", equalTo(SecretText.PASTE_AN_OPENPGP_PUBLIC_KEY.text()));
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

    @Tag("wording")
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
                .body("faults[0].code", equalTo("TOKEN_CANNOT_HAVE_A_HIGHER_ROLE_THAN_YOU"));
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
