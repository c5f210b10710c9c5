package lychnos.server.api.problem;

import jakarta.ws.rs.core.EntityTag;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;

/** Answers with an entity tag, which goes into If-Match of those who change the resource (RFC 9110, section 8.8.3). */
public final class Tagged {

    private Tagged() {}

    /** The entity, or 304 where the request has seen this version. */
    public static Response of(Object entity, String version, Request request) {
        EntityTag tag = new EntityTag(version);
        Response.ResponseBuilder unchanged = request.evaluatePreconditions(tag);
        return unchanged != null
                ? unchanged.tag(tag).build()
                : Response.ok(entity).tag(tag).build();
    }
}
