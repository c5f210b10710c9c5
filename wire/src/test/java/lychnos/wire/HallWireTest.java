package lychnos.wire;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Trouble;
import lychnos.core.proof.Verdict;
import lychnos.core.text.Texts;
import lychnos.lab.Controller;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Climbed;
import lychnos.wire.ladder.Target;
import lychnos.wire.redfish.ServiceRoot;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.LocalVantage;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.junit.jupiter.api.io.TempDir;

/** What plain loopback cannot show: silence, MAC addresses, and two machines at odds over one address. */
@EnabledIfEnvironmentVariable(
        named = "HALL",
        matches = ".+",
        disabledReason = "wants the namespace that ./lychnos test makes")
class HallWireTest {

    private static final Mac FIRST = Mac.parse("02:4c:59:e0:00:01");
    private static final Mac SECOND = Mac.parse("02:4c:59:e0:00:02");
    private static final Address AT = Address.parse("10.40.8.60");

    private static HallOnTheWire hall;
    private static LocalVantage vantage;

    @BeforeAll
    static void open(@TempDir Path directory) throws IOException {
        hall = new HallOnTheWire(directory, "HW-1 " + FIRST + " 10.40.8.60 -\nHW-2 " + SECOND + " 10.40.8.63 -\n");
        vantage = hall.jump;
    }

    @AfterAll
    static void close() throws InterruptedException {
        hall.close();
    }

    @Test
    void pingTellsAnswerFromSilence() throws WireFault {
        assertEquals(
                Echo.State.ANSWERED, vantage.ping(AT, Duration.ofSeconds(2)).state());
        assertEquals(
                Echo.State.SILENT,
                vantage.ping(Address.parse("10.40.8.99"), Duration.ofSeconds(1)).state());
    }

    @Test
    void portsAreOpenRefusedOrSilent() throws WireFault {
        assertEquals(PortState.OPEN, vantage.port(AT, 443, Duration.ofSeconds(2)));
        assertEquals(PortState.REFUSED, vantage.port(AT, 23, Duration.ofSeconds(2)));
        assertEquals(PortState.SILENT, vantage.port(Address.parse("10.40.8.99"), 443, Duration.ofSeconds(1)));
    }

    @Test
    void aMachineIsFoundByItsHardwareAddress() throws WireFault {
        AddressRun scope = AddressRun.parse("10.40.8.50-70");
        assertEquals(Optional.of(AT), vantage.findByMac(FIRST, scope, Duration.ofSeconds(5)));
        assertEquals(Optional.of(Address.parse("10.40.8.63")), vantage.findByMac(SECOND, scope, Duration.ofSeconds(5)));
        assertEquals(
                Optional.empty(), vantage.findByMac(Mac.parse("02:4c:59:e0:00:03"), scope, Duration.ofMillis(600)));
        assertEquals(Optional.of(FIRST), vantage.neighbour(AT));
    }

    @Test
    void aControllerTellsWhatItIsBeforeAnybodyLogsIn() {
        assertEquals(
                Optional.of(new ServiceRoot("1.17.0", "Brackenfell C4 controller")),
                ServiceRoot.at(vantage, AT, ServiceRoot.PORT, Duration.ofSeconds(5)));
        assertEquals(
                Optional.empty(),
                ServiceRoot.at(vantage, Address.parse("10.40.8.99"), ServiceRoot.PORT, Duration.ofSeconds(1)));
    }

    private static Verdict climb(Address at, Mac label) throws WireFault {
        Kind.Login factory = new Kind.Login(Controller.FACTORY_USER, Secret.of(Controller.FACTORY_PHRASE));
        Target target = new Target(
                at,
                443,
                "HW-1",
                label,
                LoopbackHall.plan(),
                new Target.Login(Controller.FACTORY_USER, Secret.of("not-set-yet-at-all")),
                null,
                factory,
                List.of(23));
        return Verdict.of(new Climb(vantage, target, Clock.systemUTC()).climb().outcomes());
    }

    @Test
    void manyArePingedAtOnce() throws WireFault {
        List<Address> all = new ArrayList<>();
        for (int i = 32; i < 232; i++) {
            all.add(Address.parse("10.40.8." + i));
        }
        Map<Address, Echo> echoes = vantage.sweep(all, Duration.ofMillis(700));
        assertEquals(200, echoes.size());
        List<Address> answered = echoes.entrySet().stream()
                .filter(each -> each.getValue().state() == Echo.State.ANSWERED)
                .map(Map.Entry::getKey)
                .sorted()
                .toList();
        assertEquals(List.of(AT, Address.parse("10.40.8.63")), answered);
        assertTrue(echoes.get(AT).roundTrip().toMillis() < 700);
        assertEquals(
                WireFault.Kind.NOT_DECLARED,
                assertThrows(
                                WireFault.class,
                                () -> vantage.sweep(List.of(AT, Address.parse("10.40.9.7")), Duration.ofMillis(100)))
                        .kind());
    }

