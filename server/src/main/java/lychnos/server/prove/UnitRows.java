package lychnos.server.prove;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.kind.Kind;
import lychnos.server.allocate.Claim;
import lychnos.server.units.GivenFact;
import lychnos.server.units.OwnLogins;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/**
 * What the database has of several units that are to be judged: one query for each table, however many units there are.
 *
 * @param units by id; those that are no more are missing
 * @param claims by unit, the living ones in the order of their places
 * @param remembered certificates and host keys
 * @param accepted by endpoint and trait, what a person took for right
 * @param found by unit, where machines were before their setup
 * @param returned what was given back not long ago
 * @param logins by unit and member, factory logins that stand on the tag of one machine
 * @param vlans by unit, the VLAN that its own port is tagged with, where one is stated
 */
record UnitRows(
        Map<Long, Unit> units,
        Map<Long, List<Claim>> claims,
        Map<EndpointKey, KnownCertificate> remembered,
        Map<EndpointKey, Map<String, String>> accepted,
        Map<Long, List<Address>> found,
        Map<EndpointKey, List<Address>> returned,
        Map<Long, Map<String, OwnLogins.Own>> logins,
        Map<Long, String> vlans) {

    /** The fact of a unit whose management port is tagged. */
    private static final String VLAN = "vlan";

    /** @param since how far back an address that was given back is remembered */
    static UnitRows read(
            Session db, Collection<Long> ids, Instant since, Map<Long, Map<String, OwnLogins.Own>> logins) {
        if (ids.isEmpty()) {
            return new UnitRows(Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of());
        }
        Map<EndpointKey, Map<String, String>> accepted = new HashMap<>();
        all(
                        db,
                        AcceptedTrait.class,
                        "from AcceptedTrait t where t.key.unitId in :units and t.acceptedBy is not null",
                        ids)
                .forEach(trait -> accepted.computeIfAbsent(
                                new EndpointKey(trait.key.unitId(), trait.key.role()), key -> new LinkedHashMap<>())
                        .put(trait.key.what(), trait.value));
        Map<Long, List<Address>> found = new HashMap<>();
        all(
                        db,
                        Object[].class,
                        "select r.unitId, r.foundAt from Run r where r.unitId in :units and r.earlier = false and "
                                + "r.foundAt is not null",
                        ids)
                .forEach(row -> found.computeIfAbsent((Long) row[0], unit -> new ArrayList<>())
                        .add((Address) row[1]));
        Map<EndpointKey, List<Address>> returned = db.createQuery(
                        "from Claim where unitId in :units and releasedAt > :since", Claim.class)
                .setParameter("units", ids)
                .setParameter("since", since)
                .getResultStream()
                .collect(Collectors.groupingBy(
                        UnitRows::key, Collectors.mapping(claim -> claim.address, Collectors.toList())));
        return new UnitRows(
                all(db, Unit.class, "from Unit where id in :units", ids)
                        .collect(Collectors.toMap(unit -> unit.id, Function.identity())),
                all(db, Claim.class, "from Claim where unitId in :units and releasedAt is null order by place", ids)
                        .collect(Collectors.groupingBy(claim -> claim.unitId)),
                all(db, KnownCertificate.class, "from KnownCertificate k where k.key.unitId in :units", ids)
                        .collect(Collectors.toMap(known -> known.key, Function.identity())),
                accepted,
                found,
                returned,
                logins,
                vlans(db, ids));
    }

    /** A kind as it holds for a member of a unit, with the factory login of its own. */
    Kind with(Kind kind, long unitId, String member) {
        return OwnLogins.with(kind, logins.getOrDefault(unitId, Map.of()), member);
    }

    private static Map<Long, String> vlans(Session db, Collection<Long> ids) {
        return db.createQuery(
                        "from GivenFact f where f.key.unitId in :units and f.key.member = '' and f.key.name = :name",
                        GivenFact.class)
                .setParameter("units", ids)
                .setParameter("name", VLAN)
                .getResultStream()
                .collect(Collectors.toMap(fact -> fact.key.unitId(), fact -> fact.value));
    }

    private static <T> Stream<T> all(Session db, Class<T> type, String query, Collection<Long> units) {
        return db.createQuery(query, type).setParameter("units", units).getResultStream();
    }

    static EndpointKey key(Claim claim) {
        return new EndpointKey(claim.unitId, claim.role);
    }

    /** Those of these addresses that somebody has now. */
    static Set<Address> taken(Session db, Collection<Address> addresses) {
        return addresses.isEmpty()
                ? Set.of()
                : new HashSet<>(db.createQuery(
                                "select c.address from Claim c where c.releasedAt is null and c.address in :addresses",
                                Address.class)
                        .setParameter("addresses", addresses)
                        .getResultList());
    }
}
