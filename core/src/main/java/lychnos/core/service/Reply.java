package lychnos.core.service;

import java.util.List;
import java.util.Optional;

/**
 * What a service answered to a request that it may refuse.
 *
 * @param request what was asked of it
 * @param about the zone, the sender or the domain that was asked about
 * @param accepted whether it accepted
 * @param text its own words, for people; empty where it accepted without any
 */
public record Reply(Request request, String about, boolean accepted, String text) {

    public enum Request {
        /** A name server: a dynamic update of the zone (RFC 2136). */
        UPDATE,
        /** A mail relay: mail from the sender (RFC 5321, MAIL FROM). */
        SENDER,
        /** A name server: where mail for the domain goes (MX, or an address record). */
        MAIL_DOMAIN
    }

    public static Reply accepted(Request request, String about) {
        return new Reply(request, about, true, "");
    }

    public static Reply refused(Request request, String about, String text) {
        return new Reply(request, about, false, text);
    }

    /** How the service refused what was asked, if it did. */
    public static Optional<Reply> refusal(List<Reply> replies, Request request, String about) {
        return replies.stream()
                .filter(reply -> reply.request == request && reply.about.equals(about) && !reply.accepted)
                .findFirst();
    }

    /** For people: {@code accepted}, or how it was refused. */
    public String said() {
        return accepted ? "accepted" : ServiceText.REFUSED.text(text);
    }
}
