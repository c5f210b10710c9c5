package lychnos.core.rule;

/**
 * Something that would go wrong.
 *
 * @param code a short fixed word for the finding
 * @param blocks whether the work must not go on before it is mended
 * @param what what is wrong, in one sentence
 * @param why why it matters, and how to mend it
 */
public record Finding(String code, boolean blocks, String what, String why) {}
