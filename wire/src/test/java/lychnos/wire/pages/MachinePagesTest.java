package lychnos.wire.pages;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.http.HttpServer;
import io.vertx.core.http.HttpServerOptions;
import io.vertx.core.http.HttpServerRequest;
import io.vertx.core.json.JsonObject;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.PageFill;
import lychnos.core.fact.Secret;
import lychnos.lab.Certificates;
import lychnos.wire.dial.Dialler;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;
import lychnos.wire.vantage.LocalVantage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The client of documented interfaces against a server that is well-behaved, and against some that are not. */
class MachinePagesTest {

    private static final String HERE = "127.40.13.5";
    private static final int PORT = 9443;
    private static final MachinePages.Login LOGIN = new MachinePages.Login("curator", Secret.of("over-the-fell"));

    private final Vertx vertx = Vertx.vertx();
    private final LocalVantage vantage =
            new LocalVantage("here", false, new Dialler(() -> List.of(Prefix.parse("127.40.13.0/24")), true), vertx);
    private final List<String> bodies = new CopyOnWriteArrayList<>();
    private final List<String> logins = new CopyOnWriteArrayList<>();
    private HttpServer server;

    @AfterEach
    void close() {
        vantage.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    private MachinePages at(Consumer<HttpServerRequest> answers) throws WireFault {
        serve(answers);
        MachinePages pages = new MachinePages(vantage, "https://" + HERE + "/open", PORT);
        pages.see();
        return pages;
    }

    private void serve(Consumer<HttpServerRequest> answers) {
        server = vertx.createHttpServer(
                new HttpServerOptions().setSsl(true).setKeyCertOptions(Certificates.selfSigned("pages", -1, 30)));
        server.requestHandler(request -> {
            logins.add(String.valueOf(request.getHeader("Authorization")));
            request.body().onSuccess(body -> {
                bodies.add(body.toString());
                answers.accept(request);
            });
        });
        server.listen(PORT, HERE).toCompletionStage().toCompletableFuture().join();
    }

    private static Consumer<HttpServerRequest> json(String text) {
        return request -> request.response().end(text);
    }

    @Test
    void readsTextsNumbersAndSwitchesByTheirPlaces() throws Exception {
        MachinePages pages = at(json(
                "{\"purpose\":\"host data\",\"mtu\":9000,\"on\":true,\"none\":null,\"ports\":[\"a\",{\"b/c\":1}]}"));
        assertEquals(
                Map.of("/purpose", "host data", "/mtu", "9000", "/on", "true", "/ports/0", "a", "/ports/1/b~1c", "1"),
                pages.read("/x", LOGIN));
        assertEquals("https://127.40.13.5:9443", pages.peer());
        assertEquals(List.of("Basic Y3VyYXRvcjpvdmVyLXRoZS1mZWxs"), logins);
    }

    @Test
    void aResourceIsReadAsItIsSent() throws Exception {
        MachinePages pages = at(json("07:01 fan 2 stands still\n07:02 hot\n" + "x".repeat(MachinePages.LONGEST_TEXT)));
        String text = pages.text("/log", LOGIN);
        assertTrue(text.startsWith("07:01 fan 2 stands still\n07:02 hot\n"));
        assertEquals(MachinePages.LONGEST_TEXT, text.length(), "a long one is cut off");
        assertEquals(List.of("Basic Y3VyYXRvcjpvdmVyLXRoZS1mZWxs"), logins);
    }

    @Test
    void writesEachValueAsWhatStandsThereNow() throws Exception {
        MachinePages pages = at(json("{\"mtu\":1500,\"on\":true,\"kept\":\"as it was\",\"name\":\"\",\"ports\":[]}"));
        pages.write(
                "/x",
                LOGIN,
                new PageFill.Entry(
                        Map.of("/mtu", "9000", "/on", "no", "/name", "7", "/ports/1", "b", "/deep/er", "x"),
                        Map.of("/word", Secret.of("sealed-one"))));
        JsonObject sent = new JsonObject(bodies.get(1));
        assertEquals(
                new JsonObject("{\"mtu\":9000,\"on\":false,\"kept\":\"as it "
                        + "was\",\"name\":\"7\",\"ports\":[null,\"b\"],"
                        + "\"deep\":{\"er\":\"x\"},\"word\":\"sealed-one\"}"),
                sent);
    }

    @Test
    void aRefusalIsToldInTheMachinesOwnWords() throws Exception {
        MachinePages pages =
                at(request -> request.response().setStatusCode(422).end("{\"detail\":\"two interfaces or more\"}"));
        PageFault fault = assertThrows(PageFault.class, () -> pages.read("/x", LOGIN));
        assertEquals("two interfaces or more", fault.getMessage());
        assertEquals(422, fault.status());
    }

    @Test
    void aRefusedLogInIsToldFromOtherRefusals() throws Exception {
        MachinePages pages = at(request -> request.response().setStatusCode(401).end());
        PageFault fault = assertThrows(PageFault.class, () -> pages.read("/x", LOGIN));
        assertTrue(fault.refusesLogin());
        assertEquals(WireText.HTTP_STATUS.text(401), fault.getMessage());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "<html>",
                "[1]",
                "\"text\"",
                "{\"a\":",
                "{\"a\":{\"a\":{\"a\":{\"a\":{\"a\":{\"a\":{\"a\":"
                        + "{\"a\":{\"a\":{\"a\":{\"a\":{\"a\":{\"a\":1}}}}}}}}}}}}}"
            })
    void whatIsNoPageIsGarbage(String body) throws Exception {
        MachinePages pages = at(json(body));
        assertEquals(
                WireFault.Kind.GARBAGE,
                assertThrows(WireFault.class, () -> pages.read("/x", LOGIN)).kind());
    }

