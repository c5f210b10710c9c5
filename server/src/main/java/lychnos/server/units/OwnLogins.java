package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.server.secrets.SealKeys;
import lychnos.server.secrets.SealedStore;
import org.hibernate.Session;

/** Factory logins that stand on the tag of one machine; they count before what its site and its kind say. */
@ApplicationScoped
public class OwnLogins {

    private final Session db;
    private final SealedStore sealed;

    OwnLogins(Session db, SealedStore sealed) {
        this.db = db;
        this.sealed = sealed;
    }

    /**
     * A login as far as the tag tells it.
     *
     * @param user or null
     * @param phrase or null
     */
    public record Own(String user, Secret phrase) {

        private Own with(String name, String value, Secret secret) {
            return name.equals(Kind.OWN_USER) ? new Own(value, phrase) : new Own(user, secret);
        }
    }

    /** By unit and member, who has one. */
    @Transactional
    public Map<Long, Map<String, Own>> of(Collection<Long> units) {
        Map<Long, Map<String, Own>> all = new HashMap<>();
        if (units.isEmpty()) {
            return all;
        }
        db.createQuery("from GivenFact f where f.key.unitId in :units and f.key.name in :names", GivenFact.class)
                .setParameter("units", units)
                .setParameter("names", List.of(Kind.OWN_USER, Kind.OWN_PASSWORD))
                .getResultStream()
                .forEach(fact -> all.computeIfAbsent(fact.key.unitId(), id -> new HashMap<>())
                        .merge(
                                fact.key.member(),
                                new Own(null, null).with(fact.key.name(), fact.value, secret(fact)),
                                (one, other) -> one.with(fact.key.name(), fact.value, secret(fact))));
        return all;
    }

    /** Every password that was entered in a fact sheet. */
    @Transactional
    public List<Secret> sealedFacts() {
        return db.createQuery("from GivenFact where sealed is not null", GivenFact.class)
                .getResultStream()
                .map(this::secret)
                .toList();
    }

    /** What was entered as a secret in the fact sheets of units. */
    @Transactional
    public Map<GivenFact.GivenFactKey, Secret> entered(Collection<Long> units) {
        return units.isEmpty()
                ? Map.of()
                : db.createQuery(
                                "from GivenFact f where f.key.unitId in :units and f.sealed is not null",
                                GivenFact.class)
                        .setParameter("units", units)
                        .getResultStream()
                        .collect(Collectors.toMap(fact -> fact.key, this::secret));
    }

    private Secret secret(GivenFact fact) {
        return fact.sealed == null
                ? null
                : sealed.openText(
                        SealKeys.ofFact(fact.key.unitId(), fact.key.member(), fact.key.name()),
                        fact.keyId,
                        fact.nonce,
                        fact.sealed);
    }

    /** A kind as it holds for a member of a unit. */
    public Kind with(Kind kind, long unitId, String member) {
        return with(kind, of(List.of(unitId)).getOrDefault(unitId, Map.of()), member);
    }

    /** @param own of the unit, by member */
    public static Kind with(Kind kind, Map<String, Own> own, String member) {
        Own login = own.getOrDefault(member, own.get(""));
        return login == null ? kind : kind.withFactory(login.user, login.phrase);
    }
}
