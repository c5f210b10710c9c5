package lychnos.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import io.vertx.core.http.HttpServer;
import io.vertx.core.http.HttpServerOptions;
import java.io.BufferedReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import lychnos.lab.Authority;
import lychnos.lab.Certificates;
import lychnos.lab.WebKey;
import lychnos.server.http.Json;
import lychnos.server.text.NoticeText;
import lychnos.server.text.ProveText;
import lychnos.wire.fault.WireText;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Checks of a machine that is set up: what has changed since, what people decide on it, and that nothing else is ever
 * reached.
 */
@QuarkusTest
class ProveTest extends ProvenMachine {

    private void decide(String what, String now, boolean accept, String reason, int status) {
        client.post(
                        "/api/endpoints/" + claim + "/changes",
                        Map.of("what", what, "now", now, "accept", accept, "reason", reason))
                .statusCode(status);
    }

    @Test
    void anotherCertificateIsShownWithBothAndAccepted() {
        String before = detail().getString("fingerprint");
        machine().showOther(Certificates.selfSigned("somebody-elses", -1, 30));
        check(null);
        Json view = view();
        assertEquals("certificate", view.getString("changes[0].what"));
        assertEquals(before, view.getString("changes[0].before"));
        String now = view.getString("changes[0].now");
        assertEquals(
                "bbb", detail().getString("before[0].standings").substring(2, 3).repeat(3), "the strip shows the rung");
        decide("certificate", before, true, "", 409); // not the one that is shown
        decide("certificate", now, true, "", 204);
        check(null);
        assertTrue(view().getBoolean("endpoints[0].proven"));
        assertEquals(List.of(), view().getList("changes"));
        assertEquals(now, detail().getString("fingerprint"));
    }

    @Test
    void aSettingThatSomebodyChangedIsAcceptedOrHeldForAFault() {
        machine().controller().setMask("255.255.0.0");
        check(null);
        assertEquals("setting: mask", view().getString("changes[0].what"));
        assertFalse(view().getBoolean("endpoints[0].proven"));
        decide("setting: mask", "255.255.0.0", false, "", 400); // why?
        decide("setting: mask", "255.255.0.0", false, "the plan says /24", 204);
        assertEquals("the plan says /24", view().getString("changes[0].reason"));
        decide("setting: mask", "255.255.0.0", true, "", 204);
        check(null);
        assertTrue(view().getBoolean("endpoints[0].proven"), view()::prettify);
        // accepted was that value and no other
        machine().controller().setMask("255.0.0.0");
        check(null);
        assertFalse(view().getBoolean("endpoints[0].proven"));
        assertEquals("255.0.0.0", view().getString("changes[0].now"));
        machine().controller().setMask("255.255.255.0");
        check(null);
        assertTrue(view().getBoolean("endpoints[0].proven"), "the planned value passes, whatever was accepted");
        assertEquals(List.of(), view().getList("changes"));
    }

    @Tag("wording")
    @Test
    void whatHasNoRungIsAChangeAllTheSame() {
        machine().controller().setFirmware("4.17.0");
        check(null);
        assertEquals("firmware", view().getString("changes[0].what"));
        assertTrue(view().getBoolean("endpoints[0].proven"), "it was not rejected");
        decide("firmware", "4.17.0", false, "older than agreed", 204);
        check(null);
        assertFalse(view().getBoolean("endpoints[0].proven"));
        assertTrue(
                view().getString("endpoints[0].sentence")
                        .startsWith("Rejected: firmware was 4.18.2, is 4.17.0 (older than agreed)."),
                view()::prettify);
        machine().controller().setFirmware("4.18.2");
        check(null);
        assertTrue(view().getBoolean("endpoints[0].proven"));
    }

    @Test
    void aFactoryPasswordIsNeverAccepted() {
        machine().controller().letFactoryIn();
        check(null);
        assertEquals("factory password", view().getString("changes[0].what"));
        assertFalse(view().getBoolean("changes[0].acceptable"));
        decide("factory password", "works", true, "", 409);
    }

