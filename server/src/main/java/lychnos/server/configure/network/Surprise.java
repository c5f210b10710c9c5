package lychnos.server.configure.network;

/** Something that a person must look at before the work goes on. */
class Surprise extends Exception {

    private final String advice;
    private final boolean passing;

    Surprise(String sentence, String advice) {
        this(sentence, advice, false);
    }

    /** @param passing whether trying again a moment later may help without a person */
    Surprise(String sentence, String advice, boolean passing) {
        super(sentence);
        this.advice = advice;
        this.passing = passing;
    }

    boolean passing() {
        return passing;
    }

    /** What to do about it. */
    String advice() {
        return advice;
    }
}
