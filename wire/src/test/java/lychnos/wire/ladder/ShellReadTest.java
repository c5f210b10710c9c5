package lychnos.wire.ladder;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import io.vertx.core.http.HttpServerOptions;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.DialogueStep.Expected;
import lychnos.core.dialogue.Look;
import lychnos.core.dialogue.LookAgain;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Beside;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.OwnValue;
import lychnos.core.proof.Rung;
import lychnos.core.proof.SideMark;
import lychnos.core.proof.Traits;
import lychnos.core.proof.Trouble;
import lychnos.core.proof.Verdict;
import lychnos.lab.Certificates;
import lychnos.wire.dial.Dialler;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ssh.Shell;
import lychnos.wire.vantage.LocalVantage;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.digest.BuiltinDigests;
import org.apache.sshd.common.keyprovider.KeyPairProvider;
import org.apache.sshd.core.CoreModuleProperties;
import org.apache.sshd.server.Environment;
import org.apache.sshd.server.ExitCallback;
import org.apache.sshd.server.SshServer;
import org.apache.sshd.server.auth.keyboard.DefaultKeyboardInteractiveAuthenticator;
import org.apache.sshd.server.channel.ChannelSession;
import org.apache.sshd.server.command.Command;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What a machine tells over SSH, against a server that answers commands, pages, and takes passwords in two ways. */
class ShellReadTest {

    private static final Address AT = Address.parse("127.40.30.22");
    private static final int PORT = 18449;
    private static final Duration PATIENCE = Duration.ofSeconds(8);
    private static final String OURS = "ours-and-nobody-elses";

    private final Vertx vertx = Vertx.vertx();
    private final LocalVantage vantage =
            new LocalVantage("test", false, new Dialler(() -> List.of(Prefix.parse("127.40.0.0/16")), true), vertx);
    private final AtomicInteger attempts = new AtomicInteger();
    private final Map<String, String> answers = new LinkedHashMap<>();
    private String prompt = "fell> ";
    private boolean factoryWorks;
    private SshServer server;
    private String hostKey;

