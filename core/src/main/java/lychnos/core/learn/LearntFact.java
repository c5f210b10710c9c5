package lychnos.core.learn;

/**
 * A fact that a unit needs and its kind does not have yet.
 *
 * @param name by which steps mean it
 * @param title what people call it
 * @param sort what it is
 * @param find where people find it; empty while that was not said
 */
public record LearntFact(String name, String title, FactSort sort, String find) {

    /** What a fact is. */
    public enum FactSort {
        /** A text of each unit. */
        TEXT,
        /** A text that is the same on every unit. */
        SAME_TEXT,
        /** A password that is made for each unit. */
        MADE_SECRET,
        /** A password that a person enters, such as the one of the factory. */
        GIVEN_SECRET
    }
}
