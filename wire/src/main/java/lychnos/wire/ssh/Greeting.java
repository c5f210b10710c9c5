package lychnos.wire.ssh;

import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import lychnos.wire.fault.Refused;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.time.TimeLeft;

/** Reads how an SSH server greets (RFC 4253, section 4.2), and says nothing itself. */
public final class Greeting {

    /** The identification string with its line end. */
    private static final int LONGEST = 255;
    /** Other lines may come before it; a server that never gets to the point is told. */
    private static final int MOST_BEFORE = 20;

    private Greeting() {}

    /**
     * The identification string, such as {@code SSH-2.0-OpenSSH_9.2}.
     *
     * @param timeout for connecting and for all that is read together
     * @throws WireFault of kind SILENT, REFUSED, or GARBAGE where something else greets
     */
    public static String read(InetSocketAddress peer, Duration timeout) throws WireFault {
        TimeLeft left = TimeLeft.of(timeout);
        try (Socket socket = new Socket()) {
            socket.connect(peer, (int) timeout.toMillis());
            InputStream in = socket.getInputStream();
            for (int lines = 0; lines <= MOST_BEFORE; lines++) {
                String line = line(socket, in, left);
                if (line.startsWith("SSH-")) {
                    return line;
                }
            }
            throw new WireFault(Kind.GARBAGE, WireText.SSH_TOO_MANY_LINES.text(MOST_BEFORE));
        } catch (SocketTimeoutException e) {
            throw new WireFault(Kind.SILENT, WireText.SSH_NO_GREETING.text(timeout.toSeconds()), e);
        } catch (ConnectException e) {
            throw Refused.orNone(e);
        } catch (IOException e) {
            throw new WireFault(Kind.SILENT, WireText.SSH_ENDED_BEFORE_GREETING.text(), e);
        }
    }

    private static String line(Socket socket, InputStream in, TimeLeft left) throws IOException, WireFault {
        byte[] line = new byte[LONGEST];
        for (int length = 0; length < LONGEST; length++) {
            if (left.over()) {
                throw new SocketTimeoutException(WireText.DRIP_OF_CHARACTERS.text());
            }
            socket.setSoTimeout(left.millis());
            int next = in.read();
            if (next < 0) {
                throw new IOException("ended");
            }
            if (next == '\n') {
                return new String(line, 0, length, StandardCharsets.US_ASCII).strip();
            }
            line[length] = (byte) next;
        }
        throw new WireFault(Kind.GARBAGE, WireText.SSH_LINE_TOO_LONG.text(LONGEST));
    }
}
