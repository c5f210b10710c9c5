package lychnos.core.rule;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import lychnos.core.service.Measured.State;
import lychnos.core.service.ServiceKind;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;

/** Ready is known, placed, and what it leans on answers: each of them taken away once. */
class ReadinessTest {

    private static final String[] KNOWN = {"serial=HV-1", "mac=02:4c:59:00:00:01", "location=R1 u1"};

    private static PlanMaker hall(State gateway, State firstName, State secondName, State time) {
        PlanMaker maker = new PlanMaker()
                .service(ServiceKind.GATEWAY, "10.40.8.1", gateway, "", Map.of())
                .service(ServiceKind.NAME, "10.40.8.3", firstName, "", Map.of())
                .service(ServiceKind.NAME, "10.40.8.4", secondName, "", Map.of());
        return time == null ? maker : maker.service(ServiceKind.TIME, "10.40.8.6", time, "", Map.of());
    }

    private static List<String> lacks(PlanMaker maker, boolean known, boolean placed) {
        maker.unit("server-controller", "ard-srv-1", 1, known ? KNOWN : new String[0]);
        if (placed) {
            maker.seat("ard-srv-1", "10.40.8.40");
        }
        Plan plan = maker.plan();
        Readiness readiness = Readiness.of(plan).get(plan.units().get(0).id());
        assertEquals(readiness.lacks().isEmpty(), readiness.ready());
        return readiness.lacks();
    }

    @Test
    void oneServerThatAnswersIsEnough() {
        assertEquals(List.of(), lacks(hall(State.FINE, State.SILENT, State.ODD, State.FINE), true, true));
    }

    @Test
    void sayWhatIsMissing() {
        List<String> lacks = lacks(hall(State.FINE, State.FINE, State.FINE, State.FINE), false, false);
        assertTrue(Texts.says(RuleText.FACTS_MISSING, lacks.get(0)), lacks.toString());
        assertEquals(RuleText.NO_ADDRESS_IS_ALLOCATED.text(), lacks.get(1));
        assertEquals(2, lacks.size());
    }

    @Test
    void everyServiceIsNamedThatDoesNotAnswer() {
        assertEquals(
                List.of(
                        RuleText.SERVICE_SILENT.text(RuleText.GATEWAY.text(), "10.40.8.1"),
                        RuleText.SERVICES_SILENT.text(RuleText.NAME_SERVICE.text(), "10.40.8.3, 10.40.8.4"),
                        RuleText.SERVICE_SILENT.text(RuleText.TIME_SERVICE.text(), "10.40.8.6")),
                lacks(hall(State.SILENT, State.SILENT, State.SILENT, State.LIES), true, true));
    }

    @Test
    void whatNobodyAskedIsNotTakenForAnAnswer() {
        assertEquals(
                List.of(RuleText.SERVICE_NOT_CHECKED.text(RuleText.TIME_SERVICE.text())),
                lacks(hall(State.FINE, State.FINE, State.FINE, null), true, true));
    }

    @Test
    void aServiceThatNobodyStatedIsMissed() {
        PlanMaker maker = hall(State.FINE, State.FINE, State.FINE, State.FINE);
        maker.unit("block-array", "ard-blk-1", 1);
        Plan plan = maker.plan();
        assertTrue(Readiness.of(plan)
                .get(plan.units().get(0).id())
                .lacks()
                .contains(RuleText.SERVICE_NOT_DEFINED.text(RuleText.MAIL_RELAY.text())));
    }

    /** One server answers, and the setup would stop at the question for the second one anyway. */
    @Test
    void aSetupThatTypesMoreServersThanTheNetworkHasIsNotReady() {
        PlanMaker maker = hall(State.FINE, State.FINE, State.FINE, State.FINE).nameServers("10.40.8.3");
        maker.unit("hypervisor-host", "ard-hv-01", 1, "serial=HV-1", "mac=02:4c:59:00:00:01", "location=R1 u1");
        Plan plan = maker.plan();
        List<String> lacks = Readiness.of(plan).get(plan.units().get(0).id()).lacks();
        assertTrue(
                lacks.contains(RuleText.SETUP_ASKS_FOR_SERVERS.text(2, RuleText.NAME_SERVER.text(), 1)),
                lacks.toString());
        PlanMaker two = hall(State.FINE, State.FINE, State.FINE, State.FINE);
        two.unit("hypervisor-host", "ard-hv-01", 1);
        Plan right = two.plan();
        assertTrue(
                Readiness.of(right).get(right.units().get(0).id()).lacks().stream()
                        .noneMatch(lack -> lack.contains("types")),
                "two are enough");
    }

    @Test
    void aSetupThatAsksForAGatewayIsNotReadyInANetworkWithoutOne() {
        String[] facts = {
            "serial=HA-1",
            "location=R1 u1",
            "mail-sender=index@ardal.example",
            "mail-to=operations@ardal.example",
            "zone=UTC",
            "speed=by itself",
            "known-by=this appliance",
            "account=indexer"
        };
        PlanMaker without = hall(State.FINE, State.FINE, State.FINE, State.FINE)
                .change(network -> new PlannedNetwork(
                        network.id(),
                        network.name(),
                        network.purpose(),
                        network.prefix(),
                        null,
                        network.vlan(),
                        network.mtu(),
                        network.domain(),
                        network.nameServers(),
                        network.timeServers(),
                        network.pools(),
                        network.dhcp(),
                        network.ours(),
                        network.toPlace(),
                        network.free(),
                        network.takenLately()));
        without.unit("index-appliance", "ard-idx-1", 1, facts).seat("ard-idx-1", "10.40.8.40");
        Plan plan = without.plan();
        String lack = RuleText.FACT_HAS_NO_VALUE.text("gateway");
        assertTrue(
                Readiness.of(plan).get(plan.units().get(0).id()).lacks().contains(lack),
                Readiness.of(plan).toString());
        PlanMaker with = hall(State.FINE, State.FINE, State.FINE, State.FINE);
        with.unit("index-appliance", "ard-idx-1", 1, facts).seat("ard-idx-1", "10.40.8.40");
        Plan right = with.plan();
        assertFalse(
                Readiness.of(right).get(right.units().get(0).id()).lacks().contains(lack),
                Readiness.of(right).toString());
    }
}
