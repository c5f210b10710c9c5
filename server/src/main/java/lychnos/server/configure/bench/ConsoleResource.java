package lychnos.server.configure.bench;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import java.util.List;
import java.util.Locale;
import lychnos.core.dialogue.Mode;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.plan.Setups;
import lychnos.server.database.ReadsOnly;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.ConfigureText;

/** Stage 3 on console lines. */
@Path("/api")
@RolesAllowed("viewer")
public class ConsoleResource {

    private final Setups setups;
    private final BenchViews views;
    private final LaneViews laneViews;
    private final Consoles consoles;
    private final Reach reach;
    private final ServicePorts servicePorts;
    private final Who who;

    ConsoleResource(
            Setups setups,
            BenchViews views,
            LaneViews laneViews,
            Consoles consoles,
            Reach reach,
            ServicePorts servicePorts,
            Who who) {
        this.reach = reach;
        this.servicePorts = servicePorts;
        this.setups = setups;
        this.views = views;
        this.laneViews = laneViews;
        this.consoles = consoles;
        this.who = who;
    }

    /**
     * How to begin: the way to work, a lead's reason to begin although it is not the first of its kind, and which units
     * where several are begun.
     */
    public record ConsoleStart(String mode, String reason, List<Long> units) {}

    @GET
    @Path("bring-ups/{id}/lanes")
    @Transactional
    @ReadsOnly
    public LaneViews.BenchLanes lanes(long id) {
        return laneViews.lanes(id);
    }

    @GET
    @Path("units/{id}/bench")
    @Transactional
    @ReadsOnly
    public BenchViews.BenchView bench(long id) {
        return views.view(id);
    }

    @POST
    @Path("units/{id}/console")
    @RolesAllowed("engineer")
    public void begin(long id, ConsoleStart begin) {
        begin(views.bringUpOf(id), List.of(id), begin);
    }

    /** Begins several units at once, all of them or none. */
    @POST
    @Path("bring-ups/{id}/consoles")
    @RolesAllowed("engineer")
    public void beginAll(long id, ConsoleStart begin) {
        if (begin == null || begin.units == null || begin.units.isEmpty()) {
            throw Refusal.bad(ConfigureText.WHICH_UNITS.said());
        }
        begin(id, begin.units, begin);
    }

    private void begin(long bringUpId, List<Long> units, ConsoleStart begin) {
        setups.refuseBlocked(bringUpId, units);
        setups.begin(
                bringUpId,
                units,
                mode(begin == null ? null : begin.mode),
                begin == null || begin.reason == null ? "" : begin.reason,
                who.person());
    }

    static Mode mode(String word) {
        try {
            return Mode.valueOf(String.valueOf(word).toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(ConfigureText.WAYS_TO_WORK_ARE_WATCH.said(word));
        }
    }

    /** Asks a unit's addresses once, from here: ping, and the ports of its page and of SSH. */
    @POST
    @Path("units/{id}/console/reach")
    @RolesAllowed("engineer")
    public List<Reach.ReachAnswer> reach(long id) {
        return reach.ask(id);
    }

    /** Tries the service port of a unit from the vantage points that are connected. */
    @POST
    @Path("units/{id}/console/service-port")
    @RolesAllowed("engineer")
    public List<ServicePorts.ServicePortAnswer> servicePort(long id) {
        return servicePorts.tryAll(id);
    }

    /** Opens the lines that became known since the setup was begun, such as the serial port of a browser. */
    @POST
    @Path("units/{id}/console/lines")
    @RolesAllowed("engineer")
    public void openNewLines(long id) {
        setups.linesBecameKnown(id).ifPresent(consoles::lookAgain);
    }

    @POST
    @Path("units/{id}/console/close")
    @RolesAllowed("engineer")
    public void putAway(long id) {
        setups.putAway(id, who.person());
    }

    /** Halts every line of a bring-up at once. */
    @POST
    @Path("bring-ups/{id}/consoles/stop")
    @RolesAllowed("engineer")
    public void stopAll(long id) {
        consoles.ofBringUp(id).forEach(work -> work.halt(who.person().login()));
    }
}
