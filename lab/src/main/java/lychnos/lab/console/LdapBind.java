package lychnos.lab.console;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;

/** A simple bind at a directory (RFC 4511, section 4.2), as a machine does it for somebody who wants in. */
final class LdapBind {

    private static final int LDAP = 389;
    /** Where the accounts of the hall are. */
    private static final String BASE = "dc=ardal,dc=example";

    private static final int PATIENCE_MILLIS = 3000;
    private static final int SEQUENCE = 0x30;
    private static final int INTEGER = 0x02;
    private static final int OCTETS = 0x04;
    private static final int BIND_REQUEST = 0x60;
    private static final int SIMPLE = 0x80;
    private static final int VERSION = 3;
    /** An answer to the bind is no longer than this, and its result is at a fixed place in a short one. */
    private static final int RESULT_AT = 9;

    private LdapBind() {}

    /** The result of a bind. */
    enum Answer {
        ADMITTED,
        REFUSED,
        SILENT
    }

    static Answer ask(String own, String server, String account, String secret) {
        try (Socket socket = new Socket()) {
            socket.bind(new InetSocketAddress(InetAddress.getByName(own), 0));
            socket.connect(new InetSocketAddress(server, LDAP), PATIENCE_MILLIS);
            socket.setSoTimeout(PATIENCE_MILLIS);
            byte[] bind = tagged(
                    BIND_REQUEST,
                    joined(
                            tagged(INTEGER, new byte[] {VERSION}),
                            tagged(OCTETS, text("uid=" + account + "," + BASE)),
                            tagged(SIMPLE, text(secret))));
            socket.getOutputStream().write(tagged(SEQUENCE, joined(tagged(INTEGER, new byte[] {1}), bind)));
            InputStream in = socket.getInputStream();
            byte[] answer = in.readNBytes(RESULT_AT + 1);
            return answer.length > RESULT_AT && answer[RESULT_AT] == 0 ? Answer.ADMITTED : Answer.REFUSED;
        } catch (IOException e) {
            return Answer.SILENT;
        }
    }

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] joined(byte[]... parts) {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        for (byte[] part : parts) {
            all.writeBytes(part);
        }
        return all.toByteArray();
    }

    /** Tag, length and content (ITU-T X.690, section 8.1); nothing here is longer than 127 octets. */
    private static byte[] tagged(int tag, byte[] content) {
        return joined(new byte[] {(byte) tag, (byte) content.length}, content);
    }
}
