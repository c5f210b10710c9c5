package lychnos.server.kinds;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.quarkus.runtime.StartupEvent;
import jakarta.annotation.Priority;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.interceptor.Interceptor;
import jakarta.transaction.Status;
import jakarta.transaction.Synchronization;
import jakarta.transaction.TransactionSynchronizationRegistry;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.sql.DataSource;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFault;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindReader;
import lychnos.server.LychnosConfig;
import lychnos.server.api.problem.Refusal;
import lychnos.server.secrets.SealKeys;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.KindText;
import lychnos.wire.time.Ticker;
import org.jboss.logging.Logger;

/**
 * What this server remembers of kinds: each published version, read once, and which one is newest. A number in the
 * database grows with every change; it is looked at again after {@link #FRESH}, so that a version that is published on
 * one server is used by all of them within that time.
 */
@ApplicationScoped
class KindMemory {

    private static final Logger LOG = Logger.getLogger(KindMemory.class);

    static final Duration FRESH = Duration.ofMillis(500);

    /** A published version never changes, so that only memory bounds them. */
    private static final int MOST_VERSIONS = 5_000;

    /** A change of kinds concerns every bring-up. */
    static final long EVERY_BRING_UP = 0;

    private final DataSource database;
    private final TransactionSynchronizationRegistry transaction;
    private final SealedStore sealed;
    private final Optional<Integer> labPort;
    private final Ticker ticker;
    private final Cache<KindVersion.KindVersionKey, Published> versions =
            Caffeine.newBuilder().maximumSize(MOST_VERSIONS).build();
    private final Cache<KindVersion.KindVersionKey, String> unreadable =
            Caffeine.newBuilder().maximumSize(MOST_VERSIONS).build();
    private volatile Now now;
    private volatile long lookedAt;

    /**
     * What may change.
     *
     * @param newest by kind, in the order of their titles, the newest version; without kinds that have none
     * @param adjustments that were not removed, oldest first
     */
    record Now(long revision, Map<String, Newest> newest, List<Adjusted> adjustments) {}

    /** @param retired whether no new unit takes it */
    record Newest(int version, boolean retired) {}

    /**
     * An adjustment that counts.
     *
     * @param bringUpId null where it holds for the whole site
     * @param secret null where it has none
     */
    record Adjusted(long id, String kindId, long siteId, Long bringUpId, String what, String value, Secret secret) {}

    KindMemory(
            DataSource database,
            TransactionSynchronizationRegistry transaction,
            SealedStore sealed,
            LychnosConfig config,
            Ticker ticker) {
        this.database = database;
        this.transaction = transaction;
        this.sealed = sealed;
        this.labPort = config.labPort();
        this.ticker = ticker;
    }

    /** Before anything asks for a kind: those that are new with this program become known. */
    void start(@Observes @Priority(Interceptor.Priority.PLATFORM_BEFORE) StartupEvent event) throws SQLException {
        try (Connection connection = database.getConnection()) {
            ShippedKinds.publishNew(connection);
        }
    }

    Now now() {
        Now known = now;
        if (known != null && ticker.nanos() - lookedAt < FRESH.toNanos()) {
            return known;
        }
        try (Connection connection = database.getConnection()) {
            long looked = ticker.nanos();
            long revision = revision(connection);
            if (known == null || known.revision != revision) {
                known = new Now(revision, newest(connection), adjustments(connection));
                now = known;
            }
            lookedAt = looked;
            return known;
        } catch (SQLException e) {
            throw new IllegalStateException("The kinds cannot be read from the database.", e);
        }
    }

    /** What is done in this transaction is seen by this server as soon as it is committed. */
    void changes() {
        transaction.registerInterposedSynchronization(new Synchronization() {
            @Override
            public void beforeCompletion() {}

            @Override
            public void afterCompletion(int status) {
                if (status == Status.STATUS_COMMITTED) {
                    now = null;
                }
            }
        });
    }

    /**
     * Why this program cannot read a version, such as one that another release has published; empty where it can, or
     * where there is no such version.
     */
    Optional<String> fault(String id, int version) {
        KindVersion.KindVersionKey key = new KindVersion.KindVersionKey(id, version);
        try {
            version(id, version);
        } catch (Refusal e) {
            // the sentence is kept with the version
        }
        return Optional.ofNullable(unreadable.getIfPresent(key));
    }

