package lychnos.core.place;

import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;

/**
 * Addresses found for everything that one unit needs.
 *
 * @param seats one for each role, in the order of the needs
 * @param growth runs that are kept free for members to come
 * @param reasons why these, for the engineer
 */
public record Placement(List<Seat> seats, List<Growth> growth, List<String> reasons) implements Placing {

    /**
     * One address with what it is for.
     *
     * @param role the role within the unit
     * @param network the purpose of the network
     */
    public record Seat(String role, String network, Address address) {}

    /** A run that is kept free in the network of this purpose. */
    public record Growth(String network, AddressRun run) {}

    public Placement {
        seats = List.copyOf(seats);
        growth = List.copyOf(growth);
        reasons = List.copyOf(reasons);
    }

    /** The first address of all, by which a fit is named. */
    public Address first() {
        return seats.get(0).address();
    }

    @Override
    public <T> T fold(java.util.function.Function<Placement, T> found, java.util.function.Function<NoFit, T> none) {
        return found.apply(this);
    }
}
