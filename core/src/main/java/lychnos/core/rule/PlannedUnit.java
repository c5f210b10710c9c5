package lychnos.core.rule;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Fact;
import lychnos.core.kind.Kind;

/**
 * A unit as the rules look at it.
 *
 * @param name what people call it
 * @param members how many members it has
 * @param facts by member (the empty text for the unit's own) and name; what the site or the kind answers is among them
 * @param seats the addresses it bears, with names
 * @param networkId the management network it is placed in or will be, or null
 */
public record PlannedUnit(long id, String name, Kind kind, int members, Map<String, Map<String, Fact>> facts, List<Seat> seats, Long networkId) {

    /** An address that it bears. */
    public record Seat(String role, String network, Address address, String hostName, String domain) {}

    /** The labels of its members. */
    List<String> labels() {
        return kind.members().of(members);
    }

    Optional<String> unitFact(String name) {
        return fact("", name);
    }

    Optional<String> fact(String member, String name) {
        return Optional.ofNullable(facts.getOrDefault(member, Map.of()).get(name)).map(Fact::value);
    }
}
