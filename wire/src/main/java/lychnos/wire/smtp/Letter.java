package lychnos.wire.smtp;

/**
 * A plain letter (RFC 5322).
 *
 * @param from whom it comes from, as a bare address
 * @param to whom it goes to, as a bare address
 * @param subject one line
 * @param text its body
 */
public record Letter(String from, String to, String subject, String text) {}
