package lychnos.lab;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.HashMap;
import java.util.Map;

/** An answer of the stand-in's web service; the body is null where there is none. */
record Reply(int status, Map<String, String> headers, ObjectNode body) {

    /** No answer: the connection is closed. */
    static final int HANG_UP = -1;

    private static final ObjectMapper JSON = new ObjectMapper();

    static Reply ok(ObjectNode body) {
        return new Reply(200, Map.of(), body);
    }

    static Reply created(ObjectNode session, String token) {
        return new Reply(
                201,
                Map.of(
                        "X-Auth-Token",
                        token,
                        "Location",
                        session.path("@odata.id").asText()),
                session);
    }

    static Reply empty(int status) {
        return new Reply(status, Map.of(), null);
    }

    static Reply notAllowed() {
        return error(405, "Base.1.18.OperationNotAllowed", "That cannot be done here.");
    }

    /** The error body of DSP0266. */
    static Reply error(int status, String id, String text, String... arguments) {
        ObjectNode body = JSON.createObjectNode();
        ObjectNode error = body.putObject("error").put("code", id).put("message", text);
        error.set("@Message.ExtendedInfo", message(id, text, arguments));
        return new Reply(status, Map.of(), body);
    }

    static Reply unknownProperty(String property) {
        return error(400, "Base.1.18.PropertyUnknown", "The property " + property + " is not known here.", property);
    }

    static ArrayNode message(String id, String text, String... arguments) {
        ArrayNode list = JSON.createArrayNode();
        ArrayNode given =
                list.addObject().put("MessageId", id).put("Message", text).putArray("MessageArgs");
        for (String argument : arguments) {
            given.add(argument);
        }
        return list;
    }

    Reply with(String name, String value) {
        Map<String, String> more = new HashMap<>(headers);
        more.put(name, value);
        return new Reply(status, more, body);
    }
}
