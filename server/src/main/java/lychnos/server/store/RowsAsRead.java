package lychnos.server.store;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.TransactionSynchronizationRegistry;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import org.hibernate.Session;
import org.hibernate.StatelessSession;
import org.hibernate.query.SelectionQuery;

/**
 * Units and addresses for readers. Of a hall of thousands those that were not written since they were read
 * last are not read again. PostgreSQL itself tells which those are, by {@code xmin}: the number of the transaction that
 * wrote a row as it stands (its documentation, "System Columns"). So writers need not announce anything, here or on another
 * server.
 *
 * <p>What is given is shared and belongs to no session: it is for reading. In one transaction it stays as it was asked
 * for first.
 */
@ApplicationScoped
public class RowsAsRead {

    /** Of all that is remembered; some hundred megabytes. */
    private static final int MOST_ROWS = 300_000;
    /** Of more than these everything is read, in one query that is always the same. */
    private static final int FEW = 200;

    private final Session db;
    private final StatelessSession fresh;
    private final TransactionSynchronizationRegistry transaction;
    private final Map<String, Kept<?>> remembered = new ConcurrentHashMap<>();

    RowsAsRead(Session db, StatelessSession fresh, TransactionSynchronizationRegistry transaction) {
        this.db = db;
        this.fresh = fresh;
        this.transaction = transaction;
    }

    /** Who wrote each of the rows that are asked for, by their ids, which ascend. */
    private record Standing(long[] ids, long[] writers) {

        boolean isAs(Standing other) {
            return Arrays.equals(ids, other.ids) && Arrays.equals(writers, other.writers);
        }
    }

    /**
     * Rows as they were read.
     *
     * @param byId as many as there are in {@code standing}; null for one that was taken out of use in that very moment
     * @param rows the same in the order in which they are given
     */
    private record Kept<T>(Standing standing, List<T> byId, List<T> rows) {

        /** The row with this id, if it was written by this one; else null. */
        T as(long id, long writer) {
            int at = Arrays.binarySearch(standing.ids, id);
            return at >= 0 && standing.writers[at] == writer ? byId.get(at) : null;
        }
    }

    /**
     * Whether the transaction that goes on only reads, so that what is given here is as good as what it would read
     * itself.
     */
    public boolean suffice() {
        return db.isDefaultReadOnly();
    }

    /** Units of a bring-up that are in use, by their numbers. */
    public List<Unit> units(long bringUpId) {
        return read(
                "units of " + bringUpId,
                bringUpId,
                Unit.class,
                unit -> unit.id,
                Comparator.comparing(unit -> unit.number),
                "select id, xmin from unit where bring_up_id = ? and retired_at is null order by id",
                "from Unit where bringUpId = :id",
                "from Unit where id in :ids");
    }

    /** Live addresses of a bring-up, unit by unit in the order of their places. */
    public List<Claim> claims(long bringUpId) {
        return read(
                "claims of " + bringUpId,
                bringUpId,
                Claim.class,
                claim -> claim.id,
                Comparator.comparing((Claim claim) -> claim.unitId).thenComparing(claim -> claim.place),
                "select c.id, c.xmin from claim c join unit u on u.id = c.unit_id where u.bring_up_id = ? and "
                        + "u.retired_at is null and c.released_at is null order by c.id",
                "select c from Claim c join Unit u on u.id = c.unitId where u.bringUpId = :id and c.releasedAt is null",
                "from Claim where id in :ids and releasedAt is null");
    }

    /** Live addresses in a network, of any bring-up, by address. */
    public List<Claim> claimsIn(long networkId) {
        return read(
                "claims in " + networkId,
                networkId,
                Claim.class,
                claim -> claim.id,
                Comparator.comparing(claim -> claim.address),
                "select id, xmin from claim where network_id = ? and released_at is null order by id",
                "from Claim where networkId = :id and releasedAt is null",
                "from Claim where id in :ids and releasedAt is null");
    }

    /** By id, units that have an address in a network. */
    public Map<Long, Unit> unitsIn(long networkId) {
        Map<Long, Unit> units = new HashMap<>();
        read(
                        "units in " + networkId,
                        networkId,
                        Unit.class,
                        unit -> unit.id,
                        Comparator.comparing(unit -> unit.id),
                        "select id, xmin from unit where retired_at is null and id in (select unit_id from claim "
                                + "where network_id = ? and released_at is null) order by id",
                        "from Unit where id in (select c.unitId from Claim c where c.networkId = :id and "
                                + "c.releasedAt is null)",
                        "from Unit where id in :ids")
                .forEach(unit -> units.put(unit.id, unit));
        return units;
    }

    /** Works something out once in the transaction that goes on. */
    @SuppressWarnings("unchecked")
    public <T> T once(String key, Supplier<T> work) {
        Object known = transaction.getResource(key);
        if (known == null) {
            known = work.get();
            transaction.putResource(key, known);
        }
        return (T) known;
    }

    private <T> List<T> read(
            String key,
            long of,
            Class<T> type,
            Function<T, Long> id,
            Comparator<T> order,
            String standing,
            String all,
            String some) {
        return once(key, () -> look(key, of, type, id, order, standing, all, some));
    }

    @SuppressWarnings("unchecked")
    private <T> List<T> look(
            String key,
            long of,
            Class<T> type,
            Function<T, Long> id,
            Comparator<T> order,
            String standing,
            String all,
            String some) {
        Kept<T> before = (Kept<T>)
                remembered.getOrDefault(key, new Kept<>(new Standing(new long[0], new long[0]), List.of(), List.of()));
        // who wrote them is read first: a row that is written in between is read again the next time
        Standing now = standing(standing, of);
        if (now.isAs(before.standing)) {
            return before.rows;
        }
        List<T> byId = new ArrayList<>(now.ids.length);
        List<Long> changed = new ArrayList<>();
        for (int i = 0; i < now.ids.length; i++) {
            byId.add(before.as(now.ids[i], now.writers[i]));
            if (byId.get(i) == null) {
                changed.add(now.ids[i]);
            }
        }
        if (!changed.isEmpty()) {
            // not by the session: what it has loaded already it gives again as it was, though who wrote it last is
            // known to be another
            SelectionQuery<T> query = changed.size() > FEW
                    ? fresh.createSelectionQuery(all, type).setParameter("id", of)
                    : fresh.createSelectionQuery(some, type).setParameterList("ids", changed);
            Map<Long, T> written = query.getResultStream().collect(Collectors.toMap(id, Function.identity()));
            for (int i = 0; i < now.ids.length; i++) {
                if (byId.get(i) == null) {
                    byId.set(i, written.get(now.ids[i]));
                }
            }
        }
        List<T> rows = byId.stream().filter(Objects::nonNull).sorted(order).toList();
        if (remembered.values().stream().mapToInt(kept -> kept.rows.size()).sum() > MOST_ROWS) {
            remembered.clear();
        }
        remembered.put(key, new Kept<>(now, byId, rows));
        return rows;
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
