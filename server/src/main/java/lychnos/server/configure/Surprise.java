package lychnos.server.configure;

/** Something that a person must look at before the work goes on. */
class Surprise extends Exception {

    private final String advice;

    Surprise(String sentence, String advice) {
        super(sentence);
        this.advice = advice;
    }

    /** What to do about it. */
    String advice() {
        return advice;
    }
}
