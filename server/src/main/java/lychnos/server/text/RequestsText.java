package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of requests to other teams. */
public enum RequestsText implements Message {
    ADDED_REQUEST("added the request “{title}”"),
    BY_PERSON("by {person}"),
    CHANGED_REQUEST("request “{title}”: {change}"),
    CHANGED_REQUESTS("request “{title}” and {others} {others|other|others}: {change}"),
    NOTED("note “{note}”"),
    NO_DAY("without a day"),
    NO_PERSON("nobody in charge"),
    NO_SUCH_REQUEST("There is no such request in this bring-up. Load the page again."),
    REQUEST_WAS_CHANGED("{by} has changed “{title}” since you loaded it. Look at it again, then repeat your change."),
    UNTIL_DAY("until {day}");

    private final String pattern;

    RequestsText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
