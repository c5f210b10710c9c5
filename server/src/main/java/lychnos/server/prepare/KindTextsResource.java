package lychnos.server.prepare;

import jakarta.annotation.security.PermitAll;
import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFault;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.KindSummary;
import lychnos.core.sheet.KindExample;
import lychnos.server.kinds.Kinds;
import org.jspecify.annotations.Nullable;

/** Descriptions of kinds: those that can be added, the schema, and a check of a text. */
@Path("/api")
@RolesAllowed("viewer")
public class KindTextsResource {

    private final Kinds kinds;

    KindTextsResource(Kinds kinds) {
        this.kinds = kinds;
    }

    /**
     * A text of a kind as it would read.
     *
     * @param summary null while the text has faults
     * @param way how it is set up; empty while the text has faults
     * @param example a unit with made-up values; null while the text has faults, or gives no such unit a name
     */
    public record KindPreview(
            List<KindFault> faults, @Nullable KindSummary summary, String way, @Nullable KindExample example) {}

    @GET
    @Path("kinds")
    public List<PrepareViews.KindBrief> kinds() {
        return kinds.offered().stream()
                .map(each -> PrepareViews.KindBrief.of(each.version(), each.kind()))
                .toList();
    }

    @GET
    @Path("kinds/kind.schema.json")
    @Produces("application/schema+json")
    @PermitAll
    public String schema() {
        return KindReader.schema();
    }

    /** Looks a description of a kind over. */
    @POST
    @Path("kinds/check")
    @Consumes(MediaType.TEXT_PLAIN)
    public List<KindFault> check(String yaml) {
        try {
            KindReader.read(yaml == null ? "" : yaml);
            return List.of();
        } catch (KindFaults e) {
            return e.faults();
        }
    }

    /** Looks a description over and says how it would read. */
    @POST
    @Path("kinds/preview")
    @Consumes(MediaType.TEXT_PLAIN)
    public KindPreview preview(String yaml) {
        try {
            Kind kind = KindReader.read(yaml == null ? "" : yaml);
            return new KindPreview(List.of(), KindSummary.of(kind), kind.setup().by(), example(kind));
        } catch (KindFaults e) {
            return new KindPreview(e.faults(), null, "", null);
        }
    }

    private static @Nullable KindExample example(Kind kind) {
        try {
            return KindExample.of(kind);
        } catch (IllegalArgumentException e) {
            return null; // such as a name that is too long with the words of the example
        }
    }
}
