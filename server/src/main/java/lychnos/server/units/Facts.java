package lychnos.server.units;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.fact.Fact;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.database.RowsAsRead;
import lychnos.server.kinds.Kinds;
import lychnos.server.site.BringUp;
import lychnos.server.site.SiteResources;
import org.hibernate.Session;

/** The fact sheet: what is known of each unit, typed, pasted, imported, and taken back. */
@ApplicationScoped
public class Facts {

    /** Cells that are set in one piece: a column of 5,000 units twice over. */
    private final Session db;

    private final RowsAsRead rows;
    /** Of units as they were read; one that was written since is another one there. */
    private final Cache<Unit, Resolved> resolved =
            Caffeine.newBuilder().weakKeys().build();

    private final BringUps bringUps;
    private final SiteResources siteResources;
    private final Kinds kinds;

    Facts(Session db, RowsAsRead rows, BringUps bringUps, SiteResources siteResources, Kinds kinds) {
        this.db = db;
        this.rows = rows;
        this.bringUps = bringUps;
        this.siteResources = siteResources;
        this.kinds = kinds;
    }

    /** What is known of every unit of a bring-up, in the order of their numbers. */
    public Map<Unit, UnitFacts> of(BringUp bringUp) {
        return of(bringUp, Set.of());
    }

    /** A given fact, for reading: rows of thousands of units are not watched for changes. */
    record Given(long unitId, String member, String name, String value, Fact.Source source) {}

    /** The same without some units, of which nothing is read. */
    public Map<Unit, UnitFacts> of(BringUp bringUp, Set<Long> without) {
        Map<Long, Map<String, Map<String, Fact>>> given = new HashMap<>();
        // a list that is never empty is one text of a query, and numbers of units begin at 1
        List<Long> left = without.isEmpty() ? List.of(0L) : List.copyOf(without);
        db.createQuery(
                        "select new lychnos.server.units.Facts$Given(f.key.unitId, f.key.member, f.key.name, "
                                + "f.value, f.source) from GivenFact f join Unit u on u.id = f.key.unitId where "
                                + "u.bringUpId = :id and u.id not in (:without)",
                        Given.class)
                .setParameter("id", bringUp.id)
                .setParameter("without", left)
                .getResultStream()
                .forEach(fact -> given.computeIfAbsent(fact.unitId, id -> new HashMap<>())
                        .computeIfAbsent(fact.member, m -> new HashMap<>())
                        .put(fact.name, new Fact(fact.value, fact.source)));
        Map<String, String> policies = siteResources.policies(bringUp.site.id);
        Map<Unit, UnitFacts> all = new LinkedHashMap<>();
        boolean asRead = rows.suffice();
        for (Unit unit : bringUps.units(bringUp.id)) {
            if (without.contains(unit.id)) {
                continue;
            }
            all.put(
                    unit,
                    asRead
                            ? asBefore(unit, given.getOrDefault(unit.id, Map.of()), policies)
                            : resolve(unit, given.getOrDefault(unit.id, Map.of()), policies));
        }
        return all;
    }

    /** What is known of a unit, and what it was put together from. */
    private record Resolved(Map<String, Map<String, Fact>> given, Map<String, String> policies, UnitFacts facts) {}

    private UnitFacts asBefore(Unit unit, Map<String, Map<String, Fact>> given, Map<String, String> policies) {
        Resolved before = resolved.getIfPresent(unit);
        if (before == null
                || before.facts.kind() != kinds.of(unit)
                || !before.given.equals(given)
                || !before.policies.equals(policies)) {
            before = new Resolved(given, policies, resolve(unit, given, policies));
            resolved.put(unit, before);
        }
        return before.facts;
    }

    private UnitFacts resolve(Unit unit, Map<String, Map<String, Fact>> given, Map<String, String> policies) {
        Map<String, Map<String, Fact>> own = new HashMap<>();
        given.forEach((member, facts) -> own.put(member, new HashMap<>(facts)));
        own.computeIfAbsent("", member -> new HashMap<>()).putAll(ownLabel(unit));
        return UnitFacts.resolve(kinds.of(unit), unit.members, own, policies);
    }

    /** What is known of one unit. */
    public UnitFacts of(Unit unit, BringUp bringUp) {
        Map<String, Map<String, Fact>> own = new HashMap<>();
        db.createQuery("from GivenFact where key.unitId = :id", GivenFact.class)
                .setParameter("id", unit.id)
                .getResultStream()
                .forEach(fact -> own.computeIfAbsent(fact.key.member(), m -> new HashMap<>())
                        .put(fact.key.name(), fact.fact()));
        own.computeIfAbsent("", member -> new HashMap<>()).putAll(ownLabel(unit));
        return UnitFacts.resolve(kinds.of(unit), unit.members, own, siteResources.policies(bringUp.site.id));
    }

    /** Of what lies in the unit's own row, what is a fact of the unit and not only of its first member. */
    private Map<String, Fact> ownLabel(Unit unit) {
        Map<String, Fact> label = label(unit);
        Kind kind = kinds.of(unit);
        label.keySet().removeIf(name -> kind.fact(name)
                .map(spec -> !UnitFacts.owners(kind, unit.members, spec).contains(""))
                .orElse(true));
        return label;
    }

    /** What lies in the unit's own row. */
    static Map<String, Fact> label(Unit unit) {
        Map<String, Fact> label = new HashMap<>();
        if (unit.serial != null) {
            label.put("serial", new Fact(unit.serial, Fact.Source.LABEL));
        }
        if (unit.mac != null) {
            label.put("mac", new Fact(unit.mac.toString(), Fact.Source.LABEL));
        }
        if (unit.rack != null) {
            label.put("location", new Fact(unit.place(), Fact.Source.LABEL));
        }
        return label;
    }
}
