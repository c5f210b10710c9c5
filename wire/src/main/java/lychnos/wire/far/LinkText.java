package lychnos.wire.far;

import lychnos.core.text.Message;

/** Texts about the link between the server and a vantage point. */
enum LinkText implements Message {
    ANSWER_UNREADABLE("The answer of vantage point {name} cannot be read: {fault}"),
    CUT_OFF("Vantage point {name} is cut off; its targets were not checked."),
    CUT_OFF_MEANWHILE("Vantage point {name} was cut off while it worked; its targets were not checked."),
    DISCONNECTED("Vantage point {name} is disconnected."),
    LINKED("linked to {server} as {name}, for {networks}"),
    LINKED_WITHOUT_NETWORKS("linked to {server} as {name}, for no network yet"),
    LINK_LOST("the link to {server} is lost; running work continues"),
    LINK_REFUSED("{server} refuses this link: {reason}"),
    MESSAGE_UNREADABLE("the server sent something that cannot be read: {fault}"),
    NOT_CONNECTED("Vantage point {name} is not connected; its targets were not checked."),
    NO_ANSWER_IN_TIME("Vantage point {name} did not answer in time."),
    NO_LINK("no link to {server}: {fault}"),
    NO_VANTAGE_POINT("There is no vantage point with the name {name}."),
    TOKEN_UNKNOWN("{server} does not know this token, or it was revoked"),
    TOO_MANY_LINES("More than {most} lines are open at this vantage point.");

    private final String pattern;

    LinkText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
