package lychnos.server.kinds;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Response;
import java.util.List;
import lychnos.core.kind.KindDifference;
import lychnos.server.api.problem.IfMatch;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import org.jboss.resteasy.reactive.RestHeader;
import org.jboss.resteasy.reactive.RestQuery;
import org.jspecify.annotations.Nullable;

/** Kinds of equipment: everyone reads, engineers draft, leads publish, adjust and retire. */
@Path("/api")
@RolesAllowed("viewer")
public class KindsResource {

    private final KindCatalogue catalogue;
    private final Kinds kinds;
    private final KindDrafts drafts;
    private final KindPublishing publishing;
    private final KindForms forms;
    private final KindAdjustments adjustments;
    private final Who who;

    KindsResource(
            KindCatalogue catalogue,
            Kinds kinds,
            KindDrafts drafts,
            KindPublishing publishing,
            KindForms forms,
            KindAdjustments adjustments,
            Who who) {
        this.catalogue = catalogue;
        this.kinds = kinds;
        this.drafts = drafts;
        this.publishing = publishing;
        this.forms = forms;
        this.adjustments = adjustments;
        this.who = who;
    }

    /**
     * What is said about a version that is published.
     *
     * @param despite why it is published although a recording does not agree
     */
    record PublishNote(@Nullable String note, @Nullable String despite) {}

    /** Lists every kind with its newest version, who uses it and how its setups came out. */
    @GET
    @Path("catalogue")
    public List<KindCatalogue.KindLine> lines() {
        return catalogue.lines();
    }

    /** Saves what the short form says as the draft of a new kind. */
    @POST
    @Path("catalogue")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public KindDrafts.KindDraftView fromForm(KindForms.KindFormText form) {
        return forms.save(Refusal.required(form), who.person());
    }

    /** Shows one kind as a readable page, with its history, its uses and what sites adjust. */
    @GET
    @Path("catalogue/{kind}")
    public KindCatalogue.KindView page(String kind) {
        return catalogue.page(kind);
    }

    /** Downloads the text of a published version, byte for byte. */
    @GET
    @Path("catalogue/{kind}/versions/{version}")
    @Produces("application/yaml")
    public Response text(String kind, int version) {
        Published published = kinds.version(kind, version);
        return Response.ok(published.text())
                .header("Content-Disposition", "attachment; filename=\"" + kind + "-" + version + ".yaml\"")
                .header("ETag", '"' + published.digest() + '"')
                .build();
    }

    /** Tells what differs between two versions; {@code to=0} stands for what this program ships. */
    @GET
    @Path("catalogue/{kind}/difference")
    public List<KindDifference.KindChange> difference(String kind, @RestQuery int from, @RestQuery int to) {
        return catalogue.difference(kind, from, to);
    }

    /** Shows the draft of a kind with every fault in it. */
    @GET
    @Path("catalogue/{kind}/draft")
    public Response draft(String kind) {
        return tagged(drafts.get(kind));
    }

    private static Response tagged(KindDrafts.KindDraftView draft) {
        return Response.ok(draft).header("ETag", '"' + draft.version() + '"').build();
    }

    /** Saves a draft as it is, faults and all. {@code If-Match} is the draft that was changed, or "0" for a new one. */
    @PUT
    @Path("catalogue/{kind}/draft")
    @Consumes(MediaType.TEXT_PLAIN)
    @RolesAllowed("engineer")
    public Response save(String kind, @RestHeader("If-Match") String ifMatch, String text) {
        return tagged(drafts.save(kind, text == null ? "" : text, IfMatch.of(ifMatch, null), who.person()));
    }

    /** Throws a draft away. */
    @DELETE
    @Path("catalogue/{kind}/draft")
    @RolesAllowed("engineer")
    public void discard(String kind, @RestHeader("If-Match") String ifMatch) {
        drafts.discard(kind, IfMatch.of(ifMatch, null), who.person());
    }

    /**
     * Publishes the draft as the next version, which never changes again. One that does not agree with the recordings
     * of its kind is published with a reason only.
     */
    @POST
    @Path("catalogue/{kind}/publish")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("lead")
    public int publish(String kind, @RestHeader("If-Match") String ifMatch, PublishNote note) {
        return publishing.publish(
                kind,
                note == null ? "" : note.note(),
                note == null || note.despite() == null ? "" : note.despite(),
                IfMatch.of(ifMatch, null),
                who.person());
    }

    /** Publishes what this program ships as the next version of a kind that has another text. */
    @POST
    @Path("catalogue/{kind}/update")
    @RolesAllowed("lead")
    public int update(String kind) {
        return drafts.takeShipped(kind, who.person());
    }

    /** Retires a kind: no new unit takes it, and those that have it keep it. */
    @POST
    @Path("catalogue/{kind}/retire")
    @RolesAllowed("lead")
    public void retire(String kind) {
        drafts.retire(kind, true, who.person());
    }

    /** Brings a retired kind back. */
    @POST
    @Path("catalogue/{kind}/bring-back")
    @RolesAllowed("lead")
    public void bringBack(String kind) {
        drafts.retire(kind, false, who.person());
    }

    /** Adjusts something of a kind for a site or one bring-up. */
    @POST
    @Path("catalogue/{kind}/adjustments")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("lead")
    public long adjust(String kind, KindAdjustments.AdjustmentWanted wanted) {
        return adjustments.make(kind, Refusal.required(wanted), who.person());
    }

    /** Removes an adjustment: the kind's own value counts again. */
    @DELETE
    @Path("catalogue/{kind}/adjustments/{id}")
    @RolesAllowed("lead")
    public void removeAdjustment(String kind, long id) {
        adjustments.remove(kind, id, who.person());
    }
}