    @Test
    void aPageOfAThousandValuesIsGarbage() throws Exception {
        StringBuilder body = new StringBuilder("{\"a\":[0");
        for (int i = 1; i < 1000; i++) {
            body.append(',').append(i);
        }
        MachinePages pages = at(json(body + "]}"));
        assertEquals(
                WireFault.Kind.GARBAGE,
                assertThrows(WireFault.class, () -> pages.read("/x", LOGIN)).kind());
    }

    @Test
    void anEndlessAnswerIsCutShort() throws Exception {
        MachinePages pages = at(request -> {
            request.response().setChunked(true);
            for (int i = 0; i < 2000; i++) {
                request.response().write(Buffer.buffer(new byte[1000]));
            }
        });
        assertEquals(
                WireFault.Kind.GARBAGE,
                assertThrows(WireFault.class, () -> pages.read("/x", LOGIN)).kind());
    }

    @Test
    void whoeverTakesTheAddressOverIsToldNothing() throws Exception {
        MachinePages pages = at(json("{}"));
        pages.read("/x", LOGIN);
        server.close().toCompletionStage().toCompletableFuture().join();
        logins.clear();
        serve(json("{}"));
        assertEquals(
                WireFault.Kind.OTHER_CERTIFICATE,
                assertThrows(WireFault.class, () -> pages.read("/x", LOGIN)).kind());
        assertEquals(List.of(), logins, "no log-in reached the other one");
    }

    @Test
    void nothingIsSentBeforeTheCertificateWasLookedAt() {
        serve(json("{}"));
        assertThrows(IllegalStateException.class, () -> new MachinePages(vantage, "https://" + HERE + "/open", PORT)
                .read("/x", LOGIN));
        assertEquals(List.of(), logins);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "http://127.40.13.5/open",
                "https://pages.ardal.example/open",
                "https://127.40.13.5:999999/",
                "ftp://127.40.13.5",
                "127.40.13.5"
            })
    void aPlaceIsAnAddressAndNothingElse(String place) {
        assertThrows(RuntimeException.class, () -> new MachinePages(vantage, place, PORT).see());
    }
}
