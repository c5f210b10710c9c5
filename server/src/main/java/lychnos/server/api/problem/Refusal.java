package lychnos.server.api.problem;

import java.util.List;
import java.util.Map;

/**
 * A request that is not carried out, with a message for the person who made it. Becomes a problem document (RFC 9457).
 */
public class Refusal extends RuntimeException {

    private final int status;
    private final String title;
    private final Map<String, Object> members;

    /**
     * What is wrong with one field of a form.
     *
     * @param field its name in the request
     * @param reason a sentence
     */
    public record FieldFault(String field, String reason) {}

    private Refusal(int status, String title, String detail, Map<String, Object> members) {
        super(detail);
        this.status = status;
        this.title = title;
        this.members = members;
    }

    public static Refusal notFound(String what) {
        return new Refusal(404, "Not found", what, Map.of());
    }

    /** The request cannot be understood, or would do harm. */
    public static Refusal bad(String detail) {
        return new Refusal(400, "Invalid request", detail, Map.of());
    }

    /** Fields of a form are wrong. */
    public static Refusal fields(List<FieldFault> faults) {
        return new Refusal(400, "Some values are invalid", faults.get(0).reason(), Map.of("faults", faults));
    }

    /** Something has changed meanwhile, or blocks the request. */
    public static Refusal conflict(String detail, Map<String, Object> members) {
        return new Refusal(409, "Conflict", detail, members);
    }

    public static Refusal conflict(String detail) {
        return conflict(detail, Map.of());
    }

    /** What somebody wants to change is not as they saw it. */
    public static Refusal outdated(String detail, Map<String, Object> members) {
        return new Refusal(412, "Changed meanwhile", detail, members);
    }

    /**
     * The body of a request.
     *
     * @throws Refusal 400 if there is none
     */
    public static <T> T required(T body) {
        if (body == null) {
            throw bad("The request has no body.");
        }
        return body;
    }

    public static Refusal unauthorised(String detail) {
        return new Refusal(401, "Not signed in", detail, Map.of());
    }

    /** @param seconds after which it is worth another try */
    public static Refusal tooMany(String detail, int seconds) {
        return new Refusal(429, "Too often", detail, Map.of("retryAfter", seconds));
    }

    /** @param code by which the page decides what to do; null where there is nothing to do */
    public static Refusal forbidden(String detail, String code) {
        return new Refusal(403, "Not allowed", detail, code == null ? Map.of() : Map.of("code", code));
    }

    public int status() {
        return status;
    }

    public String title() {
        return title;
    }

    public Map<String, Object> members() {
        return members;
    }
}
