package lychnos.core.learn;

/** How certain it is that a step was understood. */
public enum Certainty {
    /** The log shows it. */
    SURE,
    /** The log speaks for it. */
    LIKELY,
    /** A person decides. */
    OPEN
}
