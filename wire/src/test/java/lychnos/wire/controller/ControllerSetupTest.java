package lychnos.wire.controller;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.lang.reflect.Proxy;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.proof.Settings;
import lychnos.core.text.Texts;
import lychnos.lab.Quirk;
import lychnos.wire.LoopbackHall;
import lychnos.wire.controller.ControllerStop.Cause;
import lychnos.wire.fault.WireText;
import lychnos.wire.icmp.Echo;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** The operations of a setup against a stand-in over HTTPS. On loopback MAC addresses cannot be seen. */
class ControllerSetupTest {

    private static final List<Secret> BOTH = List.of(LoopbackHall.FACTORY.phrase(), LoopbackHall.OURS);

    private static ControllerSetup setup(LoopbackHall lab, String serial, Settings settings) {
        return new ControllerSetup(
                lab.vantage,
                LoopbackHall.PORT,
                new ControllerSetup.Wanted(LoopbackHall.MAC, serial, LoopbackHall.FACTORY.user(), settings, "B03 U12"),
                at -> new RedfishClient(lab.vantage, at, LoopbackHall.PORT, null));
    }

    private static ControllerSetup setup(LoopbackHall lab) {
        return setup(lab, LoopbackHall.SERIAL, LoopbackHall.plan());
    }

    private static String identified(LoopbackHall lab, String serial) throws Exception {
        ControllerSetup setup = setup(lab, serial, LoopbackHall.plan());
        try (RedfishClient client = setup.open(LoopbackHall.FIRST)) {
            setup.logIn(client, BOTH).orElseThrow();
            return setup.identify(client, false).evidence();
        }
    }

    @Test
    void aSystemOrAChassisShowsTheSerial() throws Exception {
        String both = WireText.KNOWN_BY_BOTH.text("BF-1", "02:4c:59:a1:00:01");
        try (LoopbackHall lab = new LoopbackHall()) {
            assertEquals(both, identified(lab, LoopbackHall.SERIAL));
        }
        try (LoopbackHall lab = new LoopbackHall(Quirk.CHASSIS_SERIAL)) {
            assertEquals(both, identified(lab, LoopbackHall.SERIAL));
        }
        try (LoopbackHall lab = new LoopbackHall(Quirk.SECOND_MANAGER)) {
            assertEquals(both, identified(lab, LoopbackHall.SERIAL));
        }
    }

    @Test
    void withoutASerialTheMacAddressDecidesAloneAndTheEvidenceSaysSo() throws Exception {
        try (LoopbackHall lab = new LoopbackHall(Quirk.NO_SERIAL)) {
            assertEquals(WireText.KNOWN_BY_MAC.text("02:4c:59:a1:00:01"), identified(lab, LoopbackHall.SERIAL));
        }
        try (LoopbackHall lab = new LoopbackHall()) {
            assertEquals(WireText.KNOWN_BY_MAC_NO_LABEL_SERIAL.text("02:4c:59:a1:00:01"), identified(lab, ""));
        }
    }

    @Test
    void anotherMachineStopsBeforeAnythingIsWritten() throws Exception {
        try (LoopbackHall lab = new LoopbackHall(Quirk.OTHER_SERIAL)) {
            ControllerStop stop = assertThrows(ControllerStop.class, () -> identified(lab, LoopbackHall.SERIAL));
            assertEquals(Cause.ANOTHER_MACHINE, stop.why());
            assertEquals(
                    ControllerText.OTHER_MACHINE.text(WireText.SERIAL_DIFFERS.text("BF-1-X", "BF-1")),
                    stop.getMessage());
            assertEquals(ControllerText.NOTHING_WRITTEN.text("the machine in B03 U12"), stop.advice());
            assertEquals(0, lab.machine().controller().writes());
        }
    }

    @Test
    void oneThatShowsNothingBeforeItsPasswordIsChangedMustBeSeenOnItsSegment() throws Exception {
        try (LoopbackHall lab = new LoopbackHall(Quirk.PASSWORD_CHANGE_REQUIRED)) {
            ControllerStop stop = assertThrows(ControllerStop.class, () -> identified(lab, LoopbackHall.SERIAL));
            assertEquals(Cause.NOT_IDENTIFIED, stop.why());
            ControllerSetup setup = setup(lab);
            try (RedfishClient client = setup.open(LoopbackHall.FIRST)) {
                ControllerSetup.Entry entry = setup.logIn(client, BOTH).orElseThrow();
                assertFalse(setup.identify(client, true).complete());
                assertEquals(Optional.empty(), setup.changePassword(client, entry.account(), LoopbackHall.OURS));
            }
            try (RedfishClient client = setup.open(LoopbackHall.FIRST)) {
                assertEquals(
                        LoopbackHall.OURS,
                        setup.logIn(client, BOTH).orElseThrow().password());
                assertEquals(WireText.KNOWN_BY_BOTH.text("BF-1", "02:4c:59:a1:00:01"), setup.confirm(client));
            }
        }
    }

    @Test
    void eachPasswordIsTriedOnce() throws Exception {
        try (LoopbackHall lab = new LoopbackHall()) {
            ControllerSetup setup = setup(lab);
            try (RedfishClient client = setup.open(LoopbackHall.FIRST)) {
                assertEquals(
                        Optional.empty(), setup.logIn(client, List.of(Secret.of("wrong"), Secret.of("wrong too"))));
            }
            assertEquals(2, lab.machine().controller().refusedLogins());
        }
    }

