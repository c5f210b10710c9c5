package lychnos.wire.fault;

import java.net.ConnectException;

/**
 * Tells a connection that was refused (a TCP reset, RFC 9293 section 3.10.7: a machine is there) from one that could
 * not be made. Java has one class for both and no code: {@link ConnectException} with the text of the operating system.
 * This is the one place that reads that text.
 */
public final class Refused {

    private Refused() {}

    public static boolean is(Throwable fault) {
        return fault instanceof ConnectException
                && String.valueOf(fault.getMessage()).contains("refused");
    }

    /** The fault of a connection that could not be made. */
    public static WireFault orNone(Throwable fault) {
        return is(fault)
                ? new WireFault(WireFault.Kind.REFUSED, WireText.CONNECTION_REFUSED.text(), fault)
                : new WireFault(WireFault.Kind.SILENT, WireText.NO_CONNECTION.text(), fault);
    }
}
