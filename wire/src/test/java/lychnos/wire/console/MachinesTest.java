package lychnos.wire.console;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import lychnos.lab.console.ConsoleSpec;
import lychnos.lab.console.Habit;
import org.junit.jupiter.api.Test;

/** Every machine is set up on its line as it should be. */
class MachinesTest extends LinesStage {

    @Test
    void aPairIsSetUpAndPairs() throws Exception {
        ConsoleSpec left = spec("orrel", 1, "left");
        ConsoleSpec right = spec("orrel", 101, "right");
        power(left, right);
        Engineer atRight = engineer(right);
        Engineer atLeft = engineer(left).with(atRight);
        atRight.begin();
        atLeft.begin();
        assertEquals(null, atLeft.end(40));
        assertEquals(null, atRight.end(40));
        assertEquals("127.40.9.2/24", hall.kept("MB-1", "oob"));
        assertEquals("yes", hall.kept("MB-101", "paired"));
        assertEquals("", hall.kept("MB-1", "seen.refusedLogins"));
    }

    @Test
    void aControllerIsSetUp() throws Exception {
        ConsoleSpec one = spec("sallow", 3, "1");
        power(one);
        assertEquals(null, engineer(one).begin().end(40));
        assertEquals("10.45.0.0/16", hall.kept("MB-3", "overlay"));
        assertEquals("1", hall.kept("MB-3", "seen.restarts"));
    }

    @Test
    void aHostIsSetUpWithCursorKeys() throws Exception {
        ConsoleSpec host = spec("greenup", 4, "1");
        power(host);
        assertNull(engineer(host).begin().end(60));
        assertEquals("127.40.9.5/24", hall.kept("MB-4", "IPv4 address"));
        assertEquals("ard-one-5.ardal.example", hall.kept("MB-4", "Full name"));
        assertEquals("2", hall.kept("MB-4", "seen.logins"));
    }

    @Test
    void aGatewayTakesNothingOfWhatItSuggestsAndTurnsItsPages() throws Exception {
        ConsoleSpec gateway = spec("brathay", 5, "1");
        power(gateway);
        assertNull(engineer(gateway).begin().end(40));
        assertEquals("127.40.9.6/24", hall.kept("MB-5", "address"));
        assertEquals("5", hall.kept("MB-5", "priority"), "it suggests 8");
        assertEquals("no", hall.kept("MB-5", "diagnostics"), "it suggests yes");
        assertEquals("1", hall.kept("MB-5", "seen.restarts"));
        assertEquals("", hall.kept("MB-5", "seen.refusedLogins"));
    }

    @Test
    void anArrayForFilesJoinsItsDirectory() throws Exception {
        ConsoleSpec array = spec("skeggle", 6, "1");
        power(array);
        assertNull(engineer(array).begin().end(40));
        assertEquals("storage-team", hall.kept("MB-6", "group"));
        assertEquals("416", hall.kept("MB-6", "vlan"));
        assertEquals("", hall.kept("MB-6", "seen.refusedLogins"));
    }

    @Test
    void ofAChassisOnlyTheActiveControllerIsAskedAnything() throws Exception {
        ConsoleSpec first = spec("wythop", 7, "1", Habit.STANDS_BY);
        ConsoleSpec second = spec("wythop", 107, "2", Habit.STANDS_BY);
        power(first, second);
        Engineer atFirst = engineer(first);
        Engineer atSecond = engineer(second).with(atFirst);
        atFirst.begin();
        atSecond.begin();
        assertNull(atSecond.end(40));
        assertNull(atFirst.end(40));
        assertEquals("", hall.kept("MB-7", "seen.logins"), "the one that stands by is not logged in to");
        assertEquals("2", hall.kept("MB-107", "seen.logins"));
        assertEquals(hall.kept("MB-107", "common.ipv4"), hall.kept("MB-7", "common.ipv4"));
        assertTrue(hall.kept("MB-107", "bay2.ipv6").endsWith("/64"), "its address of version 6 was set too");
    }

    @Test
    void aControllerIsSetAtTheScreenOfItsServer() throws Exception {
        ConsoleSpec server = spec("ullock", 8, "1");
        power(server);
        assertNull(engineer(server).begin().end(60));
        assertEquals("127.40.9.9", hall.kept("MB-8", "controller.Address"));
        assertEquals("", hall.kept("MB-8", "host.Address"), "the page that looks alike was left alone");
        assertEquals("2", hall.kept("MB-8", "seen.logins"));
    }

    @Test
    void aWirelessControllerIsSetUpAndReachesItsGateway() throws Exception {
        ConsoleSpec wireless = spec("mungris", 9, "1");
        power(wireless);
        assertNull(engineer(wireless).begin().end(40));
        assertEquals("127.40.9.10/24", hall.kept("MB-9", "address"));
        assertEquals("untagged", hall.kept("MB-9", "tag"));
        assertEquals("127.47.66.9", hall.kept("MB-9", "redirect"));
    }
}