    @Test
    void aCheckUpToARungLeavesWhatIsAboveIt() {
        int logins = machine().controller().refusedLogins();
        check("TLS");
        assertEquals(logins, machine().controller().refusedLogins(), "the seventh rung was not climbed");
        assertTrue(view().getBoolean("endpoints[0].proven"));
        machine().powerOff();
        check("PORT");
        assertEquals(
                List.of(
                        "NOT_MEASURED",
                        "BROKEN",
                        "NOT_REACHED",
                        "NOT_REACHED",
                        "NOT_REACHED",
                        "NOT_REACHED",
                        "NOT_REACHED"),
                view().getList("endpoints[0].standings"));
    }

    @Tag("wording")
    @Test
    void aSignedCertificateIsPutInAndProvenAgain() {
        assertEquals("REDFISH", detail().getString("certificate"));
        String before = detail().getString("fingerprint");
        client.post("/api/endpoints/" + claim + "/certificate-chain", Map.of("chain", "x"))
                .statusCode(409);
        String request = client.post("/api/endpoints/" + claim + "/certificate-request", Map.of())
                .statusCode(200)
                .json()
                .getString("request");
        assertEquals(request, detail().getString("signing.request"));
        client.post("/api/endpoints/" + claim + "/certificate-chain", Map.of("chain", new Authority().root()))
                .statusCode(400)
                .body("faults[0].reason", containsString("for the key that the machine has made"));
        client.post("/api/endpoints/" + claim + "/certificate-chain", Map.of("chain", new Authority().sign(request)))
                .statusCode(204);
        check(null);
        assertTrue(view().getBoolean("endpoints[0].proven"), view()::prettify);
        assertFalse(before.equals(detail().getString("fingerprint")));
        assertEquals(List.of(), view().getList("changes"), "who put it in has accepted it");
        assertTrue(
                detail().getString("rungs[2].parts.find { it.name == 'chain' }.seen")
                        .contains("2 certificates"),
                detail()::prettify);
    }

    @Test
    void aPersonMakesTheRequestAndInstallsTheCertificate() throws Exception {
        String path = "/api/endpoints/" + claim + "/certificate-";
        String name = detail().getString("endpoint.fqdn");
        WebKey key = new WebKey(null, "made-by-hand", 30);
        client.post(path + "installed", Map.of()).statusCode(409);
        client.post(path + "request", Map.of("request", "x"))
                .statusCode(400)
                .body("faults[0].field", equalTo("request"));
        client.post(path + "request", Map.of("request", key.request("other.ardal.example", List.of())))
                .statusCode(400)
                .body("faults[0].reason", equalTo(WireText.REQUEST_OTHER_NAME.text("other.ardal.example", name)));
        String request = key.request(name, List.of(name));
        client.post(path + "request", Map.of("request", request)).statusCode(200);
        assertEquals("BY_HAND", detail().getString("signing.way"));
        client.post(path + "installed", Map.of()).statusCode(409);
        String chain = new Authority().sign(request);
        client.post(path + "chain", Map.of("chain", chain)).statusCode(204);
        assertEquals(chain, detail().getString("signing.chain"));
        client.post(path + "installed", Map.of())
                .statusCode(409)
                .body("detail", equalTo(ProveText.MACHINE_STILL_SHOWS_THE_OLD_CERTIFICATE.text(5)));
        assertTrue(key.take(chain));
        machine().showOther(key.shown());
        client.post(path + "installed", Map.of()).statusCode(204);
        client.post(path + "installed", Map.of()).statusCode(409);
        check(null);
        assertTrue(view().getBoolean("endpoints[0].proven"), view()::prettify);
        assertEquals(List.of(), view().getList("changes"), "who installed it has accepted it");
    }

    // --- notices ---

