package lychnos.lab.console;

import java.util.function.Consumer;

/**
 * The socket at the back of a machine that a console cable is plugged into. What is said while nobody is on it is lost.
 */
interface SerialPort {

    /** Rate, data bits, parity and stop bits as one word, such as 57600-8N1. */
    String settings();

    /** The client that receives what the machine says from now on, or null. */
    void attach(Consumer<byte[]> hears, Runnable cut);

    void typed(byte[] bytes);

    void breakSeen();
}
