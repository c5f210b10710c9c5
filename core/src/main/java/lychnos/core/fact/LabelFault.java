package lychnos.core.fact;

/**
 * One thing wrong in a label list, said so that it can be fixed.
 *
 * @param line the line in the text, counted from 1
 * @param column the name of the column, or an empty text where the whole line is meant
 * @param value the value found
 * @param reason a sentence
 */
public record LabelFault(int line, String column, String value, String reason) {}
