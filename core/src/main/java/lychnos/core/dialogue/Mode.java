package lychnos.core.dialogue;

/** Who answers. It can be changed at any moment. */
public enum Mode {
    /** The person types; the tool follows, ticks off and warns. */
    WATCH,
    /** The tool types each answer when the person says so. */
    ASK,
    /** The tool answers up to the next thing that needs a person. */
    RUN
}
