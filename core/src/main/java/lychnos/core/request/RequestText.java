package lychnos.core.request;

import lychnos.core.text.Message;

/** What was measured of a request to another team. */
enum RequestText implements Message {
    ANSWERS_FROM_HERE("answers this server"),
    ASK_FOR_IMAGE("download {image}"),
    ASK_FOR_IMAGE_OF_KIND("download an image for: {kind}"),
    ASK_FOR_KEY("{fact} for: {kind}"),
    ASK_FOR_RELAY("accept mail from our machines: {relay}"),
    ENTERED("{there} of {all} entered"),
    FLOW_BETWEEN("{port} between the machines of a unit"),
    FLOW_FROM("{port} from {other}"),
    FLOW_TO("{port} to {other}"),
    IMAGE_CHECKED("checked for {there} of {all}"),
    PORTS_ANSWER("{answering} of {all} answer this server"),
    RELAY_NOT_TRIED("answers this server; no machine has sent mail yet"),
    SILENT_FROM_HERE("does not answer this server");

    private final String pattern;

    RequestText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
