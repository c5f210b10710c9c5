package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import lychnos.core.kind.KindDifference.KindChange;
import lychnos.core.kind.KindDifference.KindPart;
import lychnos.core.kind.KindDifference.Sort;
import org.junit.jupiter.api.Test;

/** What people are shown before a unit moves to another version of its kind. */
class KindDifferenceTest {

    private static final String HOST = KindReader.asWritten("hypervisor-host");

    private static List<KindChange> after(String change, String to) {
        assertTrue(HOST.contains(change), change);
        return KindDifference.between(KindReader.read(HOST), KindReader.read(HOST.replace(change, to)));
    }

    @Test
    void aKindDoesNotDifferFromItself() {
        for (Kind kind : KindReader.allShipped()) {
            assertEquals(List.of(), KindDifference.between(kind, kind), kind.id());
        }
    }

    @Test
    void aQuestionIsAddedRemovedAndAnsweredOtherwise() {
        String gateway =
                "    - { row: \"IPv4 router\", asked: \"IPv4 router:\", answer: \"{gateway}\", title: gateway }\n";
        KindChange added = after(
                        gateway, gateway + "    - { row: Banner, asked: \"Words\", answer: Ardal, title: banner }\n")
                .get(0);
        assertEquals(new KindChange(KindPart.STEP, Sort.ADDED, "banner", "", "answers Ardal"), added);
        assertEquals(Sort.REMOVED, after(gateway, "").get(0).sort());
        KindChange changed = after("answer: \"{vlan}\", suggested: yes", "answer: \"0\", suggested: yes")
                .get(0);
        assertEquals(new KindChange(KindPart.STEP, Sort.CHANGED, "own VLAN", "answers {vlan}", "answers 0"), changed);
    }

    @Test
    void aQuestionThatComesEarlierIsToldOnce() {
        String links = "    - { row: Ports, asked: Ports in use, answer: \"{links}\", suggested: yes }\n";
        String vlan = "    - { row: VLAN, asked: \"VLAN, 0 untagged\", answer: \"{vlan}\", suggested: yes, title: own "
                + "VLAN }\n";
        List<KindChange> moved = after(links + vlan, vlan + links);
        assertEquals(1, moved.size(), moved::toString);
        assertEquals(Sort.MOVED, moved.get(0).sort());
        assertEquals("own VLAN", moved.get(0).what());
    }

    @Test
    void factsNamesChecksAndLoginsAreCompared() {
        assertEquals(
                KindPart.FACT,
                after("  disk: {", "  label: { of: unit, is: text, title: asset label }\n  disk: {")
                        .get(0)
                        .part());
        assertEquals(
                KindPart.NAME,
                after("{site}-{kind}-{n:2}", "{site}-{kind}-{n:3}").get(0).part());
        assertEquals(
                KindPart.CHECK,
                after("shut: [ 22, 23 ]", "shut: [ 22, 23, 80 ]").get(0).part());
        assertEquals(
                KindPart.LOGIN, after("phrase: greenup", "phrase: other").get(0).part());
        assertEquals(
                KindPart.FLOW, after("port: udp 123", "port: udp 124").get(0).part());
    }

    @Test
    void otherAddressesAreNoMoveForAUnitThatHasItsOwn() {
        Kind now = KindReader.read(HOST);
        assertTrue(KindDifference.sameAddresses(now, KindReader.read(HOST)));
        Kind more = KindReader.read(HOST.replace("run: [ management ]", "run: [ management, second ]")
                .replace(
                        "names: { unit:",
                        "names: { roles: { management: \"{unit}\", second: \"{unit}-b\" }, " + "unit:"));
        assertFalse(KindDifference.sameAddresses(now, more));
    }
}
