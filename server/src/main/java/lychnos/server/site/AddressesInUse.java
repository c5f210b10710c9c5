package lychnos.server.site;

import java.util.List;
import lychnos.core.address.Address;

/** What the definition of a network must know of the addresses that are allocated in it. */
public interface AddressesInUse {

    /** Those that are allocated now. */
    List<Address> now(long networkId);

    /**
     * Whether one is or was allocated: those that were released keep the realm that they were allocated in, so that even
     * one of them holds it fast.
     */
    boolean everAny(long networkId);
}
