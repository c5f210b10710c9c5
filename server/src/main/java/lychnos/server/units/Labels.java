package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.fact.Fact;
import lychnos.core.fact.Label;
import lychnos.core.fact.LabelColumns;
import lychnos.core.fact.LabelFault;
import lychnos.core.fact.LabelList;
import lychnos.core.fact.RackPosition;
import lychnos.core.kind.Kind;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.kinds.Published;
import lychnos.server.live.Live;
import lychnos.server.site.BringUp;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;
import org.hibernate.exception.ConstraintViolationException;
import org.jspecify.annotations.Nullable;

/** Takes label lists in: right lines are kept, wrong ones come back with their reasons, and the whole can be undone. */
@ApplicationScoped
public class Labels {

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final FactChanges factChanges;
    private final ColumnMappings mappings;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    Labels(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            FactChanges factChanges,
            ColumnMappings mappings,
            Journal journal,
            Live live,
            Clock clock) {
        this.mappings = mappings;
        this.kinds = kinds;
        this.factChanges = factChanges;
        this.db = db;
        this.bringUps = bringUps;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /**
     * What becomes of one right line.
     *
     * @param change {@code new}, {@code filled in} or {@code already here}
     */
    public record LabelTaken(int line, String serial, String mac, String position, String change) {}

    /**
     * @param importId by which it can be undone; null for a preview and where nothing changed
     * @param columns what is read from which column
     */
    public record LabelReport(
            @Nullable Long importId,
            List<LabelTaken> taken,
            List<LabelFault> faults,
            List<ColumnMappings.ColumnView> columns) {}

    /**
     * @param preview whether only to say what would happen
     * @param chosen by column, what it holds, as a person has corrected it; empty for what is proposed, or was chosen
     * for a list with the same headings before
     */
    @Transactional
    public LabelReport read(
            long bringUpId, String text, boolean preview, Map<Integer, LabelList.Column> chosen, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        LabelList list = LabelList.parse(text, chosen);
        if (chosen.isEmpty()) {
            Map<Integer, LabelList.Column> before = ColumnMappings.columns(mappings.of(
                    ColumnMappings.Sort.LABELS,
                    list.columns().headingLine(),
                    list.columns().headings()));
            list = before.isEmpty() ? list : LabelList.parse(text, before);
        } else if (!preview) {
            mappings.remember(
                    ColumnMappings.Sort.LABELS,
                    list.columns().headingLine(),
                    list.columns().headings(),
                    ColumnMappings.words(list.columns().meaning()),
                    person);
        }
        List<Unit> units = bringUps.units(bringUpId);
        Map<RackPosition, Unit> byPosition = new HashMap<>();
        units.stream().filter(unit -> unit.rack != null).forEach(unit -> byPosition.put(unit.position(), unit));
        int next = bringUps.nextNumber(bringUpId);
        LabelsElsewhere elsewhere = elsewhere(list);
        List<LabelTaken> taken = new ArrayList<>();
        List<LabelFault> faults = new ArrayList<>(list.faults());
        List<FactChanges.FactCell> logins = new ArrayList<>();
        LabelImport entry = null;
        for (Label label : list.labels()) {
            Unit unit = byPosition.get(label.position());
            LabelFault fault = elsewhere.fault(label, unit);
            if (fault != null) {
                faults.add(fault);
                continue;
            }
            boolean same = unit != null && unit.known();
            String change =
                    same ? PrepareText.ALREADY_HERE.text() : unit == null ? "new" : PrepareText.FILLED_IN.text();
            taken.add(new LabelTaken(
                    label.line(),
                    label.serial(),
                    label.mac().toString(),
                    label.position().toString(),
                    change));
            if (!preview && !same) {
                entry = entry == null ? entry(bringUpId, person) : entry;
                boolean created = unit == null;
                unit = created ? unit(bringUp, next++, label.position()) : unit;
                fill(unit, label);
                db.persist(unit);
                db.flush();
                ownLogin(unit.id, label, logins);
                db.createNativeMutationQuery(
                                "insert into label_import_unit (import_id, unit_id, created) values (:import, :unit, "
                                        + ":created)")
                        .setParameter("import", entry.id)
                        .setParameter("unit", unit.id)
                        .setParameter("created", created)
                        .executeUpdate();
            }
        }
        faults.sort((a, b) -> Integer.compare(a.line(), b.line()));
        if (!logins.isEmpty()) {
            factChanges.set(bringUpId, logins, Fact.Source.LABEL, person);
        }
        if (entry != null) {
            journal.write(
                    person,
                    bringUpId,
                    null,
                    PrepareText.IMPORTED_LABELS_LEFT_OUT_LINES.text(taken.size(), faults.size()),
                    null,
                    taken);
            live.tell(bringUpId, "prepare");
        }
        return new LabelReport(entry == null ? null : entry.id, taken, faults, columns(list.columns()));
    }

    private static List<ColumnMappings.ColumnView> columns(LabelColumns columns) {
        List<String> samples = new ArrayList<>(columns.samples());
        columns.meaning().forEach((index, meaning) -> {
            if (meaning == LabelList.Column.FACTORY_PASSWORD && index < samples.size()) {
                samples.set(index, "");
            }
        });
        return ColumnMappings.views(columns.headings(), samples, ColumnMappings.words(columns.meaning()));
    }

    /** The factory login on the machine's own tag; its password is sealed as it is kept. */
    private static void ownLogin(long unitId, Label label, List<FactChanges.FactCell> cells) {
        if (!label.factoryUser().isEmpty()) {
            cells.add(new FactChanges.FactCell(unitId, "", Kind.OWN_USER, label.factoryUser()));
        }
        label.factoryPassword()
                .ifPresent(secret ->
                        secret.use(text -> cells.add(new FactChanges.FactCell(unitId, "", Kind.OWN_PASSWORD, text))));
    }

    private LabelImport entry(long bringUpId, Who.Person person) {
        LabelImport entry = new LabelImport();
        entry.bringUpId = bringUpId;
        entry.accountId = person.id();
        entry.at = clock.instant();
        db.persist(entry);
        db.flush();
        return entry;
    }

    private Unit unit(BringUp bringUp, int number, RackPosition position) {
        Published kind = kinds.newest(bringUp.kind);
        Unit unit = new Unit();
        unit.kind = kind.id();
        unit.kindVersion = kind.version();
        unit.bringUpId = bringUp.id;
        unit.number = number;
        unit.rack = position.rack();
        unit.rackUnit = position.unit();
        return unit;
    }

    private static void fill(Unit unit, Label label) {
        unit.serial = label.serial();
        unit.mac = label.mac();
        unit.model = label.model();
        unit.firstAddress = label.firstAddress().orElse(null);
    }

    /** Serials and MAC addresses of the list that other units bear already. */
    private record LabelsElsewhere(Map<String, Unit> bySerial, Map<String, Unit> byMac) {

        LabelFault fault(Label label, Unit there) {
            if (there != null
                    && there.known()
                    && !(there.serial.equals(label.serial()) && there.mac.equals(label.mac()))) {
                return new LabelFault(
                        label.line(),
                        PrepareText.RACK_POSITION.text(),
                        label.position().toString(),
                        label.position() + " holds " + there.serial + " already, with " + there.mac + ".");
            }
            Unit sameSerial = bySerial.get(label.serial());
            if (sameSerial != null && sameSerial != there) {
                return new LabelFault(
                        label.line(),
                        "serial",
                        label.serial(),
                        PrepareText.SERIAL_IS_ALREADY_USED.text(sameSerial.place()));
            }
            Unit sameMac = byMac.get(label.mac().toString());
            if (sameMac != null && sameMac != there) {
                return new LabelFault(
                        label.line(),
                        "mac",
                        label.mac().toString(),
                        PrepareText.MAC_ADDRESS_BELONGS.text(sameMac.serial, sameMac.place()));
            }
            return null;
        }
    }

    private LabelsElsewhere elsewhere(LabelList list) {
        Map<String, Unit> bySerial = new HashMap<>();
        Map<String, Unit> byMac = new HashMap<>();
        if (!list.labels().isEmpty()) {
            db.createQuery("from Unit where serial in :serials or mac in :macs", Unit.class)
                    .setParameter(
                            "serials", list.labels().stream().map(Label::serial).toList())
                    .setParameter("macs", list.labels().stream().map(Label::mac).toList())
                    .getResultList()
                    .forEach(unit -> {
                        bySerial.put(unit.serial, unit);
                        byMac.put(String.valueOf(unit.mac), unit);
                    });
        }
        return new LabelsElsewhere(bySerial, byMac);
    }

    /** The newest reading that can be undone, or null. */
    public Long undoable(long bringUpId) {
        return db.createQuery(
                        "from LabelImport where bringUpId = :id and undoneAt is null order by id desc",
                        LabelImport.class)
                .setParameter("id", bringUpId)
                .setMaxResults(1)
                .getResultStream()
                .map(entry -> entry.id)
                .filter(id -> !placedSince(id))
                .findFirst()
                .orElse(null);
    }

    private boolean placedSince(long importId) {
        return !db.createNativeQuery(
                        "select 1 from label_import_unit i where i.import_id = :id and (exists (select 1 from "
                                + "unit_address c where c.unit_id = i.unit_id and c.live)"
                                + " or exists (select 1 from unit_run r where r.unit_id = i.unit_id)) limit 1",
                        Integer.class)
                .setParameter("id", importId)
                .getResultList()
                .isEmpty();
    }

    /** Takes a reading back: new units go, filled-in labels are emptied. */
    @Transactional
    public void undo(long importId, Who.Person person) {
        LabelImport entry = db.find(LabelImport.class, importId, LockModeType.PESSIMISTIC_WRITE);
        if (entry == null || entry.undoneAt != null) {
            throw Refusal.conflict(PrepareText.THAT_IMPORT_HAS_ALREADY_BEEN_UNDONE.said());
        }
        if (placedSince(importId)) {
            throw Refusal.conflict(PrepareText.SOME_OF_THESE_UNITS_HAVE_ADDRESSES.said());
        }
        entry.undoneAt = clock.instant();
        db.flush();
        db.createNativeMutationQuery(
                        "delete from fact f using label_import_unit i where i.import_id = :id and i.unit_id = "
                                + "f.unit_id "
                                + "and (i.created or f.name in (:logins))")
                .setParameter("id", importId)
                .setParameter("logins", List.of(Kind.OWN_USER, Kind.OWN_PASSWORD))
                .executeUpdate();
        db.createNativeMutationQuery(
                        "update unit u set serial = null, mac = null, model = '', first_address = null from "
                                + "label_import_unit i"
                                + " where i.import_id = :id and i.unit_id = u.id and not i.created")
                .setParameter("id", importId)
                .executeUpdate();
        try {
            db.createNativeMutationQuery(
                            "delete from unit u using label_import_unit i where i.import_id = :id and i.unit_id = "
                                    + "u.id and i.created")
                    .setParameter("id", importId)
                    .executeUpdate();
        } catch (ConstraintViolationException e) {
            throw Refusal.conflict(PrepareText.SOME_OF_THESE_UNITS_ARE_IN_USE.said());
        }
        journal.write(person, entry.bringUpId, null, PrepareText.UNDID_AN_IMPORT_OF_LABELS.text(), null, null);
        live.tell(entry.bringUpId, "prepare");
    }
}
