package lychnos.core.request;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.export.FlowPurpose;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;

/**
 * Whether what was asked for is so, as far as that can be measured from here.
 *
 * @param seen what was measured, in a few words; empty where nothing was
 */
public record Tested(TestedAnswer answer, String seen) {

    /** Services that are measured, by what a flow to them is for. */
    private static final Map<FlowPurpose, ServiceKind> SERVICES = Map.of(
            FlowPurpose.NAMES, ServiceKind.NAME,
            FlowPurpose.TIME, ServiceKind.TIME,
            FlowPurpose.MAIL, ServiceKind.RELAY,
            FlowPurpose.DIRECTORY, ServiceKind.DIRECTORY,
            FlowPurpose.PROXY, ServiceKind.PROXY);

    /** Nothing was measured. */
    public static final Tested NOTHING = new Tested(TestedAnswer.NOT_MEASURED, "");

    /** Whether it is so. */
    public enum TestedAnswer {
        YES,
        NO,
        NOT_MEASURED
    }

    /**
     * Judges one request. That a service answers is known from this server or from a vantage point, which is not yet
     * the machine itself; the check of the machine tells that.
     *
     * @param services what the services of the site answered last
     * @param ports by address, whether the management port of a machine answered at its last check; no entry before
     */
    public static Tested of(TeamRequest request, List<Measured> services, Map<String, Boolean> ports) {
        return switch (request.sort()) {
            case FLOW_OUT -> service(SERVICES.get(request.purpose()), request, services);
            case FLOW_IN -> ports(request, ports);
            case FLOW_BETWEEN -> NOTHING;
            case RELAY -> relay(request, services);
            case IMAGE, KEY -> there(request);
        };
    }

    private static Optional<Measured> measured(ServiceKind kind, TeamRequest request, List<Measured> services) {
        return services.stream()
                .filter(each -> each.kind() == kind && each.address().equals(request.detail()))
                .findFirst();
    }

    private static Tested service(ServiceKind kind, TeamRequest request, List<Measured> services) {
        return measured(kind, request, services)
                .map(each -> each.state() == Measured.State.SILENT
                        ? new Tested(TestedAnswer.NO, RequestText.SILENT_FROM_HERE.text())
                        : new Tested(TestedAnswer.YES, RequestText.ANSWERS_FROM_HERE.text()))
                .orElse(NOTHING);
    }

    /** A relay that answers us may refuse the machines still. */
    private static Tested relay(TeamRequest request, List<Measured> services) {
        return measured(ServiceKind.RELAY, request, services)
                .map(each -> each.fine()
                        ? new Tested(TestedAnswer.NOT_MEASURED, RequestText.RELAY_NOT_TRIED.text())
                        : new Tested(TestedAnswer.NO, each.sentence()))
                .orElse(NOTHING);
    }

    private static Tested ports(TeamRequest request, Map<String, Boolean> ports) {
        List<Boolean> known = request.machines().stream()
                .filter(ports::containsKey)
                .map(ports::get)
                .toList();
        if (known.isEmpty()) {
            return NOTHING;
        }
        long answer = known.stream().filter(each -> each).count();
        return new Tested(
                answer == request.machines().size() ? TestedAnswer.YES : TestedAnswer.NO,
                RequestText.PORTS_ANSWER.text(answer, request.machines().size()));
    }

    private static Tested there(TeamRequest request) {
        int all = request.machines().size();
        int there = all - request.open().size();
        RequestText text =
                request.sort() == TeamRequest.RequestSort.IMAGE ? RequestText.IMAGE_CHECKED : RequestText.ENTERED;
        return new Tested(there == all ? TestedAnswer.YES : TestedAnswer.NO, text.text(there, all));
    }
}
