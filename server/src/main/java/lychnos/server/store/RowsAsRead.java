package lychnos.server.store;

import jakarta.enterprise.context.ApplicationScoped;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.hibernate.Session;
import org.hibernate.StatelessSession;
import org.hibernate.query.SelectionQuery;

/**
 * Units and addresses for whoever only reads. Of a hall of thousands those that were not written since they were read last are not
 * read again. PostgreSQL itself tells which those are, by {@code xmin}: the number of the transaction that wrote a row as it stands
 * (its documentation, "System Columns"). So whoever writes tells nobody, here or on another server.
 *
 * <p>What is given is shared and belongs to no session: it is for reading.
 */
@ApplicationScoped
public class RowsAsRead {

    /** Of all that is remembered; some hundred megabytes. */
    private static final int MOST_ROWS = 300_000;
    /** Of more than these everything is read, in one query that is always the same. */
    private static final int FEW = 200;

    private final Session db;
    private final StatelessSession fresh;
    private final Map<String, Kept<?>> remembered = new ConcurrentHashMap<>();

    RowsAsRead(Session db, StatelessSession fresh) {
        this.db = db;
        this.fresh = fresh;
    }

    /** Who wrote each of the rows that are asked for, by their ids and in their order. */
    private record Standing(long[] ids, long[] writers) {}

    /** Rows as they were read, as many as there are in {@code standing}. */
    private record Kept<T>(Standing standing, List<T> rows) {

        /** The rows of another standing, in its order; null where one is new, or was written since. */
        List<T> as(Standing now) {
            boolean same = Arrays.equals(standing.ids, now.ids);
            Map<Long, Integer> places = new HashMap<>();
            for (int i = 0; !same && i < standing.ids.length; i++) {
                places.put(standing.ids[i], i);
            }
            List<T> as = new ArrayList<>(now.ids.length);
            for (int i = 0; i < now.ids.length; i++) {
                int at = same ? i : places.getOrDefault(now.ids[i], -1);
                as.add(at >= 0 && standing.writers[at] == now.writers[i] ? rows.get(at) : null);
            }
            return as;
        }
    }

    /** Whether the transaction that goes on only reads, so that what is given here is as good as what it would read itself. */
    public boolean suffice() {
        return db.isDefaultReadOnly();
    }

    /** Units of a bring-up that are in use, by their numbers. */
    public List<Unit> units(long bringUpId) {
        return read("units of " + bringUpId, bringUpId, Unit.class, unit -> unit.id,
                "select id, xmin from unit where bring_up_id = ? and retired_at is null order by number",
                "from Unit where bringUpId = :id",
                "from Unit where id in :ids");
    }

    /** Live addresses of a bring-up, unit by unit in the order of their places. */
    public List<Claim> claims(long bringUpId) {
        return read("claims of " + bringUpId, bringUpId, Claim.class, claim -> claim.id,
                "select c.id, c.xmin from claim c join unit u on u.id = c.unit_id where u.bring_up_id = ? and u.retired_at is null and c.released_at is null order by u.number, c.place",
                "select c from Claim c join Unit u on u.id = c.unitId where u.bringUpId = :id and c.releasedAt is null",
                "from Claim where id in :ids and releasedAt is null");
    }

    /** Live addresses in a network, whoever has them, by address. */
    public List<Claim> claimsIn(long networkId) {
        return read("claims in " + networkId, networkId, Claim.class, claim -> claim.id,
                "select id, xmin from claim where network_id = ? and released_at is null order by address",
                "from Claim where networkId = :id and releasedAt is null",
                "from Claim where id in :ids and releasedAt is null");
    }

    /** By id, units that have an address in a network. */
    public Map<Long, Unit> unitsIn(long networkId) {
        Map<Long, Unit> units = new HashMap<>();
        read("units in " + networkId, networkId, Unit.class, unit -> unit.id,
                "select id, xmin from unit where retired_at is null and id in (select unit_id from claim where network_id = ? and released_at is null)",
                "from Unit where id in (select c.unitId from Claim c where c.networkId = :id and c.releasedAt is null)",
                "from Unit where id in :ids").forEach(unit -> units.put(unit.id, unit));
        return units;
    }

    @SuppressWarnings("unchecked")
    private <T> List<T> read(String key, long of, Class<T> type, Function<T, Long> id, String standing, String all, String some) {
        Kept<T> before = (Kept<T>) remembered.getOrDefault(key, new Kept<>(new Standing(new long[0], new long[0]), List.of()));
        // who wrote them is read first: a row that is written in between is read again the next time
        Standing now = standing(standing, of);
        List<T> rows = before.as(now);
        List<Long> changed = IntStream.range(0, rows.size()).filter(i -> rows.get(i) == null).mapToObj(i -> now.ids[i]).toList();
        if (!changed.isEmpty()) {
            // not by the session: what it has loaded already it gives again as it was, though who wrote it last is known to be another
            SelectionQuery<T> query = changed.size() > FEW ? fresh.createSelectionQuery(all, type).setParameter("id", of) : fresh.createSelectionQuery(some, type).setParameterList("ids", changed);
            Map<Long, T> written = query.getResultStream().collect(Collectors.toMap(id, Function.identity()));
            IntStream.range(0, rows.size()).filter(i -> rows.get(i) == null).forEach(i -> rows.set(i, written.get(now.ids[i])));
        }
        if (remembered.values().stream().mapToInt(kept -> kept.rows.size()).sum() > MOST_ROWS) {
            remembered.clear();
        }
        remembered.put(key, new Kept<>(now, rows));
        // one that is missing still was taken out of use a moment ago
        return rows.contains(null) ? rows.stream().filter(Objects::nonNull).toList() : Collections.unmodifiableList(rows);
    }

    private Standing standing(String sql, long of) {
        return db.doReturningWork(connection -> {
            LongStream.Builder ids = LongStream.builder();
            LongStream.Builder writers = LongStream.builder();
            try (PreparedStatement statement = connection.prepareStatement(sql)) {
                statement.setLong(1, of);
                try (ResultSet rows = statement.executeQuery()) {
                    while (rows.next()) {
                        ids.add(rows.getLong(1));
                        writers.add(rows.getLong(2));
                    }
                }
            }
            return new Standing(ids.build().toArray(), writers.build().toArray());
        });
    }
}
