package lychnos.server.allocate;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.runtime.ShutdownEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.transaction.Status;
import jakarta.transaction.Synchronization;
import jakarta.transaction.TransactionSynchronizationRegistry;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import lychnos.core.address.Address;
import lychnos.core.name.Records;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.allocate.NameRecord.NameRecordState;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.Rows;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.site.BringUp;
import lychnos.server.site.Measures;
import lychnos.server.site.SiteResourceRow;
import lychnos.server.site.SiteResources;
import lychnos.server.text.AllocateText;
import lychnos.server.units.BringUps;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.Pushed;
import lychnos.wire.dns.ZoneRecord;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;
import org.hibernate.Session;
import org.jboss.logging.Logger;

/**
 * The records that addresses need, pushed to the primary server of their zone by dynamic update. A record is marked as
 * on its way before it is sent; a crash in between leaves it so, and sending it again is harmless.
 */
@ApplicationScoped
public class Names {

    private static final Logger LOG = Logger.getLogger(Names.class);
    private static final Duration PATIENCE = Duration.ofSeconds(5);

    private final Session db;
    private final BringUps bringUps;
    private final SiteResources siteResources;
    private final Measures measures;
    private final Vantage vantage;
    private final Journal journal;
    private final Live live;
    private final Clock clock;
    private final TransactionSynchronizationRegistry transaction;
    private final ExecutorService thread = Executors.newSingleThreadExecutor();

    Names(
            Session db,
            BringUps bringUps,
            SiteResources siteResources,
            Measures measures,
            Vantage vantage,
            Journal journal,
            Live live,
            Clock clock,
            TransactionSynchronizationRegistry transaction) {
        this.db = db;
        this.bringUps = bringUps;
        this.siteResources = siteResources;
        this.measures = measures;
        this.vantage = vantage;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
        this.transaction = transaction;
    }

    void stop(@Observes ShutdownEvent event) {
        thread.shutdownNow();
    }

    /** A zone with the server that takes its updates. */
    private record SiteZone(String name, Address primary, Optional<NameKey> key) {}

    private List<SiteZone> zones(long siteId) {
        List<SiteZone> zones = new ArrayList<>();
        for (SiteResourceRow row : siteResources.rows(siteId)) {
            if (row.resource().sort() == SiteResourceSort.DOMAIN) {
                Optional<NameKey> key = measures.key(row);
                Measures.zones(row)
                        .forEach(zone -> zones.add(new SiteZone(zone, Address.parse(row.value.get("primary")), key)));
            }
        }
        zones.sort(Comparator.comparingInt(zone -> -zone.name.length()));
        return zones;
    }

    /** The longest zone that a name lies in; empty where none is stated. */
    private static String zoneOf(List<SiteZone> zones, String owner) {
        return zones.stream()
                .map(SiteZone::name)
                .filter(zone -> owner.equals(zone) || owner.endsWith("." + zone))
                .findFirst()
                .orElse("");
    }

    private record Planned(Address address, String zone, ZoneRecord record) {}

    /** Plans the records of an allocation: A or AAAA, PTR, and CNAME where the kind has a second name. */
    void plan(long siteId, UUID allocation, List<Claim> claims) {
        List<SiteZone> zones = zones(siteId);
        List<Planned> planned = new ArrayList<>();
        for (Claim claim : claims) {
            records(claim)
                    .forEach(record -> planned.add(new Planned(claim.address, zoneOf(zones, record.owner()), record)));
        }
        Rows.of(planned)
                .column("inet", row -> row.address)
                .column("text", row -> row.zone)
                .column("text", row -> row.record.owner())
                .column("text", row -> row.record.type())
                .column("text", row -> row.record.data())
                .write(
                        db,
                        "insert into name_record (claim_id, zone, owner, type, data, state)"
                                + " select c.id, r.zone, r.owner, r.type, r.data, 'PLANNED' from %s r (address, "
                                + "zone, owner, type, data) join claim c on c.address = r.address and "
                                + "c.allocation = ? and c.released_at is null",
                        allocation);
    }

    private static List<ZoneRecord> records(Claim claim) {
        Records names = Records.of(claim.hostName, claim.domain, claim.address);
        List<ZoneRecord> records = new ArrayList<>();
        records.add(new ZoneRecord(names.fqdn(), names.type(), claim.address.toString()));
        records.add(new ZoneRecord(names.reverseName(), "PTR", names.fqdn()));
        if (claim.alias != null && claim.address.isV4()) {
            records.add(new ZoneRecord(claim.alias + "." + claim.domain, "CNAME", names.fqdn()));
        }
        return records;
    }

