package lychnos.server;

import static lychnos.server.http.Request.given;
import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.not;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.test.junit.QuarkusTest;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import lychnos.server.http.Request;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What was tried with slow, large and many requests. */
@QuarkusTest
class LoadAttacksTest extends AttackStage {

    @Test
    void slowSendersHoldNoWorker() throws Exception {
        List<Socket> slow = new ArrayList<>();
        try {
            for (int i = 0; i < 260; i++) {
                Socket socket = new Socket(root.getHost(), root.getPort());
                slow.add(socket);
                String path = i % 2 == 0 ? "/api/session" : "/api/first-lead";
                socket.getOutputStream()
                        .write(("POST " + path
                                        + " HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: "
                                        + "4000\r\n\r\n{")
                                .getBytes(StandardCharsets.US_ASCII));
            }
            // with a worker held by each of them nothing would be answered any more
            for (int i = 0; i < 5; i++) {
                engineer.request().get("/api/bring-ups/" + id + "/prepare").statusCode(200);
            }
            Socket first = slow.get(0);
            first.setSoTimeout(20_000);
            InputStream in = first.getInputStream();
            assertTrue(in.read() < 0 || in.readAllBytes().length >= 0, "the one that never ends is closed");
        } catch (IOException reset) {
            // closed the hard way, which is as good
        } finally {
            for (Socket socket : slow) {
                socket.close();
            }
        }
    }

    @Test
    void aLargeBodyAtAnOpenRouteIsNotRead() {
        given().contentType(Request.JSON)
                .body("{\"login\":\"" + "a".repeat(20_000) + "\"}")
                .post("/api/session")
                .statusCode(413)
                .contentType("application/problem+json");
    }

    /**
     * Tries to sign in from an address of its own: failures hold back every sign-in from their source for a while, also
     * those of the tests that follow.
     *
     * @return the head of the answer
     */
    private String signInFromElsewhere(String login, String password) {
        String body = "{\"login\":\"" + login + "\",\"password\":\"" + password + "\"}";
        try (Socket socket = new Socket(root.getHost(), root.getPort(), InetAddress.getByName("127.0.0.77"), 0)) {
            socket.getOutputStream()
                    .write(("POST /api/session HTTP/1.1\r\nHost: " + root.getAuthority()
                                    + "\r\nContent-Type: application/json\r\nConnection: close\r\nContent-Length: "
                                    + body.length() + "\r\n\r\n" + body)
                            .getBytes(StandardCharsets.UTF_8));
            String answer = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            return answer.substring(0, answer.indexOf("\r\n\r\n"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static int status(String head) {
        return Integer.parseInt(head.split(" ")[1]);
    }

    @Tag("wording")
    @Test
    void aFloodOfSignInsIsToldWhenToComeBackAndTheRightPasswordGetsIn() throws Exception {
        List<String> flood = atOnce(40, i -> signInFromElsewhere("guess-" + id + "-" + i, "wrong password " + i));
        assertTrue(
                flood.stream().allMatch(head -> status(head) == 401 || status(head) == 429),
                () -> flood.stream().map(LoadAttacksTest::status).toList().toString());
        flood.stream()
                .filter(head -> status(head) == 429)
                .forEach(head -> assertTrue(head.toLowerCase(Locale.ROOT).contains("\nretry-after: "), head));
        for (int i = 0; i < 8; i++) {
            assertEquals(401, status(signInFromElsewhere("night-watch", "wrong password " + i)));
        }
        assertEquals(204, status(signInFromElsewhere("night-watch", "only-looking-around")));
        List<String> told = QuarkusTransaction.requiringNew().call(() -> db.createNativeQuery(
                        "select act from journal where act like '%sign-in%' or act like 'signed in%' order by id "
                                + "desc limit 100",
                        String.class)
                .getResultList());
        assertTrue(
                told.stream().anyMatch(act -> act.startsWith("refused"))
                        && told.stream().anyMatch(act -> act.startsWith("signed in")),
                told::toString);
        assertTrue(
                told.stream().filter(act -> act.startsWith("refused a")).count() < 12,
                "failures of a minute are one entry");
    }

    @Test
    void answersAreNotStoredAndMissingFilesNotRemembered() {
        engineer.request().get("/api/bring-ups").header("Cache-Control", "no-store");
        for (String page : List.of("/", "/b/1/prove", "/kinds", "/kinds/server-controller", "/people")) {
            given().get(page)
                    .header("Cache-Control", containsString("no-cache"))
                    .header("Cross-Origin-Resource-Policy", "same-origin");
        }
        given().get("/assets/no-such-file.js")
                .statusCode(404)
                .header("Cache-Control", not(containsString("immutable")));
        given().get("/q/metrics").statusCode(401);
        given().get("/q/openapi").statusCode(401);
    }
}