    @Test
    void whoeverClaimsAnIpv6AddressIsHeard() throws Exception {
        Address six = Address.parse("fd40:a4da:1:8::60");
        assertEquals(List.of(), vantage.claimants(six));
        hall.does("ip", "addr", "add", six + "/128", "dev", "m0", "nodad");
        try {
            assertEquals(List.of(FIRST), vantage.claimants(six));
            assertEquals(Optional.of(FIRST), vantage.neighbour(six));
            hall.does("ip", "addr", "add", six + "/128", "dev", "m1", "nodad");
            assertEquals(Set.of(FIRST, SECOND), Set.copyOf(vantage.claimants(six)));
            Verdict verdict = climb(six, FIRST);
            assertTrue(
                    Texts.says(Trouble.TWO_MACHINES, verdict.sentence())
                            && verdict.sentence().contains(six.toString()),
                    verdict.sentence());
            hall.does("ip", "addr", "del", six + "/128", "dev", "m1");
        } finally {
            hall.does("ip", "addr", "del", six + "/128", "dev", "m0");
            HallOnTheWire.forgetNeighbour(six);
        }
    }

    @Test
    void whoeverClaimsAnAddressIsHeard() throws Exception {
        assertEquals(List.of(FIRST), vantage.claimants(AT));
        assertEquals(List.of(), vantage.claimants(Address.parse("10.40.8.98")));
        // somebody gives a second machine the first one's address
        hall.does("ip", "addr", "add", "10.40.8.60/32", "dev", "m1");
        try {
            assertEquals(Set.of(FIRST, SECOND), Set.copyOf(vantage.claimants(AT)));
            Verdict verdict = climb(AT, FIRST);
            assertEquals(Rung.ANSWERS, verdict.broken());
            assertTrue(
                    Texts.says(Trouble.TWO_MACHINES, verdict.sentence())
                            && verdict.sentence().contains("10.40.8.60"),
                    verdict.sentence());
        } finally {
            hall.does("ip", "addr", "del", "10.40.8.60/32", "dev", "m1");
            HallOnTheWire.forgetNeighbour(AT);
        }
    }

    @Test
    void aControllerAnswersAPresencePing() throws WireFault {
        assertTrue(vantage.presence(AT, Duration.ofSeconds(2)).ipmi());
        assertEquals(
                WireFault.Kind.SILENT,
                assertThrows(
                                WireFault.class,
                                () -> vantage.presence(Address.parse("10.40.8.98"), Duration.ofMillis(400)))
                        .kind());
    }

    /** Its certificate tells it, wherever it stands. */
    @Test
    void aMachineThatAnswersElsewhereTooIsTold() throws Exception {
        Target.Redfish service = new Target.Redfish(
                "HW-1",
                FIRST,
                here(),
                new Target.Login(Controller.FACTORY_USER, Secret.of(Controller.FACTORY_PHRASE)),
                new Kind.Login("nobody", Secret.of("nothing-at-all")));
        Target target =
                new Target(AT, 443, FIRST, null, List.of(23), service, new Target.Names("", Map.of(), Map.of()));
        Map<Address, String> elsewhere = Map.of(Address.parse("10.40.8.61"), "where it was before its setup");
        assertEquals(
                null,
                new Climb(
                                vantage,
                                target.knowing(new Target.Known(null, elsewhere, Map.of(), List.of())),
                                Clock.systemUTC())
                        .climb()
                        .outcomes()
                        .get(6)
                        .trouble());
        hall.does("ip", "addr", "add", "10.40.8.61/32", "dev", "m0");
        try {
            Climbed climbed = new Climb(
                            vantage,
                            target.knowing(new Target.Known(null, elsewhere, Map.of(), List.of())),
                            Clock.systemUTC())
                    .climb();
            assertEquals(Trouble.ELSEWHERE, climbed.outcomes().get(6).trouble(), climbed.outcomes()::toString);
        } finally {
            hall.does("ip", "addr", "del", "10.40.8.61/32", "dev", "m0");
        }
    }

    /** What the stand-in leaves the factory with. */
    private static Settings here() {
        return new Settings(
                AT, Address.parse("255.255.255.0"), null, true, "lc-unset", "lc-unset", List.of(), List.of(), false);
    }

    @Test
    void silenceBreaksTheFirstRung() throws WireFault {
        Verdict verdict = climb(Address.parse("10.40.8.98"), FIRST);
        assertEquals(Rung.ANSWERS, verdict.broken());
        assertTrue(verdict.sentence().equals(Trouble.SILENT.sentence("10.40.8.98")), verdict.sentence());
    }

    @Test
    void otherHardwareBreaksTheFirstRung() throws WireFault {
        Verdict verdict = climb(AT, SECOND);
        assertEquals(Rung.ANSWERS, verdict.broken());
        assertTrue(Texts.says(Trouble.OTHER_HARDWARE, verdict.sentence()), verdict.sentence());
        assertTrue(
                verdict.sentence().contains(FIRST.toString())
                        && verdict.sentence().contains(SECOND.toString()),
                verdict.sentence());
    }

    @Test
    void aPasswordThatIsNotOursStopsAtIdentity() throws WireFault {
        Verdict verdict = climb(AT, FIRST);
        assertEquals(Rung.IDENTITY, verdict.broken(), verdict::toString);
        assertEquals(4, verdict.height());
    }
}
