package lychnos.core.place;

import java.util.List;
import java.util.stream.LongStream;
import lychnos.core.address.Address;
import lychnos.core.address.Run;

/**
 * Addresses proposed for a number of needs, in order, and why these. Empty where the pool cannot give them.
 *
 * @param addresses one for each need, or none at all
 * @param reason a sentence for the engineer
 */
public record Fit(List<Address> addresses, String reason) {

    static Fit consecutive(Run run) {
        List<Address> addresses = LongStream.range(0, run.size()).mapToObj(run.first()::plus).toList();
        String reason = addresses.size() == 1 ? "lowest free address" : "lowest run of " + addresses.size() + " in a row";
        return new Fit(addresses, reason);
    }

    static Fit scattered(List<Address> addresses) {
        return new Fit(List.copyOf(addresses), "no " + addresses.size() + " in a row are free: the lowest single ones");
    }

    static Fit none(int wanted, long available) {
        return new Fit(List.of(), wanted + " wanted, " + available + " free: widen the pool or release addresses");
    }

    public boolean found() {
        return !addresses.isEmpty();
    }
}
