package lychnos.core.export;

/**
 * What a firewall is to let through.
 *
 * @param source who opens the connection, by name
 * @param sourceAddress an address or a prefix; empty where only a word is known
 * @param port such as {@code tcp 443}
 * @param why what it is for
 */
public record Flow(
        String source, String sourceAddress, String destination, String destinationAddress, String port, String why) {}
