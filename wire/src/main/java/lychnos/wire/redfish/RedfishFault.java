package lychnos.wire.redfish;

import java.util.List;

/** A service answered, and the answer was no. */
public class RedfishFault extends Exception {

    private final int status;
    private final String messageId;
    private final List<String> arguments;

    RedfishFault(int status, String messageId, List<String> arguments, String message) {
        super(message);
        this.status = status;
        this.messageId = messageId;
        this.arguments = List.copyOf(arguments);
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
}
