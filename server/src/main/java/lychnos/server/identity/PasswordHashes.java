package lychnos.server.identity;

import io.quarkus.elytron.security.common.BcryptUtil;
import jakarta.enterprise.context.ApplicationScoped;
import lychnos.server.LychnosConfig;
import lychnos.server.text.IdentityText;

/**
 * Hashes of passwords (bcrypt). At the cost of real use a hash takes a quarter of a second of processor or more: never
 * in a transaction, and never on a thread that others wait for.
 */
@ApplicationScoped
class PasswordHashes {

    /** Rounds are two to the power of this. */
    private static final int COST = 11;

    private final int cost;
    /** Compared against where there is no such account, so that the answer takes as long. */
    private final String nobody;

    PasswordHashes(LychnosConfig config) {
        // a lab has no secrets, and its tests sign in hundreds of times
        cost = config.lab() ? config.labHashCost().orElse(COST) : COST;
        nobody = hash(IdentityText.NO_ACCOUNT_HAS_THIS_PASSWORD.text());
    }

    final String hash(String password) {
        return BcryptUtil.bcryptHash(password, cost);
    }

    /** @param hash null where there is no such account or it has no password yet; that takes as long, and is false */
    final boolean matches(String password, String hash) {
        return BcryptUtil.matches(password, hash == null ? nobody : hash) && hash != null;
    }
}
