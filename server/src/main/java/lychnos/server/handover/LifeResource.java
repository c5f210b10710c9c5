package lychnos.server.handover;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import java.util.List;
import lychnos.server.api.problem.Reason;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Shapes;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.HandoverText;

/** Units after they are signed: opened again, with another machine, retired. */
@Path("/api")
@RolesAllowed("viewer")
public class LifeResource {

    private final SignOff signOff;
    private final LifeAfter lifeAfter;
    private final Shapes shapes;
    private final Who who;

    LifeResource(SignOff signOff, LifeAfter lifeAfter, Shapes shapes, Who who) {
        this.signOff = signOff;
        this.lifeAfter = lifeAfter;
        this.shapes = shapes;
        this.who = who;
    }

    /** @param why the reason */
    public record ReopenRequest(@Reason String why) {}

    @POST
    @Path("units/{id}/reopenings")
    @RolesAllowed("lead")
    public void reopen(long id, ReopenRequest reopen) {
        shapes.refuse(reopen);
        signOff.reopen(id, reopen.why.strip(), who.person());
    }

    /** The machines of a unit that can be replaced, with what tells them apart. */
    @GET
    @Path("units/{id}/members")
    public List<LifeAfter.ReplaceablePart> parts(long id) {
        return lifeAfter.parts(id);
    }

    @POST
    @Path("units/{id}/replacements")
    @RolesAllowed("lead")
    public void replace(long id, LifeAfter.NewMachine machine) {
        if (machine == null) {
            throw Refusal.bad(HandoverText.SAY_WHICH_MACHINE_IS_REPLACED.said());
        }
        shapes.refuse(machine);
        lifeAfter.replace(id, machine, who.person());
    }

    /** @param why the reason */
    public record RetireRequest(@Reason String why) {}

    @POST
    @Path("units/{id}/retirement")
    @RolesAllowed("lead")
    public void retire(long id, RetireRequest retire) {
        shapes.refuse(retire);
        lifeAfter.retire(id, retire.why.strip(), who.person());
    }
}
