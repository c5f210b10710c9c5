package lychnos.wire.smtp;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lychnos.core.service.Reply;
import lychnos.wire.fault.WireText;
import lychnos.wire.tcp.BoundedSockets;
import lychnos.wire.tcp.Deadline;
import org.apache.commons.net.smtp.SMTPClient;
import org.apache.commons.net.smtp.SMTPReply;

/** Talks to a mail relay up to the recipient, and never sends anything (RFC 5321). */
public final class RelayProbe {

    private static final int LONGEST_REPLY = 300;
    /** The whole exchange takes as long as so many answers may; a relay that drips would never end. */
    private static final int WHOLE = 3;

    private static final long MOST_BYTES = 64 * 1024;

    /**
     * Greets, asks what it offers, and for each sender asks whether it would take mail from them.
     *
     * @param helloName how we call ourselves
     * @param senders mail addresses
     * @param recipient whom mail would go to, or null to ask of the senders alone
     */
    public RelaySeen probe(
            InetSocketAddress relay, String helloName, List<String> senders, String recipient, Duration timeout) {
        SMTPClient client = new SMTPClient();
        client.setConnectTimeout((int) timeout.toMillis());
        client.setDefaultTimeout((int) timeout.toMillis());
        List<Reply> answers = new ArrayList<>();
        client.setSocketFactory(new BoundedSockets(MOST_BYTES));
        try (Deadline whole = Deadline.of(client::disconnect, timeout.multipliedBy(WHOLE))) {
            client.connect(relay.getAddress(), relay.getPort());
            client.setSoTimeout((int) timeout.toMillis());
            String greeting = line(client);
            if (!SMTPReply.isPositiveCompletion(client.getReplyCode())) {
                return new RelaySeen(true, WireText.RELAY_GREETING.text(greeting), false, List.of());
            }
            client.sendCommand("EHLO", helloName);
            boolean startTls = Arrays.stream(client.getReplyStrings())
                    .anyMatch(text ->
                            text.length() > 4 && text.substring(4).strip().equalsIgnoreCase("STARTTLS"));
            for (String sender : senders) {
                answers.add(wouldTake(client, sender, recipient));
            }
            client.quit();
            return new RelaySeen(true, greeting, startTls, answers);
        } catch (IOException e) {
            return new RelaySeen(
                    false,
                    e instanceof java.net.SocketTimeoutException ? "silent" : String.valueOf(e.getMessage()),
                    false,
                    answers);
        } finally {
            hangUp(client);
        }
    }

    private static Reply wouldTake(SMTPClient client, String sender, String recipient) throws IOException {
        int code = client.sendCommand("MAIL", "FROM:<" + sender + ">");
        if (SMTPReply.isPositiveCompletion(code) && recipient != null) {
            code = client.sendCommand("RCPT", "TO:<" + recipient + ">");
        }
        Reply reply = SMTPReply.isPositiveCompletion(code)
                ? Reply.accepted(Reply.Request.SENDER, sender)
                : Reply.refused(Reply.Request.SENDER, sender, line(client));
        client.reset();
        return reply;
    }

    private static String line(SMTPClient client) {
        String text = client.getReplyString().strip().replaceAll("\\s+", " ");
        return text.length() > LONGEST_REPLY ? text.substring(0, LONGEST_REPLY) + "…" : text;
    }

    private static void hangUp(SMTPClient client) {
        try {
            if (client.isConnected()) {
                client.disconnect();
            }
        } catch (IOException e) {
            // the connection is gone, which is what was wanted
        }
    }
}
