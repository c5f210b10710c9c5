package lychnos.wire.smtp;

import java.util.List;
import lychnos.core.service.Reply;

/**
 * What a mail relay answered.
 *
 * @param answers whether it greeted at all
 * @param greeting its greeting, or why there was none
 * @param startTls whether it offers STARTTLS (RFC 3207)
 * @param senders by sender, the reply to MAIL FROM and RCPT TO: {@code taken} or {@code refused: 550 …}
 */
public record RelaySeen(boolean answers, String greeting, boolean startTls, List<Reply> senders) {}
