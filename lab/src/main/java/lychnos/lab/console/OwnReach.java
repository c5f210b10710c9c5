package lychnos.lab.console;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;

/** What a machine finds out on its own about a neighbour: whether anything answers at that address. */
final class OwnReach {

    private static final int ECHO = 7;
    private static final int PATIENCE_MILLIS = 2000;

    private OwnReach() {}

    /**
     * Opens a connection from one of the machine's own addresses; a refusal is an answer too (RFC 9293, section
     * 3.10.7.1).
     */
    static boolean answers(String own, String neighbour) {
        try (Socket socket = new Socket()) {
            socket.bind(new InetSocketAddress(InetAddress.getByName(own), 0));
            socket.connect(new InetSocketAddress(InetAddress.getByName(neighbour), ECHO), PATIENCE_MILLIS);
            return true;
        } catch (ConnectException refused) {
            return refused.getMessage().contains("refused");
        } catch (IOException e) {
            return false;
        }
    }
}
