package lychnos.server.board;

import com.fasterxml.jackson.annotation.JsonProperty;

/** How far a unit is with one stage; the web draws a shape for each. */
public enum Mark {
    /** Nothing can be done yet. */
    @JsonProperty("dark")
    DARK,
    /** A person can begin. */
    @JsonProperty("set")
    SET,
    @JsonProperty("work")
    WORK,
    /** A machine is busy; nothing is to be done meanwhile. */
    @JsonProperty("wait")
    WAIT,
    /** Proven. */
    @JsonProperty("lit")
    LIT,
    @JsonProperty("done")
    DONE,
    @JsonProperty("fault")
    FAULT
}
