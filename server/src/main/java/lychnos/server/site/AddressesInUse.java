package lychnos.server.site;

import java.util.List;
import lychnos.core.address.Address;

/** What the definition of a network must know of the addresses that are allocated in it. */
public interface AddressesInUse {

    /** Those that are allocated now. */
    List<Address> now(long networkId);

    /**
     * Whether any address is or was allocated. A released address keeps the realm that it was allocated in, so the
     * network cannot move to another realm.
     */
    boolean everAny(long networkId);
}
