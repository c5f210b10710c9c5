package lychnos.wire.proxy;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import lychnos.core.kind.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.tcp.Deadline;

/** Asks a web proxy to let a connection through (CONNECT, RFC 9110 section 9.3.6) and hangs up at once. */
public final class ProxyProbe {

    private static final int LONGEST_LINE = 512;

    /**
     * What it answered.
     *
     * @param status the HTTP status, 0 where there was none
     * @param line its status line, or why there was none
     */
    public record ProxySeen(int status, String line) {}

    /**
     * Asks once.
     *
     * @param target host and port to be connected to, such as {@code activate.ardal.example:443}
     * @param login as whom (RFC 7617), or null where it wants none
     */
    public ProxySeen probe(InetSocketAddress proxy, String target, Kind.Login login, Duration timeout) {
        try (Socket socket = new Socket()) {
            socket.connect(proxy, (int) timeout.toMillis());
            socket.setSoTimeout((int) timeout.toMillis());
            try (Deadline whole = Deadline.of(socket, timeout)) {
                return asked(socket, target, login, whole);
            }
        } catch (SocketTimeoutException e) {
            return new ProxySeen(0, "silent");
        } catch (IOException e) {
            return new ProxySeen(0, String.valueOf(e.getMessage()));
        }
    }

    private static ProxySeen asked(Socket socket, String target, Kind.Login login, Deadline whole) throws IOException {
        try {
            socket.getOutputStream()
                    .write(("CONNECT " + target + " HTTP/1.1\r\nHost: " + target + "\r\n" + credentials(login) + "\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            String line = line(socket.getInputStream());
            boolean http = line.matches("HTTP/1\\.[01] [1-5][0-9]{2}( .*)?");
            return http
                    ? new ProxySeen(Integer.parseInt(line.substring(9, 12)), line)
                    : new ProxySeen(0, WireText.NOT_HTTP.text());
        } catch (IOException e) {
            if (whole.over()) {
                throw new SocketTimeoutException();
            }
            throw e;
        }
    }

    private static String credentials(Kind.Login login) {
        return login == null
                ? ""
                : login.phrase()
                        .use(phrase -> "Proxy-Authorization: Basic "
                                + Base64.getEncoder()
                                        .encodeToString((login.user() + ":" + phrase).getBytes(StandardCharsets.UTF_8))
                                + "\r\n");
    }

    private static String line(InputStream in) throws IOException {
        StringBuilder line = new StringBuilder();
        for (int c = in.read(); c >= 0 && c != '\n' && line.length() < LONGEST_LINE; c = in.read()) {
            line.append((char) c);
        }
        return line.toString().strip();
    }
}
