package lychnos.wire;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.address.Run;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Verdict;
import lychnos.lab.Controller;
import lychnos.wire.dial.Dialler;
import lychnos.wire.icmp.Echo;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Target;
import lychnos.wire.tcp.PortState;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.junit.jupiter.api.io.TempDir;

/** What plain loopback cannot show: silence, hardware addresses, and two machines at odds over one address. */
@EnabledIfEnvironmentVariable(named = "HALL", matches = ".+", disabledReason = "wants the namespace that ./lychnos test makes")
class HallWireTest {

    private static final Mac FIRST = Mac.parse("02:4c:59:e0:00:01");
    private static final Mac SECOND = Mac.parse("02:4c:59:e0:00:02");
    private static final Address AT = Address.parse("10.40.8.60");

    private static Process hall;
    private static Vertx vertx;
    private static LocalVantage vantage;

    @BeforeAll
    static void open(@TempDir Path directory) throws IOException {
        Path machines = Files.writeString(directory.resolve("hall.txt"), "HW-1 " + FIRST + " 10.40.8.60 -\nHW-2 " + SECOND + " 10.40.8.63 -\n");
        List<String> command = new ArrayList<>(List.of(System.getenv("HALL").split(" ")));
        command.addAll(List.of("java", "-cp", System.getProperty("java.class.path"), "lychnos.lab.Hall", "--machines", machines.toString()));
        Path log = directory.resolve("hall.log");
        hall = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(log.toFile()).start();
        LoopbackHall.until("the hall is ready", () -> {
            try {
                return Files.readString(log).contains("hall ready");
            } catch (IOException e) {
                return false;
            }
        });
        vertx = Vertx.vertx();
        vantage = new LocalVantage("jump", true, new Dialler(() -> List.of(Prefix.parse("10.40.8.0/24")), true), vertx);
    }

    @AfterAll
    static void close() {
        vantage.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
        hall.destroy();
    }

    @Test
    void pingTellsAnswerFromSilence() throws WireFault {
        assertEquals(Echo.State.ANSWERED, vantage.ping(AT, Duration.ofSeconds(2)).state());
        assertEquals(Echo.State.SILENT, vantage.ping(Address.parse("10.40.8.99"), Duration.ofSeconds(1)).state());
    }

    @Test
    void portsAreOpenRefusedOrSilent() throws WireFault {
        assertEquals(PortState.OPEN, vantage.port(AT, 443, Duration.ofSeconds(2)));
        assertEquals(PortState.REFUSED, vantage.port(AT, 23, Duration.ofSeconds(2)));
        assertEquals(PortState.SILENT, vantage.port(Address.parse("10.40.8.99"), 443, Duration.ofSeconds(1)));
    }

    @Test
    void aMachineIsFoundByItsHardwareAddress() throws WireFault {
        Run scope = Run.parse("10.40.8.50-70");
        assertEquals(Optional.of(AT), vantage.findByMac(FIRST, scope, Duration.ofSeconds(5)));
        assertEquals(Optional.of(Address.parse("10.40.8.63")), vantage.findByMac(SECOND, scope, Duration.ofSeconds(5)));
        assertEquals(Optional.empty(), vantage.findByMac(Mac.parse("02:4c:59:e0:00:03"), scope, Duration.ofMillis(600)));
        assertEquals(Optional.of(FIRST), vantage.neighbour(AT));
    }

    private static Verdict climb(Address at, Mac label) throws WireFault {
        Kind.Login factory = new Kind.Login(Controller.FACTORY_USER, Secret.of(Controller.FACTORY_PHRASE));
        Target target = new Target(at, 443, "HW-1", label, LoopbackHall.plan(), new Target.Login(Controller.FACTORY_USER, Secret.of("not-set-yet-at-all")), null, factory, List.of(23));
        return Verdict.of(new Climb(vantage, target, Clock.systemUTC()).climb().outcomes());
    }

    @Test
    void silenceBreaksTheFirstRung() throws WireFault {
        Verdict verdict = climb(Address.parse("10.40.8.98"), FIRST);
        assertEquals(Rung.ANSWERS, verdict.broken());
        assertTrue(verdict.sentence().startsWith("Nothing answers at 10.40.8.98"), verdict.sentence());
    }

    @Test
    void otherHardwareBreaksTheFirstRung() throws WireFault {
        Verdict verdict = climb(AT, SECOND);
        assertEquals(Rung.ANSWERS, verdict.broken());
        assertEquals("10.40.8.60 is answered by " + FIRST + ", the label says " + SECOND + ".", verdict.sentence());
    }

    @Test
    void aPasswordThatIsNotOursStopsAtIdentity() throws WireFault {
        Verdict verdict = climb(AT, FIRST);
        assertEquals(Rung.IDENTITY, verdict.broken());
        assertEquals(4, verdict.height());
    }
}
