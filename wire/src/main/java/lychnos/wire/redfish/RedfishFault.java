package lychnos.wire.redfish;

import java.util.List;
import java.util.Set;

/** A service answered, and the answer was no. */
public class RedfishFault extends Exception {

    private final int status;
    private final String messageId;
    private final List<String> arguments;
    private final Set<String> properties;

    RedfishFault(int status, String messageId, List<String> arguments, String message) {
        this(status, messageId, arguments, Set.of(), message);
    }

    RedfishFault(int status, String messageId, List<String> arguments, Set<String> properties, String message) {
        super(message);
        this.status = status;
        this.messageId = messageId;
        this.arguments = List.copyOf(arguments);
        this.properties = Set.copyOf(properties);
    }

    /** The HTTP status. */
    public int status() {
        return status;
    }

    /** Whether the message is this one, whatever version of the registry it is written in (DSP0268). */
    public boolean is(String message) {
        return messageId.equals(message) || messageId.endsWith("." + message);
    }

    public List<String> arguments() {
        return arguments;
    }

    /**
     * What the messages of the answer are about: names of properties from their arguments and from their
     * RelatedProperties (DSP0266 section 8.6), the outermost name of each. May contain arguments that are no names.
     */
    public Set<String> properties() {
        return properties;
    }

    /** Whether the service does not have what was asked for: 404, 405 or 501. */
    public boolean absent() {
        return status == 404 || status == 405 || status == 501;
    }
}