    private List<NameRecord> of(long bringUpId) {
        // those of retired units as well: their names are still to be withdrawn
        return db.createNativeQuery(
                        "select n.* from name_record n join claim c on c.id = n.claim_id join unit u on u.id = "
                                + "c.unit_id where u.bring_up_id = :id order by n.id",
                        NameRecord.class)
                .setParameter("id", bringUpId)
                .getResultList();
    }

    /** One record for the screen. */
    public record NameRecordView(long id, String zone, String line, String state, String answer) {}

    /** How far the records of a bring-up are. */
    public record NamesView(
            int planned,
            int made,
            int refused,
            int unknown,
            List<NameRecordView> open,
            String zoneLines,
            List<String> withoutZone) {}

    @Transactional
    public NamesView view(long bringUpId) {
        List<NameRecord> all = of(bringUpId);
        List<NameRecord> live = all.stream()
                .filter(record -> record.state != NameRecordState.WITHDRAWN)
                .toList();
        List<NameRecordView> open = live.stream()
                .filter(record -> record.state == NameRecordState.REFUSED || record.state == NameRecordState.UNKNOWN)
                .limit(200)
                .map(record ->
                        new NameRecordView(record.id, record.zone, line(record), record.state.name(), record.answer))
                .toList();
        StringBuilder lines = new StringBuilder();
        live.stream()
                .filter(record -> record.state != NameRecordState.WITHDRAWING)
                .forEach(record -> lines.append(line(record)).append('\n'));
        return new NamesView(
                count(live, NameRecordState.PLANNED) + count(live, NameRecordState.SENDING),
                count(live, NameRecordState.MADE),
                count(live, NameRecordState.REFUSED),
                count(live, NameRecordState.UNKNOWN),
                open,
                lines.toString(),
                live.stream()
                        .filter(record -> record.zone.isEmpty())
                        .map(record -> record.owner)
                        .limit(5)
                        .toList());
    }

    private static int count(List<NameRecord> records, NameRecordState state) {
        return (int) records.stream().filter(record -> record.state == state).count();
    }

    private static String line(NameRecord record) {
        boolean address = record.type.equals("A") || record.type.equals("AAAA");
        return record.owner + ". IN " + record.type + " " + record.data + (address ? "" : ".");
    }

    /** Whether a name server may know of any of these addresses. */
    boolean pushed(List<Claim> claims) {
        return db.createQuery(
                                "select count(*) from NameRecord n where n.claimId in :claims and n.state not in "
                                        + "(PLANNED, WITHDRAWN)",
                                Long.class)
                        .setParameter(
                                "claims", claims.stream().map(claim -> claim.id).toList())
                        .getSingleResult()
                > 0;
    }

    /** Takes the records of released addresses back: at once where nobody was told, else at the name server. */
    void withdraw(List<Claim> claims) {
        List<NameRecord> records = db.createQuery("from NameRecord where claimId in :claims", NameRecord.class)
                .setParameter("claims", claims.stream().map(claim -> claim.id).toList())
                .getResultList();
        boolean told = false;
        for (NameRecord record : records) {
            // a refused record is not ours
            boolean ours = record.state == NameRecordState.MADE
                    || record.state == NameRecordState.UNKNOWN
                    || record.state == NameRecordState.SENDING;
            record.state = ours ? NameRecordState.WITHDRAWING : NameRecordState.WITHDRAWN;
            record.at = clock.instant();
            told |= ours;
        }
        if (told) {
            long bringUpId = bringUps.unit(claims.get(0).unitId).bringUpId;
            workAfterCommit(bringUpId);
        }
    }

    /**
     * Starts to push all records that are not on their name server yet; the screen is told of progress.
     *
     * @param again units whose records are sent once more although they were made: somebody may have taken them away
     */
    @Transactional
    public int push(long bringUpId, Set<Long> again, Who.Person person) {
        Set<Long> lost = again.isEmpty()
                ? Set.of()
                : Set.copyOf(db.createQuery(
                                "select c.id from Claim c join Unit u on u.id = c.unitId where u.bringUpId = :id and "
                                        + "c.unitId in (:units)",
                                Long.class)
                        .setParameter("id", bringUpId)
                        .setParameter("units", again)
                        .getResultList());
        List<NameRecord> records = of(bringUpId).stream()
                .filter(record -> (record.state != NameRecordState.MADE || lost.contains(record.claimId))
                        && record.state != NameRecordState.WITHDRAWN)
                .toList();
        if (records.isEmpty()) {
            throw Refusal.conflict(AllocateText.ALL_RECORDS_ARE_ON_THE_NAME_SERVER.said());
        }
        if (records.stream().allMatch(record -> record.zone.isEmpty())) {
            throw Refusal.conflict(AllocateText.NO_DOMAIN_TO_PUSH_TO.said());
        }
        records.stream()
                .filter(record -> record.state != NameRecordState.WITHDRAWING && !record.zone.isEmpty())
                .forEach(record -> {
                    record.state = NameRecordState.SENDING;
                    record.answer = "";
                    record.at = clock.instant();
                });
        journal.write(person, bringUpId, null, AllocateText.PUSHED_RECORDS.text(records.size()), null, null);
        live.tell(bringUpId, "allocate");
        workAfterCommit(bringUpId);
        return records.size();
    }

