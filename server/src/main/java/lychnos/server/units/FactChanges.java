package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Mac;
import lychnos.core.fact.RackPosition;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.Live;
import lychnos.server.secrets.SealKeys;
import lychnos.server.secrets.SealedStore;
import lychnos.server.site.BringUp;
import lychnos.server.site.SiteResources;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Sets facts, cell by cell, and undoes that. */
@ApplicationScoped
public class FactChanges {

    /** Cells that are set in one piece: a column of 5,000 units twice over. */
    private static final int MOST_CELLS = 20_000;

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final SealedStore sealed;
    private final SignedUnits signedUnits;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    FactChanges(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            SealedStore sealed,
            SignedUnits signedUnits,
            Journal journal,
            Live live,
            Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.sealed = sealed;
        this.signedUnits = signedUnits;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /**
     * One cell as it is typed; an empty value takes back what stood there.
     *
     * @param seen the value before, as the person saw it, empty where there was none; null overwrites any value
     */
    public record FactCell(long unitId, String member, String name, String value, @Nullable String seen) {

        public FactCell(long unitId, String member, String name, String value) {
            this(unitId, member, name, value, null);
        }
    }

    /** What is wrong with a cell. */
    public record FactCellFault(long unitId, String member, String name, String value, String reason) {}

    /** @param changeId by which it can be undone; null where nothing changed */
    public record FactsReport(@Nullable Long changeId, int changed, List<FactCellFault> faults) {}

    /** Sets cells: right ones are kept, wrong ones come back with their reasons. */
    @Transactional
    public FactsReport set(long bringUpId, List<FactCell> cells, Fact.Source source, Who.Person person) {
        if (cells.size() > MOST_CELLS) {
            throw Refusal.bad(PrepareText.AT_MOST_CELLS_ARE_SET_AT_ONCE.said(MOST_CELLS));
        }
        BringUp bringUp = bringUps.get(bringUpId);
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        Setter setter = new Setter(
                bringUp, source, person, cells.stream().map(FactCell::unitId).collect(Collectors.toSet()), cells);
        cells.forEach(setter::take);
        return setter.done();
    }

    /** Takes a change back; a cell that was changed again since is left as it is. */
    @Transactional
    public int undo(long changeId, Who.Person person) {
        SheetChange change = db.find(SheetChange.class, changeId, LockModeType.PESSIMISTIC_WRITE);
        if (change == null || change.undoneAt != null) {
            throw Refusal.conflict(PrepareText.THAT_CHANGE_HAS_ALREADY_BEEN_UNDONE.said());
        }
        change.undoneAt = clock.instant();
        Setter setter = new Setter(
                bringUps.get(change.bringUpId),
                Fact.Source.TYPED,
                person,
                change.cells.stream().map(SheetChange.Cell::unitId).collect(Collectors.toSet()),
                List.of());
        int undone = 0;
        for (SheetChange.Cell cell : change.cells) {
            Unit unit = setter.units.get(cell.unitId());
            if (unit != null && setter.isStill(unit, cell)) {
                setter.putBack(unit, cell);
                undone++;
            }
        }
        db.flush();
        journal.write(person, change.bringUpId, null, PrepareText.UNDID_THE_CHANGE_OF_FACTS.text(undone), null, null);
        live.tell(change.bringUpId, "prepare");
        return undone;
    }

    /** Stores cells of one change, and remembers what stood there. */
    private final class Setter {

        private final BringUp bringUp;
        private final Fact.Source source;
        private final Who.Person person;
        private final Map<Long, Unit> units = new HashMap<>();
        private final Set<Long> signed;
        private final Map<GivenFact.GivenFactKey, GivenFact> rows = new HashMap<>();
        private final UniqueIndex uniqueIndex;
        private final List<SheetChange.Cell> changed = new ArrayList<>();
        private final List<FactCellFault> faults = new ArrayList<>();

        /** @param touched units whose cells are set; {@code typed} are values that another unit may have already */
        Setter(BringUp bringUp, Fact.Source source, Who.Person person, Set<Long> touched, List<FactCell> typed) {
            this.bringUp = bringUp;
            this.source = source;
            this.person = person;
            signed = signedUnits.of(bringUp.id);
            db.createQuery("from Unit where bringUpId = :id and id in (:touched)", Unit.class)
                    .setParameter("id", bringUp.id)
                    .setParameter("touched", touched)
                    .getResultStream()
                    .forEach(unit -> units.put(unit.id, unit));
            db.createQuery("from GivenFact where key.unitId in (:touched)", GivenFact.class)
                    .setParameter("touched", units.keySet())
                    .getResultStream()
                    .forEach(fact -> rows.put(fact.key, fact));
            uniqueIndex = new UniqueIndex(db, bringUp.id, units.values(), typed);
        }

        void take(FactCell cell) {
            Unit unit = units.get(cell.unitId());
            Kind kind = unit == null ? null : kinds.of(unit);
            Optional<FactSpec> spec = kind == null ? Optional.empty() : kind.fact(String.valueOf(cell.name()));
            String member = cell.member() == null ? "" : cell.member();
            if (spec.isEmpty()) {
                faults.add(fault(
                        cell,
                        unit == null
                                ? PrepareText.UNIT_IS_NOT_IN_THE_BRING_UP.text()
                                : PrepareText.NEVER_ASKS.text(kind.title())));
                return;
            }
            if (signed.contains(unit.id)) {
                faults.add(fault(cell, PrepareText.IS_SIGNED_OPEN_IT_AGAIN_IN_HAND_OVER_FIRST.text(unit.label())));
                return;
            }
            if (!UnitFacts.owners(kind, unit.members, spec.get()).contains(member)) {
                faults.add(fault(
                        cell,
                        member.isEmpty()
                                ? PrepareText.EACH_MEMBER_HAS_ITS_OWN_VALUE.text()
                                : PrepareText.HAS_NO_SUCH_FACT.text(member)));
                return;
            }
            try {
                String value = cell.value() == null || cell.value().isBlank()
                        ? null
                        : spec.get().read(cell.value());
                boolean secret = spec.get().type() == FactType.SECRET;
                if (secret && SiteResources.SEALED.equals(value)) {
                    throw new IllegalArgumentException(
                            PrepareText.IS_SHOWN_IN_PLACE_OF_A_SAVED_PASSWORD.text(SiteResources.SEALED));
                }
                String before = stands(unit, member, cell.name());
                boolean seenOtherwise = cell.seen() != null && !cell.seen().equals(before == null ? "" : before);
                if (seenOtherwise && (secret || !java.util.Objects.equals(before, value))) {
                    throw new IllegalArgumentException(
                            before == null
                                    ? PrepareText.VALUE_WAS_CLEARED.text()
                                    : PrepareText.VALUE_WAS_CHANGED.text(before));
                }
                if (secret && (before != null || value != null)) {
                    seal(unit, member, spec.get().name(), value);
                } else if (!java.util.Objects.equals(before, value)) {
                    refuseTwin(unit, member, cell.name(), value);
                    store(unit, member, cell.name(), value);
                    changed.add(new SheetChange.Cell(unit.id, member, cell.name(), before, value));
                }
            } catch (IllegalArgumentException e) {
                faults.add(fault(cell, e.getMessage()));
            }
        }

        private static FactCellFault fault(FactCell cell, String reason) {
            return new FactCellFault(cell.unitId(), cell.member(), cell.name(), cell.value(), reason);
        }

        private void refuseTwin(Unit unit, String member, String name, String value) {
            if (!member.isEmpty() || value == null) {
                return;
            }
            Unit twin = uniqueIndex.of(name, value);
            if (twin != null && twin != unit && !twin.id.equals(unit.id)) {
                throw new IllegalArgumentException(PrepareText.IS_ALREADY_USED.text(value, twin.label()));
            }
        }

        /** What people gave, or null; what the site or the kind answers is not looked at. */
        String stands(Unit unit, String member, String name) {
            if (member.isEmpty() && Facts.label(unit).containsKey(name)) {
                return Facts.label(unit).get(name).value();
            }
            GivenFact row = rows.get(new GivenFact.GivenFactKey(unit.id, member, name));
            return row == null ? null : row.value;
        }

        void store(Unit unit, String member, String name, String value) {
            boolean own = member.isEmpty();
            if (own && name.equals("serial")) {
                uniqueIndex.change(unit, () -> unit.serial = value);
            } else if (own && name.equals("mac")) {
                uniqueIndex.change(unit, () -> unit.mac = value == null ? null : Mac.parse(value));
            } else if (own && name.equals("location")) {
                place(unit, value);
            } else {
                row(unit, member, name, value);
                if (name.equals("location")
                        && member.equals(kinds.of(unit).members().labels().get(0))) {
                    place(unit, value);
                }
            }
        }

        /** Where its first member is mounted, so is the unit. */
        private void place(Unit unit, String value) {
            RackPosition position = value == null ? null : RackPosition.parse(value);
            uniqueIndex.change(unit, () -> {
                unit.rack = position == null ? null : position.rack();
                unit.rackUnit = position == null ? null : position.unit();
            });
        }

        private GivenFact row(Unit unit, String member, String name, String value) {
            GivenFact.GivenFactKey key = new GivenFact.GivenFactKey(unit.id, member, name);
            GivenFact row = rows.get(key);
            if (value == null) {
                if (row != null) {
                    db.remove(row);
                    rows.remove(key);
                }
                return null;
            }
            boolean fresh = row == null;
            row = fresh ? new GivenFact() : row;
            row.key = key;
            row.value = value;
            row.source = source;
            row.setBy = person.id();
            row.setAt = clock.instant();
            if (fresh) {
                db.persist(row);
                rows.put(key, row);
            }
            return row;
        }

        /**
         * Seals a secret, or removes it where there is no value; what was there before stays sealed in the change, for
         * undo.
         */
        private void seal(Unit unit, String member, String name, String value) {
            SheetChange.Sealed was = SheetChange.Sealed.of(rows.get(new GivenFact.GivenFactKey(unit.id, member, name)));
            GivenFact row = row(unit, member, name, value == null ? null : SiteResources.SEALED);
            if (row != null) {
                SealKeys.Box box = sealed.sealText(SealKeys.ofFact(unit.id, member, name), Secret.of(value));
                row.keyId = box.keyId();
                row.nonce = box.nonce();
                row.sealed = box.sealed();
            }
            changed.add(new SheetChange.Cell(
                    unit.id,
                    member,
                    name,
                    was == null ? null : SiteResources.SEALED,
                    value == null ? null : SiteResources.SEALED,
                    was,
                    SheetChange.Sealed.of(row)));
        }

        /** Whether a cell is as a change has left it. */
        boolean isStill(Unit unit, SheetChange.Cell cell) {
            SheetChange.Sealed now =
                    SheetChange.Sealed.of(rows.get(new GivenFact.GivenFactKey(unit.id, cell.member(), cell.name())));
            return java.util.Objects.equals(stands(unit, cell.member(), cell.name()), cell.after())
                    && java.util.Objects.equals(now, cell.sealedAfter());
        }

        void putBack(Unit unit, SheetChange.Cell cell) {
            if (cell.sealedBefore() == null && cell.sealedAfter() == null) {
                store(unit, cell.member(), cell.name(), cell.before());
                return;
            }
            GivenFact row = row(unit, cell.member(), cell.name(), cell.before());
            if (row != null) {
                cell.sealedBefore().into(row);
            }
        }

        /**
         * What the journal says of a cell: of a secret its name and whether it was set or removed, nothing of what it
         * is.
         */
        private static Map<String, Object> entry(SheetChange.Cell cell) {
            Map<String, Object> entry = new LinkedHashMap<>();
            entry.put("unitId", cell.unitId());
            entry.put("member", cell.member());
            entry.put("name", cell.name());
            entry.put("before", cell.before());
            entry.put("after", cell.after());
            return entry;
        }

        FactsReport done() {
            Long id = null;
            if (!changed.isEmpty()) {
                SheetChange change = new SheetChange();
                change.bringUpId = bringUp.id;
                change.accountId = person.id();
                change.at = clock.instant();
                change.cells = changed;
                db.persist(change);
                db.flush();
                id = change.id;
                journal.write(
                        person,
                        bringUp.id,
                        null,
                        PrepareText.SET_FACTS.text(changed.size()),
                        null,
                        changed.stream().map(Setter::entry).toList());
            }
            live.tell(bringUp.id, "prepare");
            return new FactsReport(id, changed.size(), faults);
        }
    }
}