    @BeforeEach
    void serve() throws Exception {
        answers.put("net show", "   oob   10.40.8.20/24\r\n-- more --   hop   10.40.8.1\r\n");
        answers.put("pair show", "left: leads\r\nright: stands by\r\n");
        KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
        generator.initialize(256);
        KeyPair key = generator.generateKeyPair();
        hostKey = KeyUtils.getFingerPrint(BuiltinDigests.sha256, key.getPublic());
        server = SshServer.setUpDefaultServer();
        server.setHost(AT.toString());
        server.setPort(22);
        CoreModuleProperties.TCP_NODELAY.set(server, true);
        server.setKeyPairProvider(KeyPairProvider.wrap(key));
        server.setPasswordAuthenticator((user, phrase, session) -> {
            attempts.incrementAndGet();
            return phrase.equals(OURS) || factoryWorks && phrase.equals("orrel");
        });
        server.setKeyboardInteractiveAuthenticator(DefaultKeyboardInteractiveAuthenticator.INSTANCE);
        server.setShellFactory(channel -> new Talk());
        server.start();
        vertx.createHttpServer(new HttpServerOptions()
                        .setSsl(true)
                        .setKeyCertOptions(Certificates.selfSigned("shell", -1, 30)))
                .requestHandler(request ->
                        request.response().end("<title>Fell</title><form><input type=password name=w></form>"))
                .listen(PORT, AT.toString())
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    @AfterEach
    void close() throws IOException {
        server.stop(true);
        vantage.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    /** Echoes, answers, waits for a space where its answer says so, and shows its prompt. */
    private final class Talk implements Command {
        private InputStream in;
        private OutputStream out;
        private ExitCallback exit;

        @Override
        public void setInputStream(InputStream stream) {
            in = stream;
        }

        @Override
        public void setOutputStream(OutputStream stream) {
            out = stream;
        }

        @Override
        public void setErrorStream(OutputStream stream) {}

        @Override
        public void setExitCallback(ExitCallback callback) {
            exit = callback;
        }

        @Override
        public void start(ChannelSession channel, Environment environment) {
            Thread thread = new Thread(this::talk);
            thread.setDaemon(true);
            thread.start();
        }

        private void say(String text) throws IOException {
            out.write(text.getBytes(StandardCharsets.ISO_8859_1));
            out.flush();
        }

        private void talk() {
            try {
                say("Welcome to the fell.\r\n\r\n" + prompt);
                StringBuilder line = new StringBuilder();
                for (int key = in.read(); key >= 0; key = in.read()) {
                    if (key != '\r') {
                        line.append((char) key);
                        say(String.valueOf((char) key));
                        continue;
                    }
                    say("\r\n");
                    String[] pages = answers.getOrDefault(line.toString(), "no such word\r\n")
                            .split("(?<=-- more --)");
                    for (String page : pages) {
                        say(page);
                        if (page.endsWith("-- more --")) {
                            in.read();
                            say("\r          \r");
                        }
                    }
                    line.setLength(0);
                    say(prompt);
                }
            } catch (IOException e) {
                // the session has ended
            }
            exit.onExit(0);
        }

        @Override
        public void destroy(ChannelSession channel) {}
    }

    private Shell.Script script(String phrase, String... commands) {
        List<Shell.Command> typed = List.of(commands).stream()
                .map(command -> new Shell.Command("/^fell> *$/", command))
                .toList();
        return new Shell.Script(
                "keeper", Secret.of(phrase), hostKey, typed, List.of(new Shell.Press("-- more --", " ")));
    }

    private Shell.Told run(Shell.Script script) throws WireFault {
        return vantage.shell(AT, 22, script, PATIENCE);
    }

    @Test
    void eachCommandGivesWhatItShowed() throws Exception {
        Shell.Told told = run(script(OURS, "net show", "pair show"));
        assertTrue(told.admitted());
        assertEquals(
                List.of("   oob   10.40.8.20/24\n   hop   10.40.8.1", "left: leads\nright: stands by"), told.outputs());
    }

    @Test
    void aRefusedPasswordWasTriedOnceAlthoughThereAreTwoWays() throws Exception {
        assertFalse(run(script("somebody-elses-9")).admitted());
        assertEquals(1, attempts.get());
    }

    @Test
    void noPasswordGoesToAnotherHostKey() {
        hostKey = "SHA256:another";
        assertEquals(
                WireFault.Kind.OTHER_CERTIFICATE,
                assertThrows(WireFault.class, () -> run(script(OURS, "net show")))
                        .kind());
        assertEquals(0, attempts.get());
    }

    @Test
    void aMachineWithoutItsPromptIsToldInTime() {
        prompt = "elsewhere> ";
        WireFault fault = assertThrows(
                WireFault.class, () -> vantage.shell(AT, 22, script(OURS, "net show"), Duration.ofSeconds(3)));
        assertEquals(WireFault.Kind.SILENT, fault.kind());
        assertTrue(fault.getMessage().contains("elsewhere>"), fault.getMessage());
    }

    @Test
    void pagesWithoutEndAreGivenUp() {
        answers.put("net show", "-- more --".repeat(300) + "\r\n");
        assertEquals(
                WireFault.Kind.GARBAGE,
                assertThrows(
                                WireFault.class,
                                () -> vantage.shell(AT, 22, script(OURS, "net show"), Duration.ofSeconds(60)))
                        .kind());
    }

    // --- the ladder ---

    private Climbed climb(String address, String leads, Map<String, String> accepted) throws Exception {
        return climb(address, leads, accepted, List.of());
    }

    private Climbed climb(String address, String leads, Map<String, String> accepted, List<Target.Login> also)
            throws Exception {
        Look oob = Look.parse("/oob +(\\S+)/");
        LookAgain asks = new LookAgain(
                List.of(
                        new LookAgain.Command(
                                "shows what it keeps",
                                Look.parse("/^fell> *$/"),
                                "net show",
                                List.of(),
                                Map.of(oob, address),
                                Map.of(oob, "address"),
                                ""),
                        new LookAgain.Command(
                                "who leads",
                                Look.parse("/^fell> *$/"),
                                "pair show",
                                List.of(
                                        new Expected(Look.parse(leads), true),
                                        new Expected(Look.parse("no downlinks"), false)),
                                Map.of(),
                                Map.of(),
                                "")),
                Map.of(Look.parse("-- more --"), " "),
                Map.of(
                        OwnValue.FIRMWARE, Look.parse("/runs +(\\S+)/"),
                        OwnValue.CLOCK, Look.parse("/utc +(\\S+)/")));
        Target.ShellWay way = new Target.ShellWay(
                new Target.Login("keeper", Secret.of(OURS)),
                List.of(new Kind.Login("watch", Secret.of("orrel"))),
                asks,
                also);
        Target.SignIn signIn = new Target.SignIn(
                true, new Target.SetUp(Instant.EPOCH, "FE-1", true), null, way, Set.of("ssh", "console", "web"));
        Target target = new Target(
                AT,
                PORT,
                null,
                null,
                Target.Ports.closed(List.of()),
                "",
                signIn,
                new Target.Names("fell-1.ardal.example", Map.of(), Map.of()),
                new Target.Known(null, Map.of(), accepted, List.of()));
        return new Climb(vantage, target, Clock.systemUTC()).climb();
    }

    private static void breaks(Climbed climbed, Rung rung, Trouble trouble, String words) {
        Outcome outcome = climbed.outcomes().get(rung.ordinal());
        assertEquals(rung, Verdict.of(climbed.outcomes()).broken(), climbed::toString);
        assertEquals(trouble, outcome.trouble(), climbed::toString);
        assertTrue(outcome.seen().contains(words), outcome::seen);
    }

    @Test
    void aFurtherAccountMustBeLetIn() throws Exception {
        Target.Login reader = new Target.Login("reader", Secret.of(OURS));
        Climbed climbed = climb("10.40.8.20/24", "left: leads", Map.of(), List.of(reader));
        assertTrue(Verdict.of(climbed.outcomes()).proven(), climbed::toString);
        assertEquals(3, attempts.get(), "ours, the reader's and the factory's");
        Target.Login visitor = new Target.Login("visitor", Secret.of("not-the-password"));
        breaks(
                climb("10.40.8.20/24", "left: leads", Map.of(), List.of(reader, visitor)),
                Rung.AS_PLANNED,
                Trouble.ACCOUNT_REFUSED,
                "visitor");
    }

    @Test
    void whatItKeepsAndWhoLeadsIsReadBack() throws Exception {
        Climbed climbed = climb("10.40.8.20/24", "left: leads", Map.of());
        assertTrue(Verdict.of(climbed.outcomes()).proven(), climbed::toString);
        assertEquals("left: leads", climbed.traits().get(Traits.STATE + "who leads"));
        assertEquals("10.40.8.20/24", climbed.traits().get(Traits.SETTING + "address"));
        assertEquals(2, attempts.get(), "ours once, the factory's once");
        Outcome safe = climbed.outcomes().get(Rung.SAFE.ordinal());
        assertEquals(Outcome.Standing.NOT_MEASURED, safe.standing(), "only one of three ways in was tried");
        assertEquals(
                LadderText.FACTORY_REFUSED.text() + "; "
                        + LadderText.LOGINS_NOT_TRIED.text(
                                LadderText.LOGIN.text("console") + ", " + LadderText.LOGIN.text("web")),
                safe.seen());
        assertEquals("refused", climbed.traits().get(Traits.FACTORY));
    }

    @Test
    void anotherValueOrStateBreaksTheRungUnlessItWasAccepted() throws Exception {
        breaks(
                climb("10.40.8.21/24", "left: leads", Map.of()),
                Rung.AS_PLANNED,
                Trouble.NOT_AS_PLANNED,
                "10.40.8.21/24");
        breaks(
                climb("10.40.8.20/24", "right: leads", Map.of()),
                Rung.AS_PLANNED,
                Trouble.NOT_IN_STATE,
                LadderText.OUTPUT_LACKS.text("right: leads"));
        Climbed accepted = climb("10.40.8.21/24", "left: leads", Map.of(Traits.SETTING + "address", "10.40.8.20/24"));
        assertTrue(Verdict.of(accepted.outcomes()).proven(), accepted::toString);
    }

    @Test
    void firmwareAndClockAreReadWhereTheOutputShowsThem() throws Exception {
        Climbed silent = climb("10.40.8.20/24", "left: leads", Map.of());
        assertNull(silent.firmware(), "it does not show one");
        assertTrue(
                silent.outcomes().get(Rung.AS_PLANNED.ordinal()).parts().stream()
                        .anyMatch(part ->
                                part.name().equals("firmware") && part.standing() == Outcome.Standing.NOT_MEASURED),
                "which is said");
        String shows = answers.get("net show");
        answers.put("net show", shows + "  runs 2.6.1\r\n  utc " + Instant.now() + "\r\n");
        Climbed telling = climb("10.40.8.20/24", "left: leads", Map.of());
        assertEquals("2.6.1", telling.firmware());
        assertEquals("2.6.1", telling.traits().get(Traits.FIRMWARE));
        assertEquals(Outcome.Standing.HOLDS, time(telling).standing());
        answers.put("net show", shows + "  runs 2.6.1\r\n  utc " + Instant.now().minusSeconds(10_800) + "\r\n");
        Climbed late = climb("10.40.8.20/24", "left: leads", Map.of());
        assertEquals(Trouble.CLOCK_OFF, time(late).trouble());
        assertFalse(Verdict.of(late.outcomes(), late.beside()).proven());
    }

    private static Beside time(Climbed climbed) {
        return climbed.beside().stream()
                .filter(mark -> mark.mark() == SideMark.TIME)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aFactoryPasswordThatWorksOverSshBreaksTheLastRung() throws Exception {
        factoryWorks = true;
        breaks(
                climb("10.40.8.20/24", "left: leads", Map.of()),
                Rung.SAFE,
                Trouble.FACTORY_ACCEPTED,
                LadderText.AS_USER_OVER_SSH.text("watch"));
    }
}
