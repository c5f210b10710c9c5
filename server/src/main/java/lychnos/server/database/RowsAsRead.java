package lychnos.server.database;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.TransactionSynchronizationRegistry;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import org.hibernate.Session;
import org.hibernate.StatelessSession;
import org.hibernate.query.SelectionQuery;

/**
 * Rows for readers. Of thousands those that were not written since they were read last are not read again. PostgreSQL
 * itself tells which those are, by {@code xmin}: the number of the transaction that wrote a row as it stands (its
 * documentation, "System Columns"). So writers need not announce anything, here or on another server.
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
    private final Cache<String, RowsKept<?>> remembered = Caffeine.newBuilder()
            .maximumWeight(MOST_ROWS)
            .weigher((String key, RowsKept<?> kept) -> 1 + kept.rows.size())
            .build();

    RowsAsRead(Session db, StatelessSession fresh, TransactionSynchronizationRegistry transaction) {
        this.db = db;
        this.fresh = fresh;
        this.transaction = transaction;
    }

    /** Who wrote each of the rows that are asked for, by their ids, which ascend. */
    private record RowsStanding(long[] ids, long[] writers) {

        static final RowsStanding NONE = new RowsStanding(new long[0], new long[0]);

        boolean isAs(RowsStanding other) {
            return Arrays.equals(ids, other.ids) && Arrays.equals(writers, other.writers);
        }
    }

    /**
     * Rows as they were read.
     *
     * @param byId as many as there are in {@code standing}; null for one that was taken out of use in that very moment
     * @param rows the same in the order in which they are given
     */
    private record RowsKept<T>(RowsStanding standing, List<T> byId, List<T> rows) {

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

    /**
     * Rows of one sort that belong to one thing.
     *
     * @param key what is remembered under this name, such as {@code units of 7}
     * @param of the number that the three queries are given
     * @param order of what is given
     * @param standing SQL for the ids and {@code xmin} of the rows, by id
     * @param all HQL for all of them, by {@code :id}
     * @param some HQL for some of them, by {@code :ids}
     */
    public record RowsWanted<T>(
            String key,
            long of,
            Class<T> type,
            Function<T, Long> id,
            Comparator<T> order,
            String standing,
            String all,
            String some) {}

    /** The rows as they stand; one transaction is given the same rows each time. */
    public <T> List<T> read(RowsWanted<T> wanted) {
        return once(wanted.key, () -> look(wanted));
    }

    @SuppressWarnings("unchecked")
    private <T> List<T> look(RowsWanted<T> wanted) {
        RowsKept<T> before = (RowsKept<T>)
                remembered.get(wanted.key, none -> new RowsKept<>(RowsStanding.NONE, List.of(), List.of()));
        // who wrote them is read first: a row that is written in between is read again the next time
        RowsStanding now = standing(wanted.standing, wanted.of);
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
                    ? fresh.createSelectionQuery(wanted.all, wanted.type).setParameter("id", wanted.of)
                    : fresh.createSelectionQuery(wanted.some, wanted.type).setParameterList("ids", changed);
            Map<Long, T> written = query.getResultStream().collect(Collectors.toMap(wanted.id, Function.identity()));
            for (int i = 0; i < now.ids.length; i++) {
                if (byId.get(i) == null) {
                    byId.set(i, written.get(now.ids[i]));
                }
            }
        }
        List<T> rows =
                byId.stream().filter(Objects::nonNull).sorted(wanted.order).toList();
        remembered.put(wanted.key, new RowsKept<>(now, byId, rows));
        return rows;
    }

    private RowsStanding standing(String sql, long of) {
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
            return new RowsStanding(ids.build().toArray(), writers.build().toArray());
        });
    }
}
