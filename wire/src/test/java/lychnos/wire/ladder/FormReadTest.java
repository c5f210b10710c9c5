package lychnos.wire.ladder;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.HttpServerOptions;
import io.vertx.core.http.HttpServerRequest;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.Look;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindChecks;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Outcome.Standing;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Trouble;
import lychnos.core.proof.Verdict;
import lychnos.lab.Certificates;
import lychnos.wire.dial.Dialler;
import lychnos.wire.vantage.LocalVantage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A factory login at the form of a machine's web page, which refuses, lets in, leads on, or says nothing clear. */
class FormReadTest {

    private static final Address AT = Address.parse("127.40.30.31");
    private static final int PORT = 18463;
    private static final String FORM =
            "<title>Fell</title><form><input name=who><input type=password name=word></form>";

    private final Vertx vertx = Vertx.vertx();
    private final LocalVantage vantage =
            new LocalVantage("test", false, new Dialler(() -> List.of(Prefix.parse("127.40.0.0/16")), true), vertx);
    private final List<String> posted = new ArrayList<>();
    private Consumer<HttpServerRequest> answer;

    @BeforeEach
    void serve() {
        vertx.createHttpServer(
                        new HttpServerOptions().setSsl(true).setKeyCertOptions(Certificates.selfSigned("form", -1, 30)))
                .requestHandler(request -> {
                    if (request.method() == HttpMethod.GET && request.path().equals("/")) {
                        request.response().end(FORM);
                    } else if (request.method() == HttpMethod.POST) {
                        request.body().onSuccess(body -> {
                            posted.add(request.path() + " " + body);
                            answer.accept(request);
                        });
                    } else {
                        answer.accept(request);
                    }
                })
                .listen(PORT, AT.toString())
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    @AfterEach
    void close() {
        vantage.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    private Outcome safe() throws Exception {
        Target.FormWay way = new Target.FormWay(
                new KindChecks.WebForm("/enter", "who", "word", Look.parse("Welcome"), Look.parse("Not you")),
                List.of(new Kind.Login("keeper", Secret.of("o&r=r el"))));
        Target target = new Target(
                AT,
                PORT,
                null,
                null,
                List.of(),
                new Target.SignIn(false, new Target.SetUp(Instant.EPOCH, "FE-1", true), null, null, Set.of("web"), way),
                new Target.Names("fell-1.ardal.example", Map.of(), Map.of()));
        Climbed climbed = new Climb(vantage, target, Clock.systemUTC()).climb();
        Outcome safe = climbed.outcomes().get(Rung.SAFE.ordinal());
        assertEquals(
                safe.standing() == Standing.HOLDS,
                Verdict.of(climbed.outcomes()).proven(),
                climbed::toString);
        return safe;
    }

    @Test
    void aPasswordThatIsRefusedIsTriedOnceAndAsAFormIs() throws Exception {
        answer = request -> request.response().end(FORM + "<p>Not you");
        assertEquals(Standing.HOLDS, safe().standing());
        assertEquals(List.of("/enter who=keeper&word=o%26r%3Dr+el"), posted);
    }

    @Test
    void aStatusRefusesAsWell() throws Exception {
        answer = request -> request.response().setStatusCode(401).end();
        assertEquals(Standing.HOLDS, safe().standing());
    }

    @Test
    void aPasswordThatIsTakenBreaksTheRung() throws Exception {
        answer = request -> request.response().end("Welcome");
        assertEquals(Trouble.FACTORY_ACCEPTED, safe().trouble());
    }

    @Test
    void whoIsLetInOnlyBehindARedirectIsLetIn() throws Exception {
        answer = request -> {
            if (request.method() == HttpMethod.POST) {
                request.response()
                        .setStatusCode(303)
                        .putHeader("Location", "/inside")
                        .putHeader("Set-Cookie", "session=7; Secure; HttpOnly")
                        .end();
            } else {
                request.response().end("session=7".equals(request.getHeader("Cookie")) ? "Welcome" : "Not you");
            }
        };
        assertEquals(Trouble.FACTORY_ACCEPTED, safe().trouble());
    }

    @Test
    void whatIsNeitherIsNotTakenForARefusal() throws Exception {
        answer = request -> request.response().setStatusCode(500).end("Something went wrong");
        Outcome safe = safe();
        assertEquals(Trouble.FACTORY_UNCLEAR, safe.trouble());
        assertTrue(safe.parts().toString().contains("keeper"), safe::toString);
    }

    @Test
    void noPasswordIsCarriedToAnotherHost() throws Exception {
        answer = request -> request.response()
                .setStatusCode(307)
                .putHeader("Location", "https://127.40.30.32:18463/enter")
                .end();
        assertEquals(Trouble.FACTORY_UNCLEAR, safe().trouble());
        assertEquals(1, posted.size());
    }
}
