package lychnos.core.service;

import java.util.List;
import java.util.Map;

/**
 * What one name server answered.
 *
 * @param udp whether it answered over UDP
 * @param tcp whether it answered over TCP, as RFC 7766 demands
 * @param serials by zone, the serial number of its SOA record; a zone it does not serve is not there
 * @param recursion whether it offers recursion
 * @param updates whether it accepts updates with our key, for each zone that was asked about
 * @param missing names without records, or why it did not answer
 */
public record NameSample(
        boolean udp, boolean tcp, Map<String, Long> serials, boolean recursion, List<Reply> updates, String missing) {}
