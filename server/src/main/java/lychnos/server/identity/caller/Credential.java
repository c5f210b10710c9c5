package lychnos.server.identity.caller;

import java.time.Duration;
import java.time.Instant;
import lychnos.server.api.problem.Refusal;
import lychnos.server.text.IdentityText;

/**
 * By what a request acts: a session of a browser, or a token of a program.
 *
 * @param id of its row
 * @param passwordAt when the password was typed last; null for a token
 */
public record Credential(Sort sort, long id, Instant passwordAt) {

    /** The attribute of the security identity that holds it. */
    public static final String ATTRIBUTE = "credential";

    private static final Duration FRESH = Duration.ofMinutes(10);

    /** What sorts there are. */
    public enum Sort {
        SESSION,
        TOKEN
    }

    /** @throws Refusal 403 where a program asks */
    void requireSession() {
        if (sort != Sort.SESSION) {
            throw Refusal.forbidden(IdentityText.TOKEN_CANNOT_DO_THIS.said());
        }
    }

    /** @throws Refusal 403 where a program asks, or the password was typed too long ago */
    void requireFresh(Instant now) {
        requireSession();
        if (passwordAt.plus(FRESH).isBefore(now)) {
            throw Refusal.forbidden(IdentityText.SIGN_IN_AGAIN.said());
        }
    }
}