    /** What is marked as on its way is sent once the mark is kept, and not before. */
    private void workAfterCommit(long bringUpId) {
        transaction.registerInterposedSynchronization(new Synchronization() {
            @Override
            public void beforeCompletion() {}

            @Override
            public void afterCompletion(int status) {
                if (status == Status.STATUS_COMMITTED) {
                    thread.execute(() -> work(bringUpId));
                }
            }
        });
    }

    /** What is on its way, by zone. */
    private record UpdateBatch(SiteZone zone, boolean make, Map<Long, ZoneRecord> records) {}

    private void work(long bringUpId) {
        try {
            for (UpdateBatch batch : QuarkusTransaction.requiringNew().call(() -> batches(bringUpId))) {
                Map<Long, Pushed> answers = send(batch);
                QuarkusTransaction.requiringNew().run(() -> keep(bringUpId, batch.make, answers));
            }
        } catch (RuntimeException e) {
            LOG.warnf(e, "The records of bring-up %d are still on their way; push them again.", bringUpId);
        }
    }

    private List<UpdateBatch> batches(long bringUpId) {
        BringUp bringUp = bringUps.get(bringUpId);
        Map<String, SiteZone> zones = new HashMap<>();
        zones(bringUp.site.id).forEach(zone -> zones.put(zone.name, zone));
        Map<String, UpdateBatch> batches = new LinkedHashMap<>();
        for (NameRecord record : of(bringUpId)) {
            boolean make = record.state == NameRecordState.SENDING;
            if (zones.containsKey(record.zone) && (make || record.state == NameRecordState.WITHDRAWING)) {
                batches.computeIfAbsent(
                                record.zone + make,
                                key -> new UpdateBatch(zones.get(record.zone), make, new LinkedHashMap<>()))
                        .records
                        .put(record.id, new ZoneRecord(record.owner, record.type, record.data));
            }
        }
        return List.copyOf(batches.values());
    }

    private Map<Long, Pushed> send(UpdateBatch batch) {
        List<Long> ids = List.copyOf(batch.records.keySet());
        List<ZoneRecord> records = List.copyOf(batch.records.values());
        Map<Long, Pushed> answers = new LinkedHashMap<>();
        List<Pushed> pushed;
        try {
            if (batch.zone.key.isEmpty()) {
                pushed = records.stream()
                        .map(record -> new Pushed(
                                record, Pushed.State.REFUSED, AllocateText.NO_KEY_IS_DEFINED.text(batch.zone.name)))
                        .toList();
            } else if (batch.make) {
                pushed = vantage.makeRecords(
                        batch.zone.primary, batch.zone.name, batch.zone.key.get(), records, PATIENCE);
            } else {
                pushed = vantage.removeRecords(
                        batch.zone.primary, batch.zone.name, batch.zone.key.get(), records, PATIENCE);
            }
        } catch (WireFault e) {
            pushed = records.stream()
                    .map(record -> new Pushed(record, Pushed.State.REFUSED, e.getMessage()))
                    .toList();
        }
        for (int i = 0; i < ids.size(); i++) {
            answers.put(ids.get(i), pushed.get(i));
        }
        return answers;
    }

    private void keep(long bringUpId, boolean make, Map<Long, Pushed> answers) {
        answers.forEach((id, pushed) -> {
            NameRecord record = db.find(NameRecord.class, id);
            boolean done = pushed.state() == Pushed.State.DONE || pushed.state() == Pushed.State.THERE;
            if (record.state == (make ? NameRecordState.SENDING : NameRecordState.WITHDRAWING)) {
                NameRecordState failed =
                        pushed.state() == Pushed.State.UNKNOWN ? NameRecordState.UNKNOWN : NameRecordState.REFUSED;
                record.state = done
                        ? (make ? NameRecordState.MADE : NameRecordState.WITHDRAWN)
                        : make ? failed : NameRecordState.WITHDRAWING;
                record.answer = pushed.why();
                record.at = clock.instant();
            }
        });
        live.tell(bringUpId, "allocate");
    }
}