    @Tag("wording")
    @Test
    void changesAreToldTogetherAndSigned() throws Exception {
        BlockingQueue<String> told = new LinkedBlockingQueue<>();
        BlockingQueue<String> signatures = new LinkedBlockingQueue<>();
        HttpServer hook = vertx.createHttpServer(
                        new HttpServerOptions().setSsl(true).setKeyCertOptions(Certificates.selfSigned("hook", -1, 30)))
                .requestHandler(request -> request.body().onSuccess(body -> {
                    signatures.add(request.getHeader("X-Lychnos-Signature"));
                    told.add(body.toString());
                    request.response().setStatusCode(204).end();
                }));
        hook.listen(18999, at(200)).toCompletionStage().toCompletableFuture().join();
        Client lead = Client.lead();
        lead.post("/api/bring-ups/" + id + "/notices", Map.of("sort", "webhook", "to", "http://" + at(200) + "/"))
                .statusCode(400)
                .body("detail", equalTo(NoticeText.WEBHOOK_URL_STARTS_WITH_HTTPS.text()));
        lead.post("/api/bring-ups/" + id + "/notices", Map.of("sort", "mail", "to", "no mail address"))
                .statusCode(400);
        client.post("/api/bring-ups/" + id + "/notices", Map.of("sort", "mail", "to", "duty@ardal.example"))
                .statusCode(403);
        String secret = lead.post(
                        "/api/bring-ups/" + id + "/notices",
                        Map.of("sort", "webhook", "to", "https://" + at(200) + ":18999/told"))
                .statusCode(200)
                .json()
                .getString("secret");
        machine().controller().setMask("255.255.0.0");
        machine().controller().setFirmware("4.17.0");
        check(null);
        String body = told.poll(30, TimeUnit.SECONDS);
        Json batch = Json.parse(body);
        assertEquals(
                List.of("firmware", "ladder", "setting: mask"),
                batch.getList("changes.what").stream().sorted().toList(),
                body);
        assertEquals("sha256=" + hmac(secret, body), signatures.poll());
        assertEquals("", client.get("/api/bring-ups/" + id + "/notices").getString("[0].fault"));
        // another certificate than the first gets nothing
        hook.close().toCompletionStage().toCompletableFuture().join();
        vertx.createHttpServer(new HttpServerOptions()
                        .setSsl(true)
                        .setKeyCertOptions(Certificates.selfSigned("not-the-hook", -1, 30)))
                .requestHandler(request -> told.add("leaked"))
                .listen(18999, at(200))
                .toCompletionStage()
                .toCompletableFuture()
                .join();
        machine().controller().setFirmware("4.16.0");
        check(null);
        ConsoleStage.until("it is told that it was not told", () -> client.get("/api/bring-ups/" + id + "/notices")
                .getString("[0].fault")
                .contains("instead of"));
        assertEquals(null, told.poll());
    }

    @Tag("wording")
    @Test
    void aLetterGoesThroughTheSitesRelay(@TempDir Path directory) throws Exception {
        Path mailbox = directory.resolve("mailbox");
        assertEquals(
                0,
                new ProcessBuilder(
                                "openssl",
                                "req",
                                "-x509",
                                "-newkey",
                                "ec",
                                "-pkeyopt",
                                "ec_paramgen_curve:P-256",
                                "-nodes",
                                "-days",
                                "2",
                                "-subj",
                                "/CN=relay",
                                "-keyout",
                                directory.resolve("key").toString(),
                                "-out",
                                directory.resolve("pem").toString())
                        .start()
                        .waitFor());
        Process relay = new ProcessBuilder(
                        "/usr/bin/python3",
                        "../lab/services/relay.py",
                        at(25),
                        "25",
                        "10.40.8.3",
                        directory.resolve("pem").toString(),
                        directory.resolve("key").toString(),
                        mailbox.toString())
                .redirectErrorStream(true)
                .start();
        try (BufferedReader output = relay.inputReader()) {
            assertEquals("relay ready", output.readLine());
            client.request()
                    .body(Map.of("sort", "relay", "name", "relay", "values", Map.of("address", at(25))))
                    .put("/api/bring-ups/" + id + "/site-resources")
                    .statusCode(200);
            Client.lead()
                    .post("/api/bring-ups/" + id + "/notices", Map.of("sort", "mail", "to", "duty@ardal.example"))
                    .statusCode(200);
            machine().controller().setFirmware("4.17.0");
            check(null);
            ConsoleStage.until("a letter has come", () -> Files.exists(mailbox));
            String letter = Files.readString(mailbox);
            assertTrue(
                    letter.startsWith("to duty@ardal.example\n")
                            && letter.contains(": 1 change, all proven")
                            && letter.contains("firmware: 4.17.0"),
                    letter);
            assertEquals("", client.get("/api/bring-ups/" + id + "/notices").getString("[0].fault"));
            tellsOfADayThatComesNear(mailbox);
        } finally {
            relay.destroy();
        }
    }

