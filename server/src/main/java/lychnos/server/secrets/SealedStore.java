package lychnos.server.secrets;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.fact.Secret;
import lychnos.server.LychnosConfig;
import org.hibernate.Session;

/**
 * Passwords of machines, sealed with {@link SealKeys}; the unit's id is bound to the sealed text, so that a row
 * cannot be moved to another unit. A password is <em>made</em> before it is sent, and <em>proven</em> once it has
 * logged in.
 */
@ApplicationScoped
public class SealedStore {

    /** The name of the password of a unit that has only one. */
    public static final String ONLY = "password";

    /** Where a password stands. */
    public enum SealedState {
        MADE,
        PROVEN;

        private String column() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    private final Session db;
    private final SealKeys keys;

    SealedStore(Session db, LychnosConfig config) throws IOException {
        this.db = db;
        this.keys = SealKeys.read(config.seal().keyFile());
    }

    /**
     * Seals a text that is kept elsewhere.
     *
     * @param place what it belongs to; a box cannot be opened for another place
     */
    public SealKeys.Box sealText(String place, Secret secret) {
        return keys.seal(place, secret.use(text -> text.getBytes(StandardCharsets.UTF_8)));
    }

    /** Opens what {@link #sealText} sealed. */
    public Secret openText(String place, String keyId, byte[] nonce, byte[] sealed) {
        return Secret.of(new String(keys.open(place, new SealKeys.Box(keyId, nonce, sealed)), StandardCharsets.UTF_8));
    }

    /** Seals a new password beside the proven one, replacing an earlier one that was never proven. */
    @Transactional
    public void seal(long unitId, Secret secret) {
        seal(unitId, ONLY, secret);
    }

    /** The same for a unit that has several, each under the name of its fact. */
    @Transactional
    public void seal(long unitId, String name, Secret secret) {
        SealKeys.Box box = sealText(SealKeys.ofUnit(unitId, name), secret);
        db.createNativeMutationQuery(
                        "delete from sealed_secret where unit_id = :unit and name = :name and state = 'made'")
                .setParameter("unit", unitId)
                .setParameter("name", name)
                .executeUpdate();
        db.createNativeMutationQuery(
                        "insert into sealed_secret (unit_id, name, key_id, nonce, sealed, state) values (:unit, "
                                + ":name, :key, :nonce, :sealed, 'made')")
                .setParameter("unit", unitId)
                .setParameter("name", name)
                .setParameter("key", box.keyId())
                .setParameter("nonce", box.nonce())
                .setParameter("sealed", box.sealed())
                .executeUpdate();
    }

    /** Opens a unit's password. */
    @Transactional
    public Optional<Secret> open(long unitId, SealedState state) {
        return open(unitId, ONLY, state);
    }

    /** Opens one of a unit's passwords. */
    @Transactional
    public Optional<Secret> open(long unitId, String name, SealedState state) {
        return Optional.ofNullable(
                open(List.of(unitId), state).getOrDefault(unitId, Map.of()).get(name));
    }

    /** By unit, the names of the passwords that are kept; none is opened. */
    @Transactional
    public Map<Long, Set<String>> names(Collection<Long> units, SealedState state) {
        Map<Long, Set<String>> names = new HashMap<>();
        db.createNativeQuery(
                        "select unit_id, name from sealed_secret where unit_id in :units and state = :state",
                        Object[].class)
                .setParameter("units", units)
                .setParameter("state", state.column())
                .getResultStream()
                .forEach(row -> names.computeIfAbsent((Long) row[0], unit -> new HashSet<>())
                        .add((String) row[1]));
        return names;
    }

    /** Opens every password of every unit. */
    @Transactional
    public List<Secret> openAll() {
        return db.createNativeQuery("select unit_id, name, key_id, nonce, sealed from sealed_secret", Object[].class)
                .getResultStream()
                .map(row -> openText(
                        SealKeys.ofUnit((Long) row[0], (String) row[1]), (String) row[2], (byte[]) row[3], (byte[])
                                row[4]))
                .toList();
    }

    /** Opens what several units have, by unit and name. */
    @Transactional
    public Map<Long, Map<String, Secret>> open(Collection<Long> units, SealedState state) {
        Map<Long, Map<String, Secret>> all = new HashMap<>();
        if (units.isEmpty()) {
            return all;
        }
        List<Object[]> rows = db.createNativeQuery(
                        "select unit_id, name, key_id, nonce, sealed from sealed_secret where unit_id in :units and "
                                + "state = :state",
                        Object[].class)
                .setParameter("units", units)
                .setParameter("state", state.column())
                .getResultList();
        for (Object[] row : rows) {
            long unit = ((Long) row[0]);
            String name = (String) row[1];
            all.computeIfAbsent(unit, id -> new HashMap<>())
                    .put(name, openText(SealKeys.ofUnit(unit, name), (String) row[2], (byte[]) row[3], (byte[])
                            row[4]));
        }
        return all;
    }

    /** The password that was made has logged in: it takes the place of the old one. */
    @Transactional
    public void proven(long unitId) {
        proven(unitId, ONLY);
    }

    /** The same for one of several. */
    @Transactional
    public void proven(long unitId, String name) {
        db.createNativeMutationQuery(
                        "delete from sealed_secret where unit_id = :unit and name = :name and state = 'proven'"
                                + " and exists (select 1 from sealed_secret where unit_id = :unit and name = :name "
                                + "and state = 'made')")
                .setParameter("unit", unitId)
                .setParameter("name", name)
                .executeUpdate();
        db.createNativeMutationQuery(
                        "update sealed_secret set state = 'proven' where unit_id = :unit and name = :name and state "
                                + "= 'made'")
                .setParameter("unit", unitId)
                .setParameter("name", name)
                .executeUpdate();
    }

    /** Forgets every password of a unit: the machine that they were for is there no more. */
    @Transactional
    public void forget(long unitId) {
        db.createNativeMutationQuery("delete from sealed_secret where unit_id = :unit")
                .setParameter("unit", unitId)
                .executeUpdate();
    }
}
