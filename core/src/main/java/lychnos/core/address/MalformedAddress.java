package lychnos.core.address;

/** A text that is no address, prefix or range. The message is a sentence for the person who typed it. */
public class MalformedAddress extends IllegalArgumentException {

    public MalformedAddress(String message) {
        super(message);
    }
}