    /** Told at the steps before the day, once each, and shown on the Board all the time. */
    private void tellsOfADayThatComesNear(Path mailbox) throws Exception {
        Files.delete(mailbox);
        LocalDate day = LocalDate.now(ZoneOffset.UTC).plusDays(10);
        String text = "temporary key of the appliance ends";
        Map<String, Object> item = Map.of("sort", "open", "text", text, "reason", "the permanent one is ordered");
        for (LocalDate due : List.of(day, day.plusDays(60))) {
            Map<String, Object> dated = new HashMap<>(item);
            dated.put("due", due.toString());
            Client.lead().post("/api/bring-ups/" + id + "/items", dated).statusCode(200);
        }
        assertEquals(
                List.of("Due on " + day + ". Close it in Hand over when it is done."),
                client.get("/api/bring-ups/" + id + "/board")
                        .getList("todos.findAll { it.title == '" + text + "' }.text"));
        ConsoleStage.until("a second letter has come", () -> Files.exists(mailbox));
        String letter = Files.readString(mailbox);
        assertTrue(
                letter.contains("1 item due soon or overdue") && letter.contains("Due on " + day + ": " + text),
                letter);
    }

    private static String hmac(String secret, String body) throws Exception {
        javax.crypto.Mac mac = javax.crypto.Mac.getInstance("HmacSHA256");
        mac.init(new javax.crypto.spec.SecretKeySpec(
                secret.getBytes(java.nio.charset.StandardCharsets.UTF_8), "HmacSHA256"));
        return java.util.HexFormat.of().formatHex(mac.doFinal(body.getBytes(java.nio.charset.StandardCharsets.UTF_8)));
    }

    @Tag("wording")
    @Test
    void aCertificateThatEndsSoonIsOnTheBoard() {
        assertEquals(List.of(), certificates());
        machine().showOther(Certificates.selfSigned("ends-soon", -1, 10));
        check(null);
        LocalDate ends = LocalDate.now(ZoneOffset.UTC).plusDays(10);
        String host = view().getString("endpoints[0].name");
        assertEquals(
                List.of("Certificate of " + host + " ends: Valid until " + ends
                        + ". Request and install new certificates before then."),
                certificates());
    }

    private List<String> certificates() {
        return client.get("/api/bring-ups/" + id + "/board").<Map<String, String>>getList("todos").stream()
                .filter(todo -> todo.get("title").startsWith("Certificate of"))
                .map(todo -> todo.get("title") + ": " + todo.get("text"))
                .toList();
    }

    // --- vantages ---

    @Test
    void whatIsReachedFromElsewhereIsNotGuessedAt() {
        Client lead = Client.lead();
        String name = "cage-" + id;
        client.post("/api/vantages", Map.of("name", name)).statusCode(403);
        lead.post("/api/vantages", Map.of("name", "Not A Name")).statusCode(400);
        int vantage = lead.post("/api/vantages", Map.of("name", name))
                .statusCode(200)
                .json()
                .getInt("id");
        lead.post("/api/vantages", Map.of("name", name)).statusCode(409);
        long network =
                lead.get("/api/vantages/networks").getLong("findAll { it.prefix == '" + at(0) + "/24' }.last().id");
        lead.request()
                .body(Map.of("networks", List.of(network)))
                .put("/api/vantages/" + vantage + "/networks")
                .statusCode(204);
        String before = detail().getString("endpoint.at");
        client.post("/api/bring-ups/" + id + "/checks", Map.of()).statusCode(200);
        ConsoleStage.until("nothing is under way", () -> view().getInt("checking") == 0);
        assertEquals(
                before, detail().getString("endpoint.at"), "a vantage that is not linked says nothing of the machine");
        lead.request().delete("/api/vantages/" + vantage).statusCode(204);
        check(null);
        assertTrue(view().getBoolean("endpoints[0].proven"));
    }
}
