package lychnos.wire.console;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import lychnos.core.dialogue.Hold;
import lychnos.lab.console.ConsoleSpec;
import lychnos.lab.console.Habit;
import org.junit.jupiter.api.Test;

/** Every machine is set up on its line as it should be. */
class MachinesTest extends LinesStage {

    @Test
    void aPairIsSetUpAndPairs() throws Exception {
        ConsoleSpec left = spec("orrel", 1, "left");
        ConsoleSpec right = right();
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

    /** The right one of the pair whose left one has the number 1, at the port behind that one's. */
    private static ConsoleSpec right(Habit... habits) {
        ConsoleSpec other = spec("orrel", 101, "right", habits);
        return new ConsoleSpec(
                other.model(),
                other.serial(),
                other.mac(),
                4002,
                other.group(),
                other.place(),
                other.first(),
                other.habits());
    }

    @Test
    void whatTheRightOneTakesOverIsCompared() throws Exception {
        ConsoleSpec left = spec("orrel", 1, "left");
        ConsoleSpec right = right(Habit.FETCHES_OTHER);
        power(left, right);
        Engineer atRight = engineer(right);
        Engineer atLeft = engineer(left).with(atRight);
        atRight.begin();
        atLeft.begin();
        Hold hold = atRight.end(40);
        assertEquals(Hold.Why.DIFFERS, hold.why());
        assertTrue(hold.shown().contains("policy 1"), hold::shown);
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
        assertEquals("3", hall.kept("MB-4", "seen.logins"), "before and after the installation, and at the end");
        assertEquals("1", hall.kept("MB-4", "seen.agentRestarts"));
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
        assertEquals(Planned.refusedLogins("brathay"), hall.kept("MB-5", "seen.refusedLogins"));
    }

    @Test
    void anArrayForFilesJoinsItsDirectory() throws Exception {
        ConsoleSpec array = spec("skeggle", 6, "1");
        power(array);
        assertNull(engineer(array).begin().end(40));
        assertEquals("storage-team", hall.kept("MB-6", "group"));
        assertEquals("416", hall.kept("MB-6", "vlan"));
        assertEquals(Planned.refusedLogins("skeggle"), hall.kept("MB-6", "seen.refusedLogins"));
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

    @Test
    void aFleetManagerGetsBothServiceAddresses() throws Exception {
        ConsoleSpec fleet = spec("rosthwaite", 10, "1");
        power(fleet);
        assertNull(engineer(fleet).begin().end(40));
        assertEquals("127.40.9.11/24", hall.kept("MB-10", "address/length"));
        assertEquals("127.40.11.11 127.40.12.11", hall.kept("MB-10", "service addresses"));
        assertEquals("1", hall.kept("MB-10", "seen.restarts"));
    }

    @Test
    void aLoadBalancerUnderstandsItsSentences() throws Exception {
        ConsoleSpec balancer = spec("loweswater", 11, "1");
        power(balancer);
        assertNull(engineer(balancer).begin().end(40));
        assertEquals("127.40.9.12/24", hall.kept("MB-11", "reach"));
        assertEquals("420", hall.kept("MB-11", "segment"));
        assertEquals(Planned.refusedLogins("loweswater"), hall.kept("MB-11", "seen.refusedLogins"));
    }

    @Test
    void ofAPairThatDeliversOneLeadsAndTheOtherJoinsWithItsWord() throws Exception {
        ConsoleSpec left = spec("ennerdale", 12, "left");
        ConsoleSpec right = spec("ennerdale", 112, "right");
        power(left, right);
        Engineer atRight = engineer(right);
        Engineer atLeft = engineer(left).with(atRight);
        atRight.begin();
        atLeft.begin();
        assertNull(atLeft.end(40));
        assertNull(atRight.end(40));
        assertEquals("leads", hall.kept("MB-12", "part"));
        assertEquals("stands by", hall.kept("MB-112", "part"));
    }

    @Test
    void aConsoleForBalancersOpensStageAfterStage() throws Exception {
        ConsoleSpec console = spec("crummock", 13, "1");
        power(console);
        assertNull(engineer(console).begin().end(40));
        assertEquals("127.40.0.0/16", hall.kept("MB-13", "ssh"));
        assertEquals("none", hall.kept("MB-13", "route"));
    }

    @Test
    void aLicenceHostKnowsASecondClock() throws Exception {
        ConsoleSpec host = spec("buttermere", 14, "1");
        power(host);
        assertNull(engineer(host).begin().end(40));
        assertEquals("127.40.8.6", hall.kept("MB-14", "clock"));
        assertEquals("127.40.8.7", hall.kept("MB-14", "spare clock"));
    }

    @Test
    void aManagerOfClustersIsFoundedAndReachesItsNameService() throws Exception {
        ConsoleSpec node = spec("ullscarf", 15, "1");
        power(node);
        assertNull(engineer(node).begin().end(40));
        assertEquals("founds", hall.kept("MB-15", "part"));
        assertEquals("ardal-clusters", hall.kept("MB-15", "cluster"));
    }
}
