package lychnos.wire.console;

import lychnos.core.address.Address;
import lychnos.core.fact.Secret;

/**
 * Where a console line is reached.
 *
 * @param address of the line server or machine; null for a device and a browser
 * @param device path of a local serial device; empty for all others
 * @param user for SSH; else empty
 * @param word for SSH; else null
 */
public record LineAddress(Protocol protocol, Address address, int port, String device, String user, Secret word) {

    /** How the bytes travel. */
    public enum Protocol {
        /** Bytes over TCP as they are. */
        RAW,
        /** RFC 854. */
        TELNET,
        /** Telnet with control of the serial port. */
        RFC2217,
        SSH,
        /** A serial port of this machine. */
        DEVICE,
        /** A serial port of the computer in whose browser a person works; only that browser can open it. */
        BROWSER
    }

    /** A line over TCP. */
    public static LineAddress tcp(Protocol protocol, Address address, int port) {
        return new LineAddress(protocol, address, port, "", "", null);
    }

    public static LineAddress ssh(Address address, int port, String user, Secret word) {
        return new LineAddress(Protocol.SSH, address, port, "", user, word);
    }

    public static LineAddress device(String path) {
        return new LineAddress(Protocol.DEVICE, null, 0, path, "", null);
    }

    /** Wherever the person at the machine works. */
    public static LineAddress browser() {
        return new LineAddress(Protocol.BROWSER, null, 0, "browser", "", null);
    }

    @Override
    public String toString() {
        return address == null ? device : address + ":" + port;
    }
}
