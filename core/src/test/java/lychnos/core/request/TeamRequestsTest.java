package lychnos.core.request;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.export.Flow;
import lychnos.core.export.Flow.FlowEnd;
import lychnos.core.export.FlowPurpose;
import lychnos.core.fact.Fact;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import lychnos.core.request.TeamRequest.RequestSort;
import lychnos.core.request.Tested.TestedAnswer;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;
import lychnos.core.sheet.UnitFacts;
import org.junit.jupiter.api.Test;

class TeamRequestsTest {

    private static final FlowEnd ONE = new FlowEnd("ard-a.ardal.example", "10.40.8.40");
    private static final FlowEnd TWO = new FlowEnd("ard-b.ardal.example", "10.40.8.41");
    private static final FlowEnd CLOCK = new FlowEnd("time server", "10.40.8.6");
    private static final FlowEnd PEOPLE = new FlowEnd("operations", "10.40.250.0/24");
    private static final FlowEnd RELAY = new FlowEnd("relay", "10.40.8.20");

    private static final List<Flow> FLOWS = List.of(
            new Flow(ONE, CLOCK, "udp 123", FlowPurpose.TIME),
            new Flow(TWO, CLOCK, "udp 123", FlowPurpose.TIME),
            new Flow(PEOPLE, ONE, "tcp 443", FlowPurpose.MANAGEMENT),
            new Flow(PEOPLE, TWO, "tcp 443", FlowPurpose.MANAGEMENT),
            new Flow(ONE, TWO, "udp 694", FlowPurpose.CLUSTER),
            new Flow(ONE, new FlowEnd("care.example", ""), "tcp 443", "tcp 8443", FlowPurpose.INTERNET),
            new Flow(ONE, RELAY, "tcp 25", FlowPurpose.MAIL));

    private static List<TeamRequest> flows() {
        return TeamRequests.of(FLOWS, Map.of(), Set.of());
    }

    private static TeamRequest request(RequestSort sort) {
        return flows().stream().filter(each -> each.sort() == sort).findFirst().orElseThrow();
    }

    @Test
    void whatIsAskedAlikeIsOneRequest() {
        assertEquals(
                List.of(
                        "FLOW_OUT|10.40.8.6|udp 123",
                        "FLOW_IN|10.40.250.0/24|tcp 443",
                        "FLOW_BETWEEN||udp 694",
                        "FLOW_OUT|care.example|tcp 443",
                        "FLOW_OUT|10.40.8.20|tcp 25",
                        "RELAY|10.40.8.20"),
                flows().stream().map(TeamRequest::key).toList());
        assertEquals(
                List.of("10.40.8.40", "10.40.8.41"),
                request(RequestSort.FLOW_OUT).machines());
        assertEquals(
                List.of("10.40.8.40", "10.40.8.41"),
                request(RequestSort.FLOW_IN).machines());
        assertEquals(
                List.of("10.40.8.40", "10.40.8.41"),
                request(RequestSort.FLOW_BETWEEN).machines());
        assertEquals(List.of("10.40.8.40"), request(RequestSort.RELAY).machines());
        assertEquals("tcp 8443", flows().get(3).fallback());
    }

    private static UnitFacts appliance(String image, String key) {
        Kind kind = KindReader.shipped("access-appliance");
        Map<String, Fact> facts = new LinkedHashMap<>();
        if (!image.isEmpty()) {
            facts.put("image", new Fact(image, Fact.Source.TYPED));
        }
        if (!key.isEmpty()) {
            facts.put("licence-key", new Fact(key, Fact.Source.TYPED));
        }
        return UnitFacts.resolve(kind, 1, Map.of("", facts), Map.of());
    }

    @Test
    void imagesAndKeysAreAskedForOncePerKind() {
        Map<String, UnitFacts> units = new LinkedHashMap<>();
        units.put("ard-acc-1", appliance("acc.ova", "K-1"));
        units.put("ard-acc-2", appliance("acc.ova", ""));
        units.put("ard-acc-3", appliance("", ""));
        List<TeamRequest> requests = TeamRequests.of(List.of(), units, Set.of("acc.ova"));
        assertEquals(
                List.of(
                        "IMAGE|access-appliance|acc.ova",
                        "IMAGE|access-appliance|",
                        "KEY|access-appliance|licence-key"),
                requests.stream().map(TeamRequest::key).toList());
        assertEquals(List.of("ard-acc-1", "ard-acc-2"), requests.get(0).machines());
        assertEquals(List.of(), requests.get(0).open(), "it was checked");
        assertEquals(List.of("ard-acc-3"), requests.get(1).open());
        assertEquals(List.of("ard-acc-2", "ard-acc-3"), requests.get(2).open());
        assertEquals(TestedAnswer.YES, tested(requests.get(0)).answer());
        assertEquals(TestedAnswer.NO, tested(requests.get(1)).answer());
        assertEquals(new Tested(TestedAnswer.NO, RequestText.ENTERED.text(1, 3)), tested(requests.get(2)));
    }

    private static Tested tested(TeamRequest request) {
        return Tested.of(request, List.of(), Map.of());
    }

    private static List<Measured> measured(ServiceKind kind, String address, Measured.State state) {
        return List.of(new Measured(kind, address, state, "as seen", Map.of(), Instant.EPOCH));
    }

    @Test
    void aServiceThatAnswersIsTested() {
        TeamRequest time = request(RequestSort.FLOW_OUT);
        assertEquals(TestedAnswer.NOT_MEASURED, tested(time).answer(), "it was never asked");
        assertEquals(
                TestedAnswer.YES,
                Tested.of(time, measured(ServiceKind.TIME, "10.40.8.6", Measured.State.ODD), Map.of())
                        .answer());
        assertEquals(
                TestedAnswer.NO,
                Tested.of(time, measured(ServiceKind.TIME, "10.40.8.6", Measured.State.SILENT), Map.of())
                        .answer());
        assertEquals(
                TestedAnswer.NOT_MEASURED,
                Tested.of(time, measured(ServiceKind.NAME, "10.40.8.6", Measured.State.FINE), Map.of())
                        .answer(),
                "another service at the same address says nothing");
    }

    @Test
    void aRelayThatAnswersUsMayRefuseTheMachines() {
        TeamRequest relay = request(RequestSort.RELAY);
        assertEquals(
                TestedAnswer.NOT_MEASURED,
                Tested.of(relay, measured(ServiceKind.RELAY, "10.40.8.20", Measured.State.FINE), Map.of())
                        .answer());
        assertEquals(
                new Tested(TestedAnswer.NO, "as seen"),
                Tested.of(relay, measured(ServiceKind.RELAY, "10.40.8.20", Measured.State.ODD), Map.of()));
    }

    @Test
    void theWayToMachinesIsTestedByTheirChecks() {
        TeamRequest in = request(RequestSort.FLOW_IN);
        assertEquals(TestedAnswer.NOT_MEASURED, tested(in).answer());
        assertEquals(
                new Tested(TestedAnswer.NO, RequestText.PORTS_ANSWER.text(1, 2)),
                Tested.of(in, List.of(), Map.of("10.40.8.40", true)),
                "the other one was not checked");
        assertEquals(
                TestedAnswer.YES,
                Tested.of(in, List.of(), Map.of("10.40.8.40", true, "10.40.8.41", true))
                        .answer());
    }
}
