package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.server.api.problem.Refusal;
import lychnos.server.kinds.Kinds;
import lychnos.server.site.BringUp;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/**
 * Units that leave the factory with one address. On one segment any of them may answer there, so only one is set up at
 * a time; nobody can override that.
 */
@ApplicationScoped
public class FactoryAddresses {

    private final Session db;
    private final Kinds kinds;

    FactoryAddresses(Session db, Kinds kinds) {
        this.db = db;
        this.kinds = kinds;
    }

    /**
     * By unit that must wait, the one that may answer at its factory address: a unit that is being set up, or one
     * before it among these.
     */
    public Map<Long, Unit> waiting(BringUp bringUp, Collection<Unit> units) {
        List<Unit> sharing =
                units.stream().filter(unit -> address(unit) != null).toList();
        if (sharing.isEmpty()) {
            return Map.of();
        }
        List<Unit> first = new ArrayList<>(underWay(bringUp));
        Map<Long, String> segments = segments(Stream.concat(sharing.stream(), first.stream())
                .map(unit -> unit.id)
                .collect(Collectors.toSet()));
        Map<Long, Unit> waiting = new HashMap<>();
        for (Unit unit : sharing) {
            Optional<Unit> before = first.stream()
                    .filter(other -> address(unit).equals(address(other))
                            && Objects.equals(segments.get(unit.id), segments.get(other.id)))
                    .findFirst();
            before.filter(other -> !other.id.equals(unit.id)).ifPresent(other -> waiting.put(unit.id, other));
            if (before.isEmpty()) {
                first.add(unit);
            }
        }
        return waiting;
    }

    private String address(Unit unit) {
        return kinds.of(unit).setup().factoryAddress();
    }

    /** @throws Refusal 409 where units that are to be begun together would meet, or meet one that is under way */
    void refuse(BringUp bringUp, Collection<Unit> units) {
        if (units.stream().allMatch(unit -> address(unit) == null)) {
            return;
        }
        // of two people who start two units of two bring-ups, the second one sees what the first one has started
        db.lock(bringUp.site, LockModeType.PESSIMISTIC_WRITE);
        Map<Long, Unit> waiting = waiting(bringUp, units);
        units.stream().filter(unit -> waiting.containsKey(unit.id)).findFirst().ifPresent(unit -> {
            throw Refusal.conflict(ConfigureText.FACTORY_ADDRESS_IS_IN_USE.said(
                    unit.label(), waiting.get(unit.id).label(), address(unit)));
        });
    }

    /** Units of the site that were begun and are not set up yet: they may still answer at their factory address. */
    private List<Unit> underWay(BringUp bringUp) {
        return db.createQuery(
                        "select u from Run r join Unit u on u.id = r.unitId join BringUp b on b.id = u.bringUpId "
                                + "where b.site = :site and r.purpose in ('configure', 'console') and r.earlier = "
                                + "false and r.state in (WAITING, RUNNING, STOPPED) and u.retiredAt is null order by "
                                + "r.id",
                        Unit.class)
                .setParameter("site", bringUp.site)
                .getResultList();
    }

    /** The segment where each unit is managed: as it was named, or the network itself. */
    private Map<Long, String> segments(Set<Long> units) {
        Map<Long, String> segments = new HashMap<>();
        db.createNativeQuery(
                        "select c.unit_id, coalesce(nullif(n.segment, ''), 'network ' || n.id) from claim c join "
                                + "network n on n.id = c.network_id where c.unit_id in (:units) and c.released_at is "
                                + "null order by c.id desc",
                        Object[].class)
                .setParameter("units", units)
                .getResultStream()
                .forEach(row -> segments.put(((Number) row[0]).longValue(), (String) row[1]));
        return segments;
    }
}