    /**
     * A published version; empty where there is none.
     *
     * @throws Refusal 409 if this program cannot read it
     */
    Optional<Published> version(String id, int version) {
        KindVersion.KindVersionKey key = new KindVersion.KindVersionKey(id, version);
        String unreadableWhy = unreadable.getIfPresent(key);
        if (unreadableWhy != null) {
            throw Refusal.conflict(unreadableWhy);
        }
        Published known = versions.getIfPresent(key);
        if (known == null) {
            known = read(key);
            if (known != null) {
                Published first = versions.asMap().putIfAbsent(key, known);
                known = first == null ? known : first;
            }
        }
        return Optional.ofNullable(known);
    }

    private Published read(KindVersion.KindVersionKey key) {
        try (Connection connection = database.getConnection();
                PreparedStatement query = connection.prepareStatement(
                        "select text, digest from kind_version where kind_id = ? and version = ?")) {
            query.setString(1, key.kindId());
            query.setInt(2, key.version());
            try (ResultSet row = query.executeQuery()) {
                if (!row.next()) {
                    return null;
                }
                Kind kind = parse(key, row.getString(1));
                return new Published(
                        key.kindId(),
                        key.version(),
                        row.getString(2),
                        row.getString(1),
                        labPort.map(kind::withPort).orElse(kind));
            }
        } catch (SQLException e) {
            throw new IllegalStateException(
                    "Version " + key.version() + " of the kind " + key.kindId() + " cannot be read from the database.",
                    e);
        }
    }

    private Kind parse(KindVersion.KindVersionKey key, String text) {
        try {
            return KindReader.read(text);
        } catch (KindFaults e) {
            KindFault first = e.faults().get(0);
            String sentence = KindText.VERSION_OF_THE_KIND_CANNOT_BE_READ.text(
                    key.version(), key.kindId(), first.line(), first.reason().replaceFirst("[.]$", ""));
            LOG.warn(sentence);
            unreadable.put(key, sentence);
            throw Refusal.conflict(sentence);
        }
    }

    /** The site of a bring-up. */
    long siteOf(long bringUpId) {
        try (Connection connection = database.getConnection();
                PreparedStatement query = connection.prepareStatement("select site_id from bring_up where id = ?")) {
            query.setLong(1, bringUpId);
            try (ResultSet row = query.executeQuery()) {
                row.next();
                return row.getLong(1);
            }
        } catch (SQLException e) {
            throw new IllegalStateException("The site of bring-up " + bringUpId + " cannot be read.", e);
        }
    }

    private static long revision(Connection connection) throws SQLException {
        try (Statement query = connection.createStatement();
                ResultSet row = query.executeQuery("select revision from kind_revision")) {
            row.next();
            return row.getLong(1);
        }
    }

    private static Map<String, Newest> newest(Connection connection) throws SQLException {
        Map<String, Newest> newest = new LinkedHashMap<>();
        try (Statement query = connection.createStatement();
                ResultSet row = query.executeQuery(
                        "select k.id, v.version, k.retired_at is not null from kind k join lateral (select version, "
                                + "title from kind_version where kind_id = k.id order by version desc limit 1) v on "
                                + "true order by lower(v.title), k.id")) {
            while (row.next()) {
                newest.put(row.getString(1), new Newest(row.getInt(2), row.getBoolean(3)));
            }
        }
        return newest;
    }

    private List<Adjusted> adjustments(Connection connection) throws SQLException {
        List<Adjusted> all = new ArrayList<>();
        try (Statement query = connection.createStatement();
                ResultSet row = query.executeQuery("select id, kind_id, site_id, bring_up_id, what, value, key_id, "
                        + "nonce, sealed from kind_adjustment where removed_at is null order by id")) {
            while (row.next()) {
                long id = row.getLong(1);
                long bringUp = row.getLong(4);
                Long bringUpId = row.wasNull() ? null : bringUp;
                String keyId = row.getString(7);
                Secret secret = keyId == null
                        ? null
                        : sealed.openText(
                                SealKeys.ofAdjustment(row.getString(2), row.getLong(3), bringUp, row.getString(5)),
                                keyId,
                                row.getBytes(8),
                                row.getBytes(9));
                all.add(new Adjusted(
                        id, row.getString(2), row.getLong(3), bringUpId, row.getString(5), row.getString(6), secret));
            }
        }
        return all;
    }
}
