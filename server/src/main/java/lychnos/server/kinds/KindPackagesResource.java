package lychnos.server.kinds;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.core.Response;
import lychnos.server.api.problem.IfMatch;
import lychnos.server.identity.caller.Who;
import org.jboss.resteasy.reactive.RestHeader;

/** Kinds as files: one that leaves this site, and one that comes from another. */
@Path("/api")
@RolesAllowed("viewer")
public class KindPackagesResource {

    private static final String ZIP = "application/zip";

    private final KindPackages packages;
    private final Who who;

    KindPackagesResource(KindPackages packages, Who who) {
        this.packages = packages;
        this.who = who;
    }

    /** Downloads a published version with its recordings; those that show a login of this site are left out. */
    @GET
    @Path("catalogue/{kind}/versions/{version}/package")
    @Produces(ZIP)
    public Response write(String kind, int version) {
        return Response.ok(packages.write(kind, version))
                .header("Content-Disposition", "attachment; filename=\"" + kind + "-" + version + ".zip\"")
                .build();
    }

    /** Looks a package over: its faults, what differs from the kind here, and what comes of its recordings. */
    @POST
    @Path("kinds/packages/check")
    @Consumes(ZIP)
    @RolesAllowed("engineer")
    public KindPackages.PackageView look(byte[] archive) {
        return packages.look(archive);
    }

    /** Makes a package the draft of its kind. {@code If-Match} is the draft that it replaces, or "0" for none. */
    @POST
    @Path("kinds/packages")
    @Consumes(ZIP)
    @RolesAllowed("engineer")
    public KindDrafts.KindDraftView take(@RestHeader("If-Match") String ifMatch, byte[] archive) {
        return packages.take(archive, IfMatch.of(ifMatch, null), who.person());
    }
}
