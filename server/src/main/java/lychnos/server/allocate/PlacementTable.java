package lychnos.server.allocate;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.core.address.Address;
import lychnos.core.kind.Kind;
import lychnos.core.name.NamePattern;
import lychnos.core.name.Records;
import lychnos.core.place.Need;
import lychnos.core.place.Placement;
import lychnos.core.place.Placer;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.site.BringUp;
import lychnos.server.site.Network;
import lychnos.server.text.AllocateText;
import lychnos.server.units.Unit;

/** Everything that proposals are made from, read once: networks, units with their facts, free space and used names. */
final class PlacementTable {

    private final BringUp bringUp;
    private final List<Network> networks;
    private final Map<Unit, UnitFacts> sheet;
    private final Set<Long> placed;
    private final Set<String> usedNames;
    private final Placer placer;

    /**
     * @param placed ids of the units that have addresses
     * @param usedNames host names that are used in the domains of the networks; new ones are added
     */
    PlacementTable(
            BringUp bringUp,
            List<Network> networks,
            Map<Unit, UnitFacts> sheet,
            Set<Long> placed,
            Set<String> usedNames,
            Placer placer) {
        this.bringUp = bringUp;
        this.networks = networks;
        this.sheet = sheet;
        this.placed = placed;
        this.usedNames = usedNames;
        this.placer = placer;
    }

    Placer placer() {
        return placer;
    }

    Set<Unit> units() {
        return sheet.keySet();
    }

    Kind kind(Unit unit) {
        return sheet.get(unit).kind();
    }

    List<Unit> unplaced() {
        return sheet.keySet().stream().filter(unit -> !placed.contains(unit.id)).toList();
    }

    List<Need> needs(Unit unit) {
        UnitFacts known = sheet.get(unit);
        return known.kind().needs(known.members(), known.unitValues());
    }

    private Network network(String purpose, Address address) {
        return networks.stream()
                .filter(network -> network.purpose.equals(purpose) && network.prefix.contains(address))
                .findFirst()
                .orElseThrow();
    }

    List<Placings.ProposalLine> lines(Unit unit, Placement placement, String unitName) {
        UnitFacts known = sheet.get(unit);
        Map<String, String> names = known.kind().hostNames(unitName, known.members(), known.unitValues());
        Map<String, String> aliases = known.kind().aliases(unitName, known.members(), known.unitValues());
        List<Placings.ProposalLine> lines = new ArrayList<>();
        for (Placement.Seat seat : placement.seats()) {
            Network network = network(seat.network(), seat.address());
            String hostName = names.get(seat.role());
            Records records = Records.of(hostName, network.domain, seat.address());
            lines.add(new Placings.ProposalLine(
                    unit.id,
                    unit.label(),
                    unit.number,
                    unit.place(),
                    unit.serial,
                    seat.role(),
                    network.id,
                    seat.address().toString(),
                    hostName,
                    records.fqdn(),
                    records.forwardLine(),
                    records.reverseLine(),
                    aliases.get(seat.role())));
        }
        return lines;
    }

    List<Placings.Growth> growth(Unit unit, Placement placement) {
        return placement.growth().stream()
                .map(run -> new Placings.Growth(
                        unit.id,
                        network(run.network(), run.run().first()).id,
                        run.run().toString()))
                .toList();
    }

    /** A unit's own name, or one by the pattern that nobody bears; names go on behind the last that is used. */
    String name(Unit unit, NamePattern pattern, AtomicInteger counter) {
        if (unit.name != null) {
            return unit.name;
        }
        Kind kind = sheet.get(unit).kind();
        Map<String, String> words = Map.of(
                "site",
                bringUp.site.code,
                "kind",
                kind.shortName(),
                "rack",
                unit.rack == null ? "" : unit.rack,
                "u",
                String.valueOf(unit.rackUnit));
        String first = pattern.name(words, counter.incrementAndGet());
        String name = first;
        while (!usedNames.add(name)) {
            name = pattern.name(words, counter.incrementAndGet());
            if (name.equals(first)) {
                throw new IllegalArgumentException(AllocateText.NAME_IS_TAKEN.text(name, "{n}"));
            }
        }
        return name;
    }
}
