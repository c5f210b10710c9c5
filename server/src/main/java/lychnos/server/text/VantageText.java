package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of vantage points. */
public enum VantageText implements Message {
    ADDED_VANTAGE_POINT("added vantage point {wanted}"),
    ALREADY_A_VANTAGE_POINT_CALLED("There is already a vantage point called {wanted}."),
    NAME_OF_A_VANTAGE_POINT_CONSISTS(
            "The name of a vantage point consists of lowercase letters, digits and hyphens, such as hall-3."),
    NO_SUCH_NETWORK("There is no such network."),
    NO_SUCH_VANTAGE_POINT("There is no such vantage point."),
    REVOKED_VANTAGE_POINT("revoked vantage point {name}"),
    VANTAGE_POINT_AND_THE_SERVER(
            "The vantage point and the server are of different versions of Lychnos (link version {version} here, "
                    + "{value} at the server). Install the version of the server here, and start it again."),
    WHICH_NETWORKS("Which networks?");

    private final String pattern;

    VantageText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
