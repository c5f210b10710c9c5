package lychnos.core.kind;

import lychnos.core.address.Address;
import lychnos.core.address.Prefix;

/** What the network port of a laptop is set to, so that it reaches the machine at its factory address. */
public record Laptop(Address address, int length) {

    /** Whether a laptop with this address reaches the machine. */
    public boolean reaches(Address own) {
        return Prefix.around(address, length).contains(own);
    }

    @Override
    public String toString() {
        return address + "/" + length;
    }
}
