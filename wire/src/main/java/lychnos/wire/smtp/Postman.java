package lychnos.wire.smtp;

import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.Writer;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Date;
import java.util.Properties;
import java.util.UUID;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.tcp.BoundedSockets;
import lychnos.wire.tcp.Deadline;
import org.apache.commons.net.smtp.SMTPClient;
import org.apache.commons.net.smtp.SMTPReply;

/** Hands a letter to a mail relay (RFC 5321). */
public final class Postman {

    private static final String UTF_8 = StandardCharsets.UTF_8.name();
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
            throw new WireFault(Kind.SILENT, WireText.RELAY_REFUSES.text(e.getMessage()), e);
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
                    WireText.RELAY_ANSWERS.text(
                            String.valueOf(client.getReplyString()).strip().replaceAll("\\s+", " ")));
        }
    }

    private static String written(Letter letter) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        write(letter, out);
        return out.toString(StandardCharsets.US_ASCII);
    }

    /** The letter as a message (RFC 5322, RFC 2045); what a machine has told may be in any script. */
    private static void write(Letter letter, OutputStream out) throws IOException {
        try {
            MimeMessage message = new MimeMessage(Session.getInstance(new Properties())) {
                @Override
                protected void updateMessageID() throws MessagingException {
                    setHeader("Message-ID", "<" + UUID.randomUUID() + "@lychnos.invalid>");
                }
            };
            message.setFrom(new InternetAddress(letter.from(), "Lychnos"));
            message.setRecipient(Message.RecipientType.TO, new InternetAddress(letter.to()));
            message.setSubject(letter.subject().replaceAll("[\\r\\n]+", " "), UTF_8);
            message.setSentDate(new Date());
            message.setHeader("Auto-Submitted", "auto-generated");
            message.setText(letter.text(), UTF_8);
            message.writeTo(out);
        } catch (MessagingException e) {
            throw new IOException(e.getMessage(), e);
        }
    }
}
