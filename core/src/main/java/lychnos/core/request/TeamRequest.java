package lychnos.core.request;

import java.util.List;
import lychnos.core.export.FlowPurpose;
import org.jspecify.annotations.Nullable;

/**
 * Something that another team is asked for.
 *
 * @param key tells it from the others of a bring-up, also after the plan has changed
 * @param subject what it is about: the other end of a flow, the relay, the image, the fact
 * @param detail the address or prefix of the other end, empty where only a name is known; the kind of an image or a key
 * @param machines which machines need it: addresses for flows and the relay, units for images and keys
 * @param open which of them still lack an image or a key; empty for the others
 * @param port the port of a flow, such as {@code tcp 443}; empty for the others
 * @param fallback the port that is used where the first does not answer; empty for none
 * @param purpose what a flow is for; null for the others
 */
public record TeamRequest(
        String key,
        RequestSort sort,
        String subject,
        String detail,
        List<String> machines,
        List<String> open,
        String port,
        String fallback,
        @Nullable FlowPurpose purpose) {

    /** What is asked for, and with that which team is asked. */
    public enum RequestSort {
        /** A firewall lets our machines reach somebody. */
        FLOW_OUT,
        /** A firewall lets people reach our machines. */
        FLOW_IN,
        /** A firewall lets the machines of a unit reach each other. */
        FLOW_BETWEEN,
        /** The mail relay accepts mail from our machines. */
        RELAY,
        /** An image file, to download and check. */
        IMAGE,
        /** A licence key, or the answer to a licence request. */
        KEY
    }

    public TeamRequest {
        machines = List.copyOf(machines);
        open = List.copyOf(open);
    }

    /** What is asked for, in a few words. */
    public String title() {
        String other = detail.isEmpty() || detail.equals(subject) ? subject : subject + " (" + detail + ")";
        return switch (sort) {
            case FLOW_OUT -> RequestText.FLOW_TO.text(port, other);
            case FLOW_IN -> RequestText.FLOW_FROM.text(port, other);
            case FLOW_BETWEEN -> RequestText.FLOW_BETWEEN.text(port);
            case RELAY -> RequestText.ASK_FOR_RELAY.text(other);
            case IMAGE ->
                subject.isEmpty()
                        ? RequestText.ASK_FOR_IMAGE_OF_KIND.text(detail)
                        : RequestText.ASK_FOR_IMAGE.text(subject);
            case KEY -> RequestText.ASK_FOR_KEY.text(subject, detail);
        };
    }
}
