package lychnos.server.units;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Mac;
import lychnos.core.fact.RackPosition;
import org.hibernate.Session;

/**
 * Who bears a serial, a MAC address or a rack position. Knows the units that a change touches, and those that bear
 * what it sets.
 */
final class UniqueIndex {

    private final Map<String, Unit> serials = new HashMap<>();
    private final Map<Mac, Unit> macs = new HashMap<>();
    private final Map<RackPosition, Unit> positions = new HashMap<>();
    private final long bringUpId;

    /** Serials and MAC addresses are unique everywhere, positions within the bring-up. */
    UniqueIndex(Session db, long bringUpId, Collection<Unit> touched, List<FactChanges.FactCell> typed) {
        this.bringUpId = bringUpId;
        touched.forEach(this::enter);
        Set<String> racks = new HashSet<>();
        typed(typed, "location", RackPosition::parse).forEach(position -> racks.add(position.rack()));
        db.createQuery(
                        "from Unit where serial in (:serials) or mac in (:macs) or bringUpId = :id and rack in "
                                + "(:racks)",
                        Unit.class)
                .setParameter("serials", typed(typed, "serial", FactType.SERIAL::read))
                .setParameter("macs", typed(typed, "mac", Mac::parse))
                .setParameter("racks", racks)
                .setParameter("id", bringUpId)
                .getResultStream()
                .forEach(this::enter);
    }

    private static <V> Set<V> typed(List<FactChanges.FactCell> typed, String name, Function<String, V> reader) {
        Set<V> values = new HashSet<>();
        for (FactChanges.FactCell cell : typed) {
            if (name.equals(cell.name()) && cell.value() != null) {
                try {
                    values.add(reader.apply(cell.value()));
                } catch (IllegalArgumentException e) {
                    // its cell is refused with this reason, and nobody can bear such a value
                }
            }
        }
        return values;
    }

    private void enter(Unit unit) {
        serials.put(unit.serial, unit);
        macs.put(unit.mac, unit);
        if (Objects.equals(unit.bringUpId, bringUpId)) {
            positions.put(unit.position(), unit);
        }
    }

    /** Who bears it now; null where nobody does, and for facts that several may share. */
    Unit of(String fact, String value) {
        return switch (fact) {
            case "serial" -> serials.get(value);
            case "mac" -> macs.get(Mac.parse(value));
            case "location" -> positions.get(RackPosition.parse(value));
            default -> null;
        };
    }

    /** Changes what a unit bears. */
    void change(Unit unit, Runnable change) {
        serials.remove(unit.serial);
        macs.remove(unit.mac);
        positions.remove(unit.position());
        change.run();
        enter(unit);
    }
}
