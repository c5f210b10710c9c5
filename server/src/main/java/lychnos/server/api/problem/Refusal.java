package lychnos.server.api.problem;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.text.Message;
import lychnos.core.text.Said;
import lychnos.server.text.ApiText;

/**
 * A request that is not carried out, with a message for the person who made it. Becomes a problem document (RFC 9457)
 * with the members "code", which programs decide by, and "values", where the message has any.
 */
public class Refusal extends RuntimeException {

    private final int status;
    private final Message title;
    private final Map<String, Object> members;

    /**
     * What is wrong with one field of a form.
     *
     * @param field its name in the request
     * @param reason a sentence
     * @param code of the sentence; null where a machine or a reader of the core said it
     */
    public record FieldFault(String field, String reason, String code) {

        public FieldFault(String field, String reason) {
            this(field, reason, null);
        }

        public FieldFault(String field, Said reason) {
            this(field, reason.text(), reason.code());
        }
    }

    private Refusal(int status, Message title, String detail, Map<String, Object> members) {
        super(detail);
        this.status = status;
        this.title = title;
        this.members = members;
    }

    private Refusal(int status, Message title, Said detail, Map<String, Object> members) {
        this(status, title, detail.text(), coded(detail, members));
    }

    /** The members of a problem document that tell what a message says, and these. */
    public static Map<String, Object> coded(Said said, Map<String, Object> members) {
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("code", said.code());
        if (!said.values().isEmpty()) {
            all.put("values", said.values());
        }
        all.putAll(members);
        return all;
    }

    public static Refusal notFound(Said what) {
        return new Refusal(404, ApiText.NOT_FOUND, what, Map.of());
    }

    /** The request cannot be understood, or would do harm. */
    public static Refusal bad(Said detail) {
        return new Refusal(400, ApiText.INVALID_REQUEST, detail, Map.of());
    }

    /** The same, in the words of what read the request. */
    public static Refusal bad(String detail) {
        return new Refusal(400, ApiText.INVALID_REQUEST, detail, Map.of());
    }

    /** Fields of a form are wrong. */
    public static Refusal fields(List<FieldFault> faults) {
        return new Refusal(400, ApiText.SOME_VALUES_ARE_INVALID, faults.get(0).reason(), Map.of("faults", faults));
    }

    /** Something has changed meanwhile, or blocks the request. */
    public static Refusal conflict(Said detail, Map<String, Object> members) {
        return new Refusal(409, ApiText.CONFLICT, detail, members);
    }

    public static Refusal conflict(Said detail) {
        return conflict(detail, Map.of());
    }

    /** The same, in the words of a machine or of what asked it. */
    public static Refusal conflict(String detail) {
        return new Refusal(409, ApiText.CONFLICT, detail, Map.of());
    }

    /** What somebody wants to change is not as they saw it. */
    public static Refusal outdated(Said detail, Map<String, Object> members) {
        return new Refusal(412, ApiText.CHANGED_MEANWHILE, detail, members);
    }

    /**
     * The body of a request.
     *
     * @throws Refusal 400 if there is none
     */
    public static <T> T required(T body) {
        if (body == null) {
            throw bad(ApiText.REQUEST_HAS_NO_BODY.said());
        }
        return body;
    }

    public static Refusal unauthorised(Said detail) {
        return new Refusal(401, ApiText.NOT_SIGNED_IN, detail, Map.of());
    }

    /** @param seconds after which it is worth another try */
    public static Refusal tooMany(Said detail, int seconds) {
        return new Refusal(429, ApiText.TOO_OFTEN, detail, Map.of("retryAfter", seconds));
    }

    public static Refusal forbidden(Said detail) {
        return new Refusal(403, ApiText.NOT_ALLOWED, detail, Map.of());
    }

    public int status() {
        return status;
    }

    public Message title() {
        return title;
    }

    public Map<String, Object> members() {
        return members;
    }
}
