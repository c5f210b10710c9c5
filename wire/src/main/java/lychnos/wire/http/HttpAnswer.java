package lychnos.wire.http;

import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * The answer to an {@link HttpCall}.
 *
 * @param headers by lower-case name; the last one where a name comes twice
 * @param fingerprint of the certificate that the peer showed
 */
public record HttpAnswer(int status, Map<String, String> headers, byte[] body, String fingerprint) {

    public Optional<String> header(String name) {
        return Optional.ofNullable(headers.get(name.toLowerCase(Locale.ROOT)));
    }
}
