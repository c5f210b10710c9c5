package lychnos.core.service;

import java.util.Map;

/**
 * What one name server answered.
 *
 * @param udp whether it answered over UDP
 * @param tcp whether it answered over TCP, as RFC 7766 demands
 * @param serials by zone, the serial number of its SOA record; a zone it does not serve is not there
 * @param recursion whether it offers recursion
 * @param updates by zone, whether it took an empty update with our key; null where nobody asked
 * @param missing names without records, or why it did not answer
 */
public record NameSample(
        boolean udp,
        boolean tcp,
        Map<String, Long> serials,
        boolean recursion,
        Map<String, String> updates,
        String missing) {}
