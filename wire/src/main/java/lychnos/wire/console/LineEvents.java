package lychnos.wire.console;

/**
 * What comes from a console line. Called one after the other, never at the same time for one line; none may block for
 * long.
 */
public interface LineEvents {

    /** The line stands. */
    void up();

    void received(byte[] bytes);

    /** The line is gone, or never came; nothing follows. */
    void down(String why);

    /** Something that people should see and that stops nothing, such as a rate that was not taken. */
    void noted(String sentence);

    /**
     * Asks whether a line server's key may be trusted.
     *
     * @param fingerprint SHA-256 of the host key, in the usual notation (RFC 4255 calls it a fingerprint)
     * @return whether to go on; nothing has been sent to it yet
     */
    boolean hostKey(String fingerprint);
}
