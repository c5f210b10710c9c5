package lychnos.wire.http;

import java.time.Duration;
import java.util.Map;
import lychnos.core.address.Address;

/**
 * One HTTPS request.
 *
 * @param path with the leading slash
 * @param body the body, or null; it may hold a secret and is never logged
 * @param pinnedFingerprint the certificate that must be shown before anything is sent, or null for any
 * @param timeout for the whole exchange, without the connecting
 */
public record HttpCall(
        Address address,
        int port,
        String method,
        String path,
        Map<String, String> headers,
        byte[] body,
        String pinnedFingerprint,
        Duration timeout) {

    /** Without headers and body, which may hold secrets. */
    @Override
    public String toString() {
        return method + " https://" + address + ":" + port + path;
    }
}
