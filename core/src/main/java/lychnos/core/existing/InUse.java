package lychnos.core.existing;

import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;

/**
 * An address that somebody uses.
 *
 * @param name what it is called there, or empty
 * @param mac the MAC address, where the source knows it
 * @param source the kind of source, for people
 */
public record InUse(Address address, String name, Optional<Mac> mac, String source) {}
