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
import lychnos.core.text.Message;
import lychnos.core.text.Said;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.DatabaseTrouble;
import lychnos.server.text.ApiText;
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
        return trouble != null
                ? database(trouble)
                : problem(401, ApiText.NOT_SIGNED_IN, ApiText.SIGN_IN_FIRST.said(), Map.of());
    }

    @ServerExceptionMapper
    public Response forbidden(ForbiddenException e) {
        return problem(403, ApiText.NOT_ALLOWED, ApiText.YOUR_ROLE_DOES_NOT_ALLOW.said(), Map.of());
    }

    /** The second one is named because the framework has an answer of its own for it, without a word in it. */
    @ServerExceptionMapper({JsonProcessingException.class, MismatchedInputException.class})
    public Response json(JsonProcessingException e) {
        return problem(400, ApiText.NOT_UNDERSTOOD, ApiText.REQUEST_IS_NOT_JSON_IN_THE_FORMAT.said(place(e)), Map.of());
    }

    /**
     * Where in the body: the member by its path, else line and column. No name of a class, and nothing of what was
     * sent.
     */
    private static String place(JsonProcessingException e) {
        if (e instanceof JsonMappingException mapping && !mapping.getPath().isEmpty()) {
            return ApiText.LOOK.text(mapping.getPath().stream()
                    .map(step -> step.getFieldName() == null ? "[" + step.getIndex() + "]" : step.getFieldName())
                    .collect(Collectors.joining(".")));
        }
        return e.getLocation() == null
                ? ""
                : ApiText.LOOK_AT_LINE.text(
                        e.getLocation().getLineNr(), e.getLocation().getColumnNr());
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
                STATUS_TITLES.getOrDefault(status, ApiText.NOT_POSSIBLE),
                STATUS_TEXTS
                        .getOrDefault(status, ApiText.REQUEST_CANNOT_BE_CARRIED_OUT)
                        .said(),
                Map.of());
        String allow = status == 405 ? methods.of(uri.getPath()) : "";
        return allow.isEmpty()
                ? answer
                : Response.fromResponse(answer).header(HttpHeaders.ALLOW, allow).build();
    }

    private static final Map<Integer, ApiText> STATUS_TITLES = Map.of(
            404,
            ApiText.NOT_FOUND,
            405,
            ApiText.METHOD_NOT_ALLOWED,
            406,
            ApiText.NOT_ACCEPTABLE,
            413,
            ApiText.TOO_LARGE,
            414,
            ApiText.ADDRESS_TOO_LONG,
            415,
            ApiText.UNSUPPORTED_MEDIA_TYPE);

    private static final Map<Integer, ApiText> STATUS_TEXTS = Map.of(
            404, ApiText.ADDRESS_DOES_NOT_EXIST,
            405, ApiText.ROUTE_DOES_NOT_SUPPORT_THE_METHOD,
            406, ApiText.ROUTE_DOES_NOT_SUPPORT_THE_FORMATS,
            413, ApiText.BODY_IS_TOO_LARGE,
            414, ApiText.ADDRESS_OF_THE_REQUEST_IS_TOO_LONG,
            415, ApiText.ROUTE_DOES_NOT_SUPPORT_THE_CONTENT_TYPE);

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
        return problem(500, ApiText.INTERNAL_ERROR, ApiText.UNEXPECTED_ERROR_OCCURRED.said(id), Map.of());
    }

    /**
     * What a constraint of the database refused, where the program did not look before or somebody else was quicker
     * (PostgreSQL, appendix A, error codes).
     */
    private static Optional<Response> refusedByTheDatabase(Exception e) {
        int depth = 0;
        for (Throwable each = e; each != null && depth < DEEPEST; each = each.getCause(), depth++) {
            if (each instanceof OptimisticLockException || each instanceof StaleStateException) {
                return Optional.of(
                        problem(409, ApiText.CONFLICT, ApiText.SOMEBODY_ELSE_CHANGED_OR_DELETED.said(), Map.of()));
            }
            String state = each instanceof SQLException sql ? String.valueOf(sql.getSQLState()) : "";
            switch (state) {
                case "23505", "23P01":
                    return Optional.of(problem(409, ApiText.CONFLICT, ApiText.ALREADY_EXISTS.said(), Map.of()));
                case "23503":
                    return Optional.of(
                            problem(409, ApiText.CONFLICT, ApiText.REFERS_TO_SOMETHING_THAT_IS_GONE.said(), Map.of()));
                case "40001", "40P01", "55P03":
                    return Optional.of(problem(
                            409,
                            ApiText.CONFLICT,
                            ApiText.SOMEBODY_ELSE_CHANGED_THIS_AT_THE_SAME_TIME.said(),
                            Map.of()));
                case "22021", "22P05":
                    return Optional.of(problem(
                            400,
                            ApiText.INVALID_REQUEST,
                            ApiText.TEXT_CONTAINS_A_CHARACTER_THAT_CANNOT.said(),
                            Map.of()));
                case "22001", "22003", "22P02", "23502", "23514":
                    return Optional.of(
                            problem(400, ApiText.INVALID_REQUEST, ApiText.VALUE_IS_OUT_OF_RANGE.said(), Map.of()));
                default:
                    // something else, or a cause that is wrapped
            }
        }
        return Optional.empty();
    }

    private static Response database(DatabaseTrouble trouble) {
        return trouble == DatabaseTrouble.FULL
                ? problem(503, ApiText.DATABASE_DISK_IS_FULL, ApiText.DISK_OF_THE_DATABASE_IS_FULL.said(), Map.of())
                : problem(
                        503,
                        ApiText.DATABASE_DOES_NOT_ANSWER,
                        ApiText.SERVER_CANNOT_REACH_ITS_DATABASE.said(),
                        Map.of());
    }

    private static Response problem(int status, Message title, Said detail, Map<String, Object> members) {
        return problem(status, title, detail.text(), Refusal.coded(detail, members));
    }

    private static Response problem(int status, Message title, String detail, Map<String, Object> members) {
        Map<String, Object> body = new LinkedHashMap<>();
        body.put("type", "about:blank");
        body.put("title", title.text());
        body.put("status", status);
        body.put("detail", detail);
        body.putAll(members);
        return Response.status(status)
                .type("application/problem+json")
                .entity(body)
                .build();
    }
}
