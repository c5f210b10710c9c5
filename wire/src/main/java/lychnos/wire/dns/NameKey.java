package lychnos.wire.dns;

import lychnos.core.fact.Secret;
import org.xbill.DNS.TSIG;

/**
 * A key that a name server shares with us (TSIG, RFC 8945), always with HMAC-SHA256.
 *
 * @param name the key's name, as the server knows it
 * @param secret its bytes in base 64
 */
public record NameKey(String name, Secret secret) {

    TSIG tsig() {
        return secret.use(text -> new TSIG(TSIG.HMAC_SHA256, name, text));
    }
}
