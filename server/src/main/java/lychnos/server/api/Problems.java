package lychnos.server.api;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.exc.MismatchedInputException;
import io.quarkus.security.AuthenticationFailedException;
import io.quarkus.security.ForbiddenException;
import io.quarkus.security.UnauthorizedException;
import io.quarkus.security.identity.SecurityIdentity;
import jakarta.persistence.OptimisticLockException;
import jakarta.ws.rs.WebApplicationException;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.Response;
import jakarta.ws.rs.core.UriInfo;
import java.sql.SQLException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.DatabaseTrouble;
import org.hibernate.StaleStateException;
import org.jboss.logging.Logger;
import org.jboss.resteasy.reactive.server.ServerExceptionMapper;

/** The one place where failures become problem documents (RFC 9457). */
public class Problems {

    private static final Logger LOG = Logger.getLogger(Problems.class);
    private static final int DEEPEST = 20;

    private final SecurityIdentity identity;
    private final AllowedMethods methods;
    private final UriInfo uri;

    Problems(SecurityIdentity identity, AllowedMethods methods, UriInfo uri) {
        this.methods = methods;
        this.uri = uri;
        this.identity = identity;
    }

    @ServerExceptionMapper
    public Response refusal(Refusal refusal) {
        Response answer = problem(refusal.status(), refusal.title(), refusal.getMessage(), refusal.members());
        Object seconds = refusal.members().get("retryAfter");
        return seconds == null
                ? answer
                : Response.fromResponse(answer)
                        .header(HttpHeaders.RETRY_AFTER, seconds)
                        .build();
    }

    @ServerExceptionMapper({UnauthorizedException.class, AuthenticationFailedException.class})
    public Response unauthorised(Exception e) {
        DatabaseTrouble trouble = identity.getAttribute(DatabaseTrouble.ATTRIBUTE);
        return trouble != null ? database(trouble) : problem(401, "Not signed in", "Sign in first.", Map.of());
    }

    @ServerExceptionMapper
    public Response forbidden(ForbiddenException e) {
        return problem(403, "Not allowed", "Your role does not allow this. Ask a lead.", Map.of());
    }

    /** The second one is named because the framework has an answer of its own for it, without a word in it. */
    @ServerExceptionMapper({JsonProcessingException.class, MismatchedInputException.class})
    public Response json(JsonProcessingException e) {
        return problem(
                400,
                "Not understood",
                "The request is not JSON in the format of this route" + place(e) + ".",
                Map.of());
    }

    /**
     * Where in the body: the member by its path, else line and column. No name of a class, and nothing of what was
     * sent.
     */
    private static String place(JsonProcessingException e) {
        if (e instanceof JsonMappingException mapping && !mapping.getPath().isEmpty()) {
            return ": look at “"
                    + mapping.getPath().stream()
                            .map(step ->
                                    step.getFieldName() == null ? "[" + step.getIndex() + "]" : step.getFieldName())
                            .collect(Collectors.joining("."))
                    + "”";
        }
        return e.getLocation() == null
                ? ""
                : ": look at line " + e.getLocation().getLineNr() + ", column "
                        + e.getLocation().getColumnNr();
    }

    /** What the framework refuses, with its own status and headers (RFC 9110, section 15.5). */
    @ServerExceptionMapper
    public Response web(WebApplicationException e) {
        Response refused = e.getResponse();
        int status = refused.getStatus();
        for (Throwable cause = e.getCause(); cause != null; cause = cause.getCause()) {
            if (cause instanceof JsonProcessingException fault) {
                return json(fault);
            }
        }
        if (status >= 500) {
            return unexpected(e);
        }
        Response answer = problem(
                status,
                STATUS_TITLES.getOrDefault(status, "Not possible"),
                STATUS_TEXTS.getOrDefault(status, "The request cannot be carried out."),
                Map.of());
        String allow = status == 405 ? methods.of(uri.getPath()) : "";
        return allow.isEmpty()
                ? answer
                : Response.fromResponse(answer).header(HttpHeaders.ALLOW, allow).build();
    }

