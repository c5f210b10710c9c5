package lychnos.core.rule;

import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Fact;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.UnitFacts;

/**
 * A unit as the rules look at it.
 *
 * @param name what people call it
 * @param known what is known of it; what the site or the kind answers is among it
 * @param seats the addresses it bears, with names
 * @param networkId the management network it is placed in or will be, or null
 * @param firstKnown whether its label tells the address at which it is found first
 */
public record PlannedUnit(long id, String name, UnitFacts known, List<Seat> seats, Long networkId, boolean firstKnown) {

    /** An address that it bears. */
    public record Seat(String role, String network, Address address, String hostName, String domain) {}

    Kind kind() {
        return known.kind();
    }

    /** The labels of its members. */
    List<String> labels() {
        return known.kind().members().of(known.members());
    }

    Optional<String> unitFact(String name) {
        return fact("", name);
    }

    /** The virtualisation host of each of its machines; of a pair each may live on its own. */
    List<String> hosts() {
        return labels().stream()
                .flatMap(member -> fact(member, "host").or(() -> unitFact("host")).stream())
                .toList();
    }

    Optional<String> fact(String member, String name) {
        return known.fact(member, name).map(Fact::value);
    }
}
