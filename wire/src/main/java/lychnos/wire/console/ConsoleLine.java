package lychnos.wire.console;

/**
 * An open console line. Safe for use by several threads; what is sent on a line that is down is lost without a word.
 */
public interface ConsoleLine extends AutoCloseable {

    /** Sends bytes as they are; what the transport must escape it escapes itself. */
    void send(byte[] bytes);

    /** Holds the line in the break condition for about a quarter of a second, or does what the transport has for it. */
    void sendBreak();

    /** Tells the far side how large the screen is, where the transport can. */
    void resize(int columns, int rows);

    /** Closes it; {@link LineEvents#down} is not called for it. */
    @Override
    void close();
}