    private static final Map<Integer, String> STATUS_TITLES = Map.of(
            404,
            "Not found",
            405,
            "Method not allowed",
            406,
            "Not acceptable",
            413,
            "Too large",
            414,
            "Address too long",
            415,
            "Unsupported media type");

    private static final Map<Integer, String> STATUS_TEXTS = Map.of(
            404, "This address does not exist.",
            405, "This route does not support the method; the Allow header lists the supported ones.",
            406, "This route does not support the formats of the Accept header.",
            413, "The body of the request is too large.",
            414, "The address of the request is too long.",
            415, "This route does not support the content type of the body; see the API document.");

    @ServerExceptionMapper
    public Response unexpected(Exception e) {
        Optional<DatabaseTrouble> trouble = DatabaseTrouble.of(e);
        if (trouble.isPresent()) {
            LOG.warnf("the database: %s (%s)", trouble.get(), e.getMessage());
            return database(trouble.get());
        }
        Optional<Response> refused = refusedByTheDatabase(e);
        if (refused.isPresent()) {
            return refused.get();
        }
        String id = UUID.randomUUID().toString().substring(0, 8);
        LOG.errorf(e, "unexpected, %s", id);
        return problem(
                500,
                "Internal error",
                "An unexpected error occurred. The server's log has the details under " + id + ".",
                Map.of());
    }

    /**
     * What a constraint of the database refused, where the program did not look before or somebody else was quicker
     * (PostgreSQL, appendix A, error codes).
     */
    private static Optional<Response> refusedByTheDatabase(Exception e) {
        int depth = 0;
        for (Throwable each = e; each != null && depth < DEEPEST; each = each.getCause(), depth++) {
            if (each instanceof OptimisticLockException || each instanceof StaleStateException) {
                return Optional.of(problem(
                        409,
                        "Conflict",
                        "Somebody else changed or deleted this at the same time. Reload and try again.",
                        Map.of()));
            }
            String state = each instanceof SQLException sql ? String.valueOf(sql.getSQLState()) : "";
            switch (state) {
                case "23505", "23P01":
                    return Optional.of(problem(
                            409,
                            "Conflict",
                            "This already exists, perhaps since a moment ago. Reload before you add " + "another.",
                            Map.of()));
                case "23503":
                    return Optional.of(problem(
                            409, "Conflict", "This refers to something that is gone, or is still in use.", Map.of()));
                case "40001", "40P01", "55P03":
                    return Optional.of(problem(
                            409,
                            "Conflict",
                            "Somebody else changed this at the same time, so nothing was changed. Try again.",
                            Map.of()));
                case "22021", "22P05":
                    return Optional.of(problem(
                            400,
                            "Invalid request",
                            "A text contains a character that cannot be stored, such as NUL.",
                            Map.of()));
                case "22001", "22003", "22P02", "23502", "23514":
                    return Optional.of(problem(
                            400,
                            "Invalid request",
                            "A value is out of range. The API document has the limits.",
                            Map.of()));
                default:
                    // something else, or a cause that is wrapped
            }
        }
        return Optional.empty();
    }

    private static Response database(DatabaseTrouble trouble) {
        return trouble == DatabaseTrouble.FULL
                ? problem(
                        503,
                        "The database's disk is full",
                        "Nothing was changed: the disk of the database is full. The operator of this server has "
                                + "to make room; then do it again.",
                        Map.of())
                : problem(
                        503,
                        "The database does not answer",
                        "The server is running but cannot reach its database. Your last change may not be saved: "
                                + "look again later. Running jobs continue automatically.",
                        Map.of());
    }

    private static Response problem(int status, String title, String detail, Map<String, Object> members) {
        Map<String, Object> body = new LinkedHashMap<>();
        body.put("type", "about:blank");
        body.put("title", title);
        body.put("status", status);
        body.put("detail", detail);
        body.putAll(members);
        return Response.status(status)
                .type("application/problem+json")
                .entity(body)
                .build();
    }
}
