package lychnos.wire.far;

/** The other end of a link, to which messages are sent. */
@FunctionalInterface
public interface Link {

    /** @throws IllegalStateException where the link is cut */
    void send(LinkMessage message);
}
