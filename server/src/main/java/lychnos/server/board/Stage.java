package lychnos.server.board;

import com.fasterxml.jackson.annotation.JsonProperty;

/** The stages of the work, as the web names them in its addresses. */
public enum Stage {
    @JsonProperty("prepare")
    PREPARE,
    @JsonProperty("allocate")
    ALLOCATE,
    @JsonProperty("configure")
    CONFIGURE,
    @JsonProperty("prove")
    PROVE,
    @JsonProperty("handover")
    HANDOVER
}
