package lychnos.wire.redfish;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Secret;
import lychnos.core.proof.Settings;
import lychnos.lab.Quirk;
import lychnos.wire.LoopbackHall;
import lychnos.wire.fault.WireFault;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** A whole setup over real HTTPS against a stand-in, once for every habit that it can have. */
class RedfishQuirksTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "ETAG_REQUIRED",
                "ETAG_REQUIRED WEAK_ETAG",
                "NO_ETAG",
                "PASSWORD_CHANGE_REQUIRED",
                "DHCP_FIRST",
                "TASKS",
                "DIES_ON_MOVE",
                "PADDED_LISTS",
                "PASSWORD_CHANGE_REQUIRED ETAG_REQUIRED DHCP_FIRST TASKS DIES_ON_MOVE PADDED_LISTS",
                "NO_ETAG DHCP_FIRST DIES_ON_MOVE",
                "NO_SESSIONS",
                "NO_SESSIONS PASSWORD_CHANGE_REQUIRED ETAG_REQUIRED",
                "MISSING_CHASSIS",
                "NO_FULL_NAME",
                "NO_FULL_NAME DHCP_FIRST ETAG_REQUIRED",
                "NO_TIME_SERVICE NO_SESSIONS",
                "NO_PROTOCOL_SETTINGS",
            })
    void survives(String words) throws Exception {
        Quirk[] quirks = words.isEmpty()
                ? new Quirk[0]
                : java.util.Arrays.stream(words.split(" ")).map(Quirk::valueOf).toArray(Quirk[]::new);
        try (LoopbackHall lab = new LoopbackHall(quirks)) {
            setUp(lab);
            LoopbackHall.until(
                    "it moved",
                    () -> LoopbackHall.PLANNED.toString().equals(lab.machine().address()));
            try (RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.PLANNED, LoopbackHall.PORT, null)) {
                client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.OURS);
                Settings found = new Controller(client, LoopbackHall.MAC).settings();
                assertEquals(
                        List.of(),
                        LoopbackHall.plan().compare(found).stream()
                                .filter(field -> !field.agrees())
                                .toList());
            }
            assertEquals(1, lab.machine().controller().passwordChanges());
            assertEquals(1, lab.machine().restarts());
        }
    }

    /** What it does not have is neither written nor compared, and is named. */
    @ParameterizedTest
    @CsvSource({
        "NO_FULL_NAME, full name",
        "NO_TIME_SERVICE, 'time servers, NTP'",
        "NO_PROTOCOL_SETTINGS, 'time servers, NTP'"
    })
    void saysWhatAControllerDoesNotShow(Quirk quirk, String titles) throws Exception {
        try (LoopbackHall lab = new LoopbackHall(quirk);
                RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.FIRST, LoopbackHall.PORT, null)) {
            client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.FACTORY.phrase());
            Controller controller = new Controller(client, LoopbackHall.MAC);
            assertEquals(titles, controller.settings().notShownTitles());
            List<String> warnings = quirk == Quirk.NO_FULL_NAME
                    ? controller.setNetwork(LoopbackHall.plan())
                    : controller.setTime(LoopbackHall.plan().timeServers());
            assertEquals(1, warnings.size(), warnings::toString);
        }
    }

    @Test
    void aFixedIpv6AddressIsWrittenAndReadBack() throws Exception {
        Address six = Address.parse("fd40:a4da:1:8::65");
        Settings plan = LoopbackHall.plan()
                .withIpv6(new Settings.Ipv6(six, 64, Address.parse("fd40:a4da:1:8::1")))
                .withNameServers(List.of("127.40.8.3", "fd40:a4da:1:8::3"));
        try (LoopbackHall lab = new LoopbackHall()) {
            try (RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.FIRST, LoopbackHall.PORT, null)) {
                client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.FACTORY.phrase());
                Controller controller = new Controller(client, LoopbackHall.MAC);
                assertEquals(
                        List.of("IPv6 address", "IPv6 gateway"),
                        plan.compare(controller.settings()).stream()
                                .filter(field -> !field.agrees() && field.name().startsWith("IPv6"))
                                .map(Settings.Field::name)
                                .toList());
                controller.setTime(plan.timeServers());
                controller.setNetwork(plan);
            }
            LoopbackHall.until("it answers over IPv6", () -> six.toString()
                    .equals(lab.machine().address6()));
            try (RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.PLANNED, LoopbackHall.PORT, null)) {
                client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.FACTORY.phrase());
                assertEquals(
                        "", Settings.differences(plan.compare(new Controller(client, LoopbackHall.MAC).settings())));
            }
        }
    }

    private static void setUp(LoopbackHall lab) throws Exception {
        try (RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.FIRST, LoopbackHall.PORT, null)) {
            Optional<String> account = client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.FACTORY.phrase());
            new Controller(client, LoopbackHall.MAC)
                    .setPassword(LoopbackHall.FACTORY.user(), account.orElse(null), LoopbackHall.OURS);
        }
        try (RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.FIRST, LoopbackHall.PORT, null)) {
            client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.OURS);
            Controller controller = new Controller(client, LoopbackHall.MAC);
            assertTrue(controller.identity().serials().contains(LoopbackHall.SERIAL));
            controller.setTime(LoopbackHall.plan().timeServers());
            try {
                controller.setNetwork(LoopbackHall.plan());
            } catch (WireFault e) {
                assertEquals(
                        WireFault.Kind.UNKNOWN_OUTCOME,
                        e.kind(),
                        "an address that moves may cut the connection, and nothing else");
            }
        }
    }

    @Test
    void aMachineComesBackFromAPowerCutAsItWas(@TempDir Path state) throws Exception {
        Settings before;
        String certificate;
        try (LoopbackHall lab = new LoopbackHall(state)) {
            setUp(lab);
            LoopbackHall.until(
                    "it moved",
                    () -> LoopbackHall.PLANNED.toString().equals(lab.machine().address()));
            try (RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.PLANNED, LoopbackHall.PORT, null)) {
                client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.OURS);
                before = new Controller(client, LoopbackHall.MAC).settings();
                certificate = client.fingerprint();
            }
        }
        try (LoopbackHall lab = new LoopbackHall(state);
                RedfishClient client =
                        new RedfishClient(lab.vantage, LoopbackHall.PLANNED, LoopbackHall.PORT, certificate)) {
            client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.OURS);
            assertEquals(before, new Controller(client, LoopbackHall.MAC).settings());
            assertEquals(1, lab.machine().restarts(), "a power cut is no restart of its own");
        }
    }

    @Test
    void oneThatNeverComesBackDoesNotAfterAPowerCutEither(@TempDir Path state) throws Exception {
        try (LoopbackHall lab = new LoopbackHall(state, Quirk.NEVER_BACK)) {
            setUp(lab);
            LoopbackHall.until("it is gone", () -> lab.machine().address() == null);
        }
        try (LoopbackHall lab = new LoopbackHall(state, Quirk.NEVER_BACK)) {
            assertNull(lab.machine().address());
        }
    }

    @Test
    void aWarningIsNotTakenForSuccess() throws Exception {
        try (LoopbackHall lab = new LoopbackHall(Quirk.FORGETS_TIME);
                RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.FIRST, LoopbackHall.PORT, null)) {
            client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.FACTORY.phrase());
            assertEquals(
                    List.of("NTP: Not updated."),
                    new Controller(client, LoopbackHall.MAC).setTime(List.of("127.40.8.6")));
        }
    }

    @Test
    void aSecretNeverReachesAnotherCertificate() throws Exception {
        try (LoopbackHall lab = new LoopbackHall()) {
            RedfishClient client =
                    new RedfishClient(lab.vantage, LoopbackHall.FIRST, LoopbackHall.PORT, "ab".repeat(32));
            WireFault fault =
                    assertThrows(WireFault.class, () -> client.logIn(LoopbackHall.FACTORY.user(), Secret.of("wrong")));
            assertEquals(WireFault.Kind.OTHER_CERTIFICATE, fault.kind());
            assertEquals(0, lab.machine().controller().refusedLogins(), "it was never asked");
        }
    }

    @Test
    void aWrongPasswordIsARefusalWithItsStatus() throws Exception {
        try (LoopbackHall lab = new LoopbackHall();
                RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.FIRST, LoopbackHall.PORT, null)) {
            RedfishFault fault = assertThrows(
                    RedfishFault.class, () -> client.logIn(LoopbackHall.FACTORY.user(), Secret.of("wrong")));
            assertEquals(401, fault.status());
            assertFalse(client.loggedIn());
            assertEquals(1, lab.machine().controller().refusedLogins(), "one attempt is one attempt");
        }
    }
}
