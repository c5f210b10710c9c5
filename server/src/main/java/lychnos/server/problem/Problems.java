package lychnos.server.problem;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.exc.MismatchedInputException;
import io.quarkus.security.AuthenticationFailedException;
import io.quarkus.security.ForbiddenException;
import io.quarkus.security.UnauthorizedException;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.ws.rs.WebApplicationException;
import jakarta.ws.rs.core.Response;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import lychnos.server.store.DatabaseTrouble;
import org.jboss.logging.Logger;
import org.jboss.resteasy.reactive.server.ServerExceptionMapper;

/** The one place where failures become problem documents (RFC 9457). */
public class Problems {

    private static final Logger LOG = Logger.getLogger(Problems.class);

    private final SecurityIdentity identity;

    Problems(SecurityIdentity identity) {
        this.identity = identity;
    }

    @ServerExceptionMapper
    public Response refusal(Refusal refusal) {
        return problem(refusal.status(), refusal.title(), refusal.getMessage(), refusal.members());
    }

    @ServerExceptionMapper({UnauthorizedException.class, AuthenticationFailedException.class})
    public Response unauthorised(Exception e) {
        DatabaseTrouble trouble = identity.getAttribute(DatabaseTrouble.ATTRIBUTE);
        return trouble != null ? database(trouble) : problem(401, "Not signed in", "Sign in first.", Map.of());
    }

    @ServerExceptionMapper
    public Response forbidden(ForbiddenException e) {
        return problem(403, "Not allowed", "Your role does not allow that. A lead can.", Map.of());
    }

    /** The second one is named because the framework has an answer of its own for it, without a word in it. */
    @ServerExceptionMapper({JsonProcessingException.class, MismatchedInputException.class})
    public Response json(JsonProcessingException e) {
        return problem(400, "Not understood", "The request is no JSON that fits: " + e.getOriginalMessage(), Map.of());
    }

    @ServerExceptionMapper
    public Response web(WebApplicationException e) {
        int status = e.getResponse().getStatus();
        return problem(status, status == 404 ? "Not found" : "Not possible", "There is nothing for that request here.", Map.of());
    }

    @ServerExceptionMapper
    public Response unexpected(Exception e) {
        Optional<DatabaseTrouble> trouble = DatabaseTrouble.of(e);
        if (trouble.isPresent()) {
            LOG.warnf("the database: %s (%s)", trouble.get(), e.getMessage());
            return database(trouble.get());
        }
        String id = UUID.randomUUID().toString().substring(0, 8);
        LOG.errorf(e, "unexpected, %s", id);
        return problem(500, "A fault of ours", "This should not have happened. The server's log has it as " + id + ".", Map.of());
    }

    private static Response database(DatabaseTrouble trouble) {
        return trouble == DatabaseTrouble.FULL
                ? problem(503, "The database's disk is full", "Nothing was changed: the database's disk is full. Whoever runs this server has to make room; then do it again.", Map.of())
                : problem(503, "The database does not answer", "The server stands, its database does not answer now. What you sent last may not be kept: look again once this is over. What runs goes on by itself then.", Map.of());
    }

    private static Response problem(int status, String title, String detail, Map<String, Object> members) {
        Map<String, Object> body = new LinkedHashMap<>();
        body.put("type", "about:blank");
        body.put("title", title);
        body.put("status", status);
        body.put("detail", detail);
        body.putAll(members);
        return Response.status(status).type("application/problem+json").entity(body).build();
    }
}
