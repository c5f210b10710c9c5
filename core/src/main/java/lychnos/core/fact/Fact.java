package lychnos.core.fact;

/**
 * A value with where it comes from.
 *
 * @param value its canonical text; for a secret only a word that it is there
 * @param source where it comes from
 */
public record Fact(String value, Source source) {

    /** Where a fact comes from, strongest first: a typed value outdoes what the site or the kind would answer. */
    public enum Source {
        TYPED("typed"),
        IMPORTED("imported"),
        LABEL("label"),
        DERIVED("derived"),
        SITE("site"),
        KIND("kind");

        private final String word;

        Source(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }
}
