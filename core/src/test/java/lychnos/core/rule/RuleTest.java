package lychnos.core.rule;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.address.Run;
import org.junit.jupiter.api.Test;

class RuleTest {

    private static final List<String> TWO = List.of("10.40.8.3", "10.40.8.4");
    private static final List<String> THREE = List.of("10.40.8.6", "10.40.8.7", "10.40.8.8");
    private static final List<Run> POOL = List.of(Run.parse("10.40.8.101-180"));

    private static List<String> codes(String gateway, List<String> dns, List<String> ntp, List<Run> pools, long toPlace) {
        Groundwork groundwork = new Groundwork(Prefix.parse("10.40.8.0/24"), gateway == null ? null : Address.parse(gateway), dns, ntp, pools, List.of(), toPlace, 80);
        return Rule.lookAt(groundwork).stream().map(Finding::code).toList();
    }

    @Test
    void findsNothingWhereNothingIsWrong() {
        assertEquals(List.of(), codes("10.40.8.1", TWO, THREE, POOL, 80));
        assertEquals(List.of(), codes(null, TWO, THREE, POOL, 80), "a network may have no gateway");
    }

    @Test
    void findsEachThing() {
        assertEquals(List.of("gateway-outside"), codes("10.40.9.1", TWO, THREE, POOL, 1));
        assertEquals(List.of("gateway-outside"), codes("10.40.8.255", TWO, THREE, POOL, 1));
        assertEquals(List.of("pool-outside"), codes("10.40.8.1", TWO, THREE, List.of(Run.parse("10.40.8.200-10.40.9.10")), 1));
        assertEquals(List.of("no-pool"), codes("10.40.8.1", TWO, THREE, List.of(), 1));
        assertEquals(List.of("pool-too-small"), codes("10.40.8.1", TWO, THREE, POOL, 81));
        assertEquals(List.of("gateway-in-pool"), codes("10.40.8.101", TWO, THREE, POOL, 1));
        assertEquals(List.of("few-name-servers"), codes("10.40.8.1", List.of("10.40.8.3"), THREE, POOL, 1));
        assertEquals(List.of("few-time-servers"), codes("10.40.8.1", TWO, TWO, POOL, 1));
    }

    @Test
    void onlyWhatIsFatalBlocks() {
        Groundwork bare = new Groundwork(Prefix.parse("10.40.8.0/24"), null, List.of(), List.of(), POOL, List.of(), 1, 80);
        assertTrue(Rule.lookAt(bare).stream().allMatch(Finding::blocks));
        Groundwork thin = new Groundwork(Prefix.parse("10.40.8.0/24"), null, TWO.subList(0, 1), TWO, POOL, List.of(), 1, 80);
        assertEquals(2, Rule.lookAt(thin).size());
        assertTrue(Rule.lookAt(thin).stream().noneMatch(Finding::blocks));
    }
}
