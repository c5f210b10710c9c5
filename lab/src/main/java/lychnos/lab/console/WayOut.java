package lychnos.lab.console;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Base64;

/** How a machine finds out whether a proxy lets it out (CONNECT, RFC 9110, section 9.3.6; log-in by RFC 7617). */
final class WayOut {

    private static final int PATIENCE_MILLIS = 5000;

    private WayOut() {}

    static String through(String proxy, int port, String user, String phrase, String target) {
        try (Socket socket = new Socket()) {
            socket.connect(new InetSocketAddress(InetAddress.getByName(proxy), port), PATIENCE_MILLIS);
            socket.setSoTimeout(PATIENCE_MILLIS);
            String login = Base64.getEncoder().encodeToString((user + ":" + phrase).getBytes(StandardCharsets.UTF_8));
            socket.getOutputStream()
                    .write(("CONNECT " + target + " HTTP/1.1\r\nHost: " + target + "\r\nProxy-Authorization: Basic "
                                    + login + "\r\n\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            String line = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII))
                    .readLine();
            return line != null && line.matches("HTTP/1\\.[01] 200.*") ? "let out" : "kept in: " + line;
        } catch (IOException e) {
            return "nobody answers at " + proxy;
        }
    }
}