    /** Writes everything and follows it to its planned address. */
    private static Move move(LoopbackHall lab, Settings settings) throws Exception {
        ControllerSetup setup = setup(lab, LoopbackHall.SERIAL, settings);
        try (RedfishClient client = setup.open(LoopbackHall.FIRST)) {
            setup.logIn(client, BOTH).orElseThrow();
            assertEquals(List.of(), setup.setTime(client));
            setup.refuseUnknownDevice();
            setup.setNetwork(client);
        }
        Move move = setup.moveFrom(LoopbackHall.FIRST);
        LoopbackHall.until("it restarted", () -> lab.machine().restarts() == 1);
        return move;
    }

    private static String readBack(LoopbackHall lab, Settings settings) throws Exception {
        ControllerSetup setup = setup(lab, LoopbackHall.SERIAL, settings);
        try (RedfishClient client = setup.open(LoopbackHall.PLANNED)) {
            setup.logIn(client, BOTH).orElseThrow();
            return setup.readBack(client);
        }
    }

    private static void arrives(Move move) throws Exception {
        for (int looks = 0; !move.arrived(false); looks++) {
            assertTrue(looks < 1_000, "it never arrives");
            java.util.concurrent.locks.LockSupport.parkNanos(5_000_000);
        }
    }

    @Test
    void aPortOfItsOwnVlanIsWrittenFollowedAndReadBack() throws Exception {
        Settings tagged = LoopbackHall.plan().withVlan(410);
        try (LoopbackHall lab = new LoopbackHall()) {
            arrives(move(lab, tagged));
            assertEquals(ControllerText.VALUES_AS_PLANNED.text("10", "10"), readBack(lab, tagged));
        }
        try (LoopbackHall lab = new LoopbackHall(Quirk.NO_VLAN)) {
            arrives(move(lab, tagged));
            ControllerStop stop = assertThrows(ControllerStop.class, () -> readBack(lab, tagged));
            assertEquals(Cause.NOT_AS_PLANNED, stop.why());
            assertTrue(
                    Texts.says(ControllerText.NOT_ALL_ACCEPTED, stop.getMessage())
                            && stop.getMessage().contains("410"),
                    stop::getMessage);
        }
    }

    @Test
    void behindASwitchPortWithoutTheVlanItIsSilent() throws Exception {
        try (LoopbackHall lab = new LoopbackHall(Quirk.UNTAGGED_SWITCH_PORT)) {
            Move move = move(lab, LoopbackHall.plan().withVlan(410));
            LoopbackHall.until("it is gone", () -> lab.machine().address() == null);
            assertFalse(move.arrived(false));
            assertFalse(move.arrived(true));
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = Quirk.class,
            names = {"SECOND_MANAGER", "CHASSIS_SERIAL", "NO_SERIAL", "DHCP_FIRST", "PADDED_LISTS"})
    void whateverItsHabitsEverythingIsReadBack(Quirk quirk) throws Exception {
        try (LoopbackHall lab = new LoopbackHall(quirk)) {
            arrives(move(lab, LoopbackHall.plan()));
            assertEquals(ControllerText.VALUES_AS_PLANNED.text("9", "9"), readBack(lab, LoopbackHall.plan()));
        }
    }

    @Test
    void oneThatComesBackAtItsOldAddressStops() throws Exception {
        try (LoopbackHall lab = new LoopbackHall(Quirk.BACK_AT_OLD)) {
            Move move = move(lab, LoopbackHall.plan());
            ControllerStop stop = assertThrows(ControllerStop.class, () -> arrives(move));
            assertEquals(Cause.BACK_AT_OLD_ADDRESS, stop.why());
        }
    }

    /** A vantage point in the segment of the controller, where something answers at every address. */
    private static Vantage onTheSegment(Mac neighbour) {
        return (Vantage) Proxy.newProxyInstance(
                Vantage.class.getClassLoader(),
                new Class<?>[] {Vantage.class},
                (proxy, method, arguments) -> switch (method.getName()) {
                    case "hearsSilence" -> true;
                    case "ping" -> new Echo(Echo.State.ANSWERED, Duration.ofMillis(1));
                    case "neighbour" -> Optional.of(neighbour);
                    default -> throw new UnsupportedOperationException(method.getName());
                });
    }

    private static ControllerSetup onTheSegmentOf(Mac neighbour) {
        return new ControllerSetup(
                onTheSegment(neighbour),
                LoopbackHall.PORT,
                new ControllerSetup.Wanted(
                        LoopbackHall.MAC,
                        LoopbackHall.SERIAL,
                        LoopbackHall.FACTORY.user(),
                        LoopbackHall.plan(),
                        "B03 U12"),
                at -> {
                    throw new AssertionError("no connection is opened");
                });
    }

    @Test
    void anotherMacAtThePlannedAddressOrAtItsOwnStopsBeforeAConnectionIsOpened() throws Exception {
        ControllerSetup other = onTheSegmentOf(Mac.parse("02:4c:59:00:00:99"));
        ControllerStop taken = assertThrows(ControllerStop.class, other::refuseUnknownDevice);
        assertEquals(Cause.ADDRESS_IN_USE, taken.why());
        ControllerStop another = assertThrows(ControllerStop.class, () -> other.checkMac(LoopbackHall.FIRST));
        assertEquals(Cause.ANOTHER_MACHINE, another.why());
        assertEquals(
                ControllerText.OTHER_MACHINE.text(ControllerText.ANSWERED_BY_ANOTHER.text(
                        "127.40.8.10", "02:4c:59:00:00:99", "02:4c:59:a1:00:01")),
                another.getMessage());

        ControllerSetup own = onTheSegmentOf(LoopbackHall.MAC);
        own.refuseUnknownDevice();
        assertTrue(own.checkMac(LoopbackHall.FIRST));
    }
}
