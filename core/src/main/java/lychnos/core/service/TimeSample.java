package lychnos.core.service;

/**
 * One answer of a time server (RFC 5905 section 7.3), as it stood in the packet.
 *
 * @param stratum 1 to 15 where it is synchronised; 0 is a kiss-o'-death, 16 unsynchronised
 * @param leap the leap indicator; 3 means that the clock was never set
 * @param mode 4 for a server
 * @param offsetMillis its clock less ours
 * @param delayMillis there and back
 * @param rootDispersionMillis how uncertain it says its own clock is
 * @param answersUs whether the answer repeats the time stamp that was sent, as an answer to us must (RFC 5905 section
 * 8)
 */
public record TimeSample(
        int stratum,
        int leap,
        int mode,
        double offsetMillis,
        double delayMillis,
        double rootDispersionMillis,
        boolean answersUs) {}
