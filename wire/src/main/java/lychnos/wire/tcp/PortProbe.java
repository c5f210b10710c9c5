package lychnos.wire.tcp;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.time.Duration;
import lychnos.wire.fault.Refused;

/** Opens a TCP connection and closes it at once. */
public final class PortProbe {

    public PortState probe(InetSocketAddress peer, Duration timeout) {
        try (Socket socket = new Socket()) {
            socket.connect(peer, (int) timeout.toMillis());
            return PortState.OPEN;
        } catch (ConnectException e) {
            return Refused.is(e) ? PortState.REFUSED : PortState.SILENT;
        } catch (IOException e) {
            return PortState.SILENT;
        }
    }
}
