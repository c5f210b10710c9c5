package lychnos.wire.smtp;

import java.io.IOException;
import java.io.Writer;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Base64;
import java.util.UUID;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.tcp.BoundedSockets;
import lychnos.wire.tcp.Deadline;
import org.apache.commons.net.smtp.SMTPClient;
import org.apache.commons.net.smtp.SMTPReply;

/** Hands a letter to a mail relay (RFC 5321). */
public final class Postman {

    private static final int PLAIN_ASCII = 0x7f;
    /** The whole exchange takes as long as so many answers may; a relay that drips would never end. */
    private static final int WHOLE = 3;

    private static final long MOST_BYTES = 64 * 1024;

    private Postman() {}

    /**
     * Sends it.
     *
     * @throws WireFault of kind SILENT, or REFUSED with what the relay said
     */
    public static void send(InetSocketAddress relay, Letter letter, Duration timeout) throws WireFault {
        SMTPClient client = new SMTPClient(StandardCharsets.UTF_8.name());
        client.setConnectTimeout((int) timeout.toMillis());
        client.setDefaultTimeout((int) timeout.toMillis());
        client.setSocketFactory(new BoundedSockets(MOST_BYTES));
        try (Deadline whole = Deadline.of(client::disconnect, timeout.multipliedBy(WHOLE))) {
            client.connect(relay.getAddress(), relay.getPort());
            client.setSoTimeout((int) timeout.toMillis());
            must(client, SMTPReply.isPositiveCompletion(client.getReplyCode()));
            must(client, SMTPReply.isPositiveCompletion(client.sendCommand("EHLO", "lychnos.invalid")));
            must(client, client.setSender(letter.from()));
            must(client, client.addRecipient(letter.to()));
            try (Writer data = client.sendMessageData()) {
                must(client, data != null);
                data.write(written(letter));
            }
            must(client, client.completePendingCommand());
            client.logout();
        } catch (IOException e) {
            throw new WireFault(Kind.SILENT, "the relay does not take it: " + e.getMessage(), e);
        } finally {
            try {
                client.disconnect();
            } catch (IOException e) {
                // it is gone, which is what was wanted
            }
        }
    }

    private static void must(SMTPClient client, boolean holds) throws WireFault {
        if (!holds) {
            throw new WireFault(
                    Kind.REFUSED,
                    "the relay says: "
                            + String.valueOf(client.getReplyString()).strip().replaceAll("\\s+", " "));
        }
    }

    private static String written(Letter letter) {
        String date = DateTimeFormatter.RFC_1123_DATE_TIME.format(Instant.now().atOffset(ZoneOffset.UTC));
        return "From: Lychnos <" + letter.from() + ">\r\nTo: <" + letter.to() + ">\r\nSubject: "
                + word(letter.subject()) + "\r\nDate: " + date + "\r\nMessage-ID: <" + UUID.randomUUID()
                + "@lychnos.invalid>\r\n"
                + "MIME-Version: 1.0\r\nContent-Type: text/plain; charset=utf-8\r\nContent-Transfer-Encoding: "
                + "8bit\r\nAuto-Submitted: auto-generated\r\n\r\n"
                + letter.text().replace("\r\n", "\n").replace("\n", "\r\n");
    }

    /** A line of a header; what is not ASCII goes as an encoded word (RFC 2047). */
    private static String word(String text) {
        String line = text.replaceAll("[\\r\\n]+", " ");
        return line.chars().allMatch(letter -> letter < PLAIN_ASCII)
                ? line
                : "=?utf-8?B?" + Base64.getEncoder().encodeToString(line.getBytes(StandardCharsets.UTF_8)) + "?=";
    }
}
