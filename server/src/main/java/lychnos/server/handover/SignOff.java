package lychnos.server.handover;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.order.RunState;
import lychnos.core.record.CanonicalJson;
import lychnos.core.record.Chain;
import lychnos.core.text.Sha256;
import lychnos.server.api.problem.Reason;
import lychnos.server.api.problem.Refusal;
import lychnos.server.handover.chain.Chaining;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.prove.Checks;
import lychnos.server.prove.Proof;
import lychnos.server.text.HandoverText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;
import org.hibernate.exception.ConstraintViolationException;
import org.jspecify.annotations.Nullable;

/** Signs units: what is proven is frozen as it stands, and put into the chain. All of what is asked for, or nothing. */
@ApplicationScoped
public class SignOff {

    private final Session db;
    private final BringUps bringUps;
    private final Checks checks;
    private final Inventory inventory;
    private final RecordBuilder recordBuilder;
    private final OpenItems items;
    private final Chaining chaining;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    SignOff(
            Session db,
            BringUps bringUps,
            Checks checks,
            Inventory inventory,
            RecordBuilder recordBuilder,
            OpenItems items,
            Chaining chaining,
            Journal journal,
            Live live,
            Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.checks = checks;
        this.inventory = inventory;
        this.recordBuilder = recordBuilder;
        this.items = items;
        this.chaining = chaining;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** What a unit is on its way to being signed. */
    public enum SignState {
        /** Signed, and that counts. */
        SIGNED,
        /** Proven, and nothing blocks signing. */
        READY,
        /** Something blocks signing. */
        BLOCKED
    }

    /**
     * One unit.
     *
     * @param fault whether a person must fix something; else it is only not so far yet
     * @param face what is shown of it, as a digest: the lead who signs says which one they saw; empty where it
     *     cannot be
     * signed now
     * @param why what blocks signing; empty where nothing does
     * @param digest of its record, or null
     */
    public record SignStanding(
            long unitId,
            String unit,
            String kind,
            SignState state,
            String why,
            boolean fault,
            String face,
            @Nullable String digest,
            String signedBy,
            @Nullable Instant signedAt,
            @Nullable Instant provenAt) {}

    /** A unit as the lead who signs it has seen it. */
    public record SeenUnit(long unit, String face) {}

    /** Of each unit of a bring-up, where it stands. */
    @Transactional
    public List<SignStanding> standings(long bringUpId) {
        return standings(bringUpId, inventory.of(bringUpId, null));
    }

    List<SignStanding> standings(long bringUpId, List<Inventory.InventoryEntry> entries) {
        Map<Long, List<Inventory.InventoryEntry>> byUnit =
                entries.stream().collect(Collectors.groupingBy(Inventory.InventoryEntry::unitId));
        Map<Long, Proof> proofs = checks.proofs(bringUpId);
        Map<Long, SignedRecord> records = records(bringUpId);
        Map<Long, String> changes = changes(bringUpId);
        Map<Long, RunState> settingUp = new HashMap<>();
        db.createQuery(
                        "select r.unitId, r.state from Run r join Unit u on u.id = r.unitId where u.bringUpId = "
                                + ":id and "
                                + "r.purpose in ('configure', 'console') and r.state in (RUNNING, STOPPED)",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .forEach(row -> settingUp.put((Long) row[0], (RunState) row[1]));
        Map<Long, String> unnoted = items.proposed(bringUpId).stream()
                .collect(Collectors.toMap(
                        OpenItems.OpenItemProposal::unitId, OpenItems.OpenItemProposal::text, (a, b) -> a));
        Map<Long, String> names = new HashMap<>();
        List<SignStanding> standings = new ArrayList<>();
        for (Unit unit : bringUps.units(bringUpId)) {
            SignedRecord record = records.get(unit.id);
            Proof proof = proofs.get(unit.id);
            List<Inventory.InventoryEntry> own = byUnit.getOrDefault(unit.id, List.of());
            String why =
                    blocks(own.isEmpty(), settingUp.get(unit.id), proof, changes.get(unit.id), unnoted.get(unit.id));
            boolean fault = proof != null && !proof.proven && !settingUp.containsKey(unit.id)
                    || settingUp.get(unit.id) == RunState.STOPPED
                    || changes.containsKey(unit.id);
            SignState state = record != null ? SignState.SIGNED : why.isEmpty() ? SignState.READY : SignState.BLOCKED;
            String by =
                    record == null
                            ? ""
                            : names.computeIfAbsent(record.signedBy, id -> (String)
                                    db.createNativeQuery("select name from account where id = :id", String.class)
                                            .setParameter("id", id)
                                            .getSingleResult());
            standings.add(new SignStanding(
                    unit.id,
                    own.isEmpty()
                            ? unit.label()
                            : own.get(0).endpoint().machine().unit(),
                    unit.kind,
                    state,
                    why,
                    fault && record == null,
                    state == SignState.READY ? face(own) : "",
                    record == null ? null : record.digest,
                    by,
                    record == null ? null : record.signedAt,
                    proof == null || !proof.proven ? null : proof.provenAt));
        }
        return standings;
    }

    /**
     * What blocks signing, as a sentence; empty where nothing does.
     *
     * @param settingUp the state of the unit's setup while it runs or has stopped, else null
     * @param proof what its endpoints came to, or null
     * @param change what must be decided on, or null
     * @param unnoted what must become an open item, or null
     */
    private static String blocks(boolean unplaced, RunState settingUp, Proof proof, String change, String unnoted) {
        if (unplaced) {
            return HandoverText.NO_ADDRESS_IS_ALLOCATED_YET.text();
        }
        if (settingUp != null) {
            return settingUp == RunState.STOPPED
                    ? HandoverText.SETUP_HAS_STOPPED.text()
                    : HandoverText.SETUP_IS_IN_PROGRESS.text();
        }
        if (proof == null) {
            return HandoverText.NOT_EVERY_ENDPOINT_HAS_BEEN_CHECKED_YET.text();
        }
        if (!proof.proven) {
            return proof.sentence;
        }
        if (change != null) {
            return change;
        }
        return unnoted == null ? "" : HandoverText.ADD_AN_OPEN_ITEM_WITH_A_REASON.text(unnoted);
    }

    /** Of what people read of a unit before they sign it. */
    private static String face(List<Inventory.InventoryEntry> entries) {
        return CanonicalJson.digest(entries.stream()
                        .map(Inventory.InventoryEntry::endpoint)
                        .map(each -> List.of(
                                each.role(),
                                each.name(),
                                each.address().toString(),
                                each.machine().serial(),
                                each.seen().mac(),
                                each.seen().firmware(),
                                each.seen().certificate(),
                                each.seen().hostKey()))
                        .toList())
                .substring(0, 16);
    }

    private Map<Long, SignedRecord> records(long bringUpId) {
        return db.createQuery("from SignedRecord where bringUpId = :id and endedAt is null", SignedRecord.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .collect(Collectors.toMap(record -> record.unitId, Function.identity()));
    }

    /** By unit, what must be decided or noted before it is signed, in a few words. */
    @Transactional
    public Map<Long, String> held(long bringUpId) {
        Map<Long, String> held = new HashMap<>();
        items.proposed(bringUpId)
                .forEach(proposal -> held.put(proposal.unitId(), HandoverText.OPEN_ITEM_TO_NOTE.text()));
        changes(bringUpId).keySet().forEach(unit -> held.put(unit, HandoverText.CHANGE_TO_DECIDE.text()));
        return held;
    }

    private Map<Long, String> changes(long bringUpId) {
        Map<Long, String> changes = new HashMap<>();
        db.createNativeQuery(
                        "select c.unit_id, t.what, c.host_name from trait_change t join claim c on c.id = t.claim_id "
                                + "join unit u on u.id = c.unit_id where u.bring_up_id = :id and c.released_at is "
                                + "null and t.state in ('OPEN', 'FAULT') order by t.id",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .forEach(row -> changes.putIfAbsent(
                        ((Number) row[0]).longValue(),
                        HandoverText.SOMETHING_HAS_CHANGED_SINCE_IT_WAS_ACCEPTED.text(row[1], row[2])));
        return changes;
    }

    /** What was signed. */
    public record SignedUnit(long unit, String name, String digest, long link) {}

    /** Signs these, all or none. */
    @Transactional
    public List<SignedUnit> sign(long bringUpId, List<SeenUnit> wanted, Who.Person person) {
        bringUps.get(bringUpId);
        if (wanted == null || wanted.isEmpty()) {
            throw Refusal.bad(HandoverText.WHICH_UNITS.said());
        }
        Map<Long, String> faces = new LinkedHashMap<>();
        wanted.forEach(seen -> faces.put(seen.unit, seen.face));
        // whatever a check finds from here on comes after what is signed; in one order, since two leads may sign at
        // once
        db.createNativeQuery(
                        "select p.claim_id from proof p where p.unit_id in (:units) order by p.claim_id for update",
                        Long.class)
                .setParameter("units", new TreeSet<>(faces.keySet()))
                .getResultList();
        db.clear();
        List<Inventory.InventoryEntry> entries = inventory.of(bringUpId, null);
        Map<Long, SignStanding> standings = standings(bringUpId, entries).stream()
                .collect(Collectors.toMap(SignStanding::unitId, Function.identity()));
        faces.forEach((unit, face) -> refuse(standings.get(unit), face));
        Map<Long, List<Inventory.InventoryEntry>> byUnit =
                entries.stream().collect(Collectors.groupingBy(Inventory.InventoryEntry::unitId));
        Instant now = clock.instant().truncatedTo(ChronoUnit.MICROS);
        List<SignedUnit> signed = new ArrayList<>();
        for (Long id : new TreeSet<>(faces.keySet())) {
            signed.add(sign(bringUps.unit(id), byUnit.get(id), person, now));
        }
        live.tell(bringUpId, "handover");
        return signed;
    }

    private static void refuse(SignStanding standing, String face) {
        if (standing == null) {
            throw Refusal.notFound(HandoverText.NO_SUCH_UNIT_IN_THIS_BRING_UP.said());
        }
        if (standing.state == SignState.SIGNED) {
            throw Refusal.conflict(HandoverText.WAS_SIGNED.said(standing.unit, standing.signedBy));
        }
        if (standing.state == SignState.BLOCKED) {
            throw Refusal.conflict(HandoverText.CANNOT_BE_SIGNED.said(standing.unit, standing.why));
        }
        if (face != null && !face.equals(standing.face)) {
            throw Refusal.conflict(HandoverText.HAS_CHANGED_SINCE_YOU_SAW.said(standing.unit));
        }
    }

    private SignedUnit sign(Unit unit, List<Inventory.InventoryEntry> entries, Who.Person person, Instant now) {
        String body = CanonicalJson.write(recordBuilder.of(unit, entries, person, now));
        SignedRecord record = new SignedRecord();
        record.bringUpId = unit.bringUpId;
        record.unitId = unit.id;
        record.body = body;
        record.digest = Sha256.hex(body);
        record.signedBy = person.id();
        record.signedAt = now;
        try {
            db.persist(record);
            db.flush();
        } catch (ConstraintViolationException e) {
            throw Refusal.conflict(HandoverText.HAS_JUST_BEEN_SIGNED_BY_SOMEBODY_ELSE.said(unit.label()));
        }
        String name = entries.get(0).endpoint().machine().unit();
        journal.write(
                person,
                unit.bringUpId,
                unit.id,
                HandoverText.SIGNED_UNIT.text(name, shortened(record.digest)),
                null,
                null);
        Chain.Link link = chaining.append(Chaining.RECORD, record.id, record.digest);
        return new SignedUnit(unit.id, name, record.digest, link.number());
    }

    static String shortened(String digest) {
        return digest.substring(0, 4) + "…" + digest.substring(60);
    }

    /** Opens a signed unit for a change: its record counts no more, and stays. */
    @Transactional
    public void reopen(long unitId, String why, Who.Person person) {
        Unit unit = bringUps.unit(unitId);
        if (!end(unit, why, person)) {
            throw Refusal.conflict(HandoverText.IS_NOT_SIGNED.said(unit.label()));
        }
        journal.write(person, unit.bringUpId, unitId, HandoverText.REOPENED_UNIT.text(unit.label(), why), null, null);
        live.tell(unit.bringUpId, "handover");
    }

    /** Ends the record of a unit, if it has one that counts. */
    boolean end(Unit unit, String why, Who.Person person) {
        Optional<SignedRecord> counts = db.createQuery(
                        "from SignedRecord where unitId = :unit and endedAt is null", SignedRecord.class)
                .setParameter("unit", unit.id)
                .getResultStream()
                .findFirst();
        if (counts.isEmpty()) {
            return false;
        }
        SignedRecord record = counts.get();
        record.endedAt = clock.instant().truncatedTo(ChronoUnit.MICROS);
        record.endedBy = person.id();
        record.endedWhy = why.length() > Reason.LONGEST ? why.substring(0, Reason.LONGEST) : why;
        db.flush();
        chaining.append(Chaining.END, record.id, Chaining.end(record.endedAt, record.endedBy, record.endedWhy));
        return true;
    }
}
