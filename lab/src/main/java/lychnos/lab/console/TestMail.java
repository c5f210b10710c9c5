package lychnos.lab.console;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** A machine's own test mail, handed to its relay (RFC 5321, section 3.3). */
final class TestMail {

    private static final int PATIENCE_MILLIS = 5000;

    private TestMail() {}

    /** Hands a mail over; gives what the relay said last. */
    static String hand(String relay, int port, String name, String sender, String recipient) {
        try (Socket socket = new Socket()) {
            socket.connect(new InetSocketAddress(InetAddress.getByName(relay), port), PATIENCE_MILLIS);
            socket.setSoTimeout(PATIENCE_MILLIS);
            BufferedReader in =
                    new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII));
            String said = reply(in);
            for (String line : List.of(
                    "EHLO " + name,
                    "MAIL FROM:<" + sender + ">",
                    "RCPT TO:<" + recipient + ">",
                    "DATA",
                    "Subject: from " + name + "\r\n\r\nA test.\r\n.")) {
                if (said.isEmpty() || said.charAt(0) > '3') {
                    return "refused: " + said;
                }
                socket.getOutputStream().write((line + "\r\n").getBytes(StandardCharsets.US_ASCII));
                said = reply(in);
            }
            return said.startsWith("2") ? "taken: " + said : "refused: " + said;
        } catch (IOException e) {
            return "nobody answers at " + relay;
        }
    }

    private static String reply(BufferedReader in) throws IOException {
        String line = in.readLine();
        while (line != null && line.length() > 3 && line.charAt(3) == '-') {
            line = in.readLine();
        }
        return line == null ? "" : line;
    }
}
