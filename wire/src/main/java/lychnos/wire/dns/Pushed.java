package lychnos.wire.dns;

/**
 * What became of one record that was to be made or removed.
 *
 * @param why the server's answer in words; empty where all went well
 */
public record Pushed(ZoneRecord record, State state, String why) {

    /** How it went. */
    public enum State {
        /** The server took it. */
        DONE,
        /** It was so already. */
        THERE,
        /** The server refused, or there is a record that is not ours. */
        REFUSED,
        /** No answer: it may have been taken. Sending it again is harmless. */
        UNKNOWN
    }
}
