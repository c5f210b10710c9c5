package lychnos.server.prove.notices;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import java.util.List;
import lychnos.server.identity.caller.Who;

/** Who is told of changes, for people. */
@Path("/api")
@RolesAllowed("viewer")
public class NoticeResource {

    private final NoticeTargets targets;
    private final Who who;

    NoticeResource(NoticeTargets targets, Who who) {
        this.targets = targets;
        this.who = who;
    }

    @GET
    @Path("bring-ups/{id}/notices")
    public List<NoticeTargets.NoticeTargetView> all(long id) {
        boolean viewer = who.person().role().equals("viewer");
        return targets.of(id).stream()
                .map(each -> viewer ? each.withoutPath() : each)
                .toList();
    }

    /**
     * Somebody who is to be told.
     *
     * @param sort webhook or mail
     * @param to a URL or a mail address
     */
    public record NoticeTargetWanted(String sort, String to) {}

    @POST
    @Path("bring-ups/{id}/notices")
    @RolesAllowed("lead")
    public NoticeTargets.NewNoticeTarget add(long id, NoticeTargetWanted add) {
        return targets.add(id, add == null ? null : add.sort, add == null ? null : add.to, who.person());
    }

    @DELETE
    @Path("notices/{id}")
    @RolesAllowed("lead")
    public void remove(long id) {
        targets.remove(id, who.person());
    }
}
