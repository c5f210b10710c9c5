package lychnos.wire.redfish;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.vantage.Vantage;

/**
 * What a service root tells anybody, without a session (DSP0266 section 6.1; DSP0268 ServiceRoot): the one thing by
 * which a management controller can be told from other machines before anything about it is known.
 *
 * @param version of the protocol, such as {@code 1.15.0}
 * @param product what the maker calls it; empty where it does not say
 */
public record ServiceRoot(String version, String product) {

    private static final ObjectMapper JSON = new ObjectMapper();
    /** Where such a service answers (DSP0266 section 6.1). */
    public static final int PORT = 443;

    private static final int OK = 200;
    /** An unknown machine may say anything of any length. */
    private static final int LONGEST_PRODUCT = 100;

    private static final int LONGEST_VERSION = 20;

    /**
     * Asks an address for a service root.
     *
     * @return nothing where no Redfish service answers
     */
    public static Optional<ServiceRoot> at(Vantage vantage, Address address, int port, Duration timeout) {
        try {
            HttpAnswer answer = vantage.http(new HttpCall(
                    address, port, "GET", "/redfish/v1/", Map.of("Accept", "application/json"), null, null, timeout));
            return answer.status() == OK ? read(JSON.readTree(answer.body())) : Optional.empty();
        } catch (WireFault | IOException e) {
            // whatever it is, it offers no Redfish service
            return Optional.empty();
        }
    }

    private static Optional<ServiceRoot> read(JsonNode root) {
        String version = plain(root.path("RedfishVersion").asText(), LONGEST_VERSION);
        return version.isEmpty()
                ? Optional.empty()
                : Optional.of(
                        new ServiceRoot(version, plain(root.path("Product").asText(), LONGEST_PRODUCT)));
    }

    private static String plain(String text, int longest) {
        String shown = text.replaceAll("\\p{C}", "").strip();
        return shown.length() > longest ? shown.substring(0, longest) : shown;
    }
}
