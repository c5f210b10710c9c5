package lychnos.server.handover;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import lychnos.core.address.Address;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.allocate.Claim;
import lychnos.server.allocate.Claims;
import lychnos.server.allocate.Releases;
import lychnos.server.api.problem.Reason;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.identity.caller.Who;
import lychnos.server.jobs.CheckQueue;
import lychnos.server.jobs.Runs;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.Live;
import lychnos.server.prove.Proofs;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.HandoverText;
import lychnos.server.units.BringUps;
import lychnos.server.units.FactChanges;
import lychnos.server.units.Facts;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/**
 * What happens to units that were in use: they are retired, or a machine of theirs is replaced. Records that were
 * signed stay.
 */
@ApplicationScoped
public class LifeAfter {

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Facts facts;
    private final FactChanges factChanges;
    private final Claims claims;
    private final Releases releases;
    private final SignOff signOff;
    private final Proofs proofs;
    private final Runs runs;
    private final CheckQueue checks;
    private final ConsoleStore consoles;
    private final SealedStore sealed;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    LifeAfter(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            Facts facts,
            FactChanges factChanges,
            Claims claims,
            Releases releases,
            SignOff signOff,
            Proofs proofs,
            Runs runs,
            CheckQueue checks,
            ConsoleStore consoles,
            SealedStore sealed,
            Journal journal,
            Live live,
            Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.facts = facts;
        this.factChanges = factChanges;
        this.claims = claims;
        this.releases = releases;
        this.signOff = signOff;
        this.proofs = proofs;
        this.runs = runs;
        this.checks = checks;
        this.consoles = consoles;
        this.sealed = sealed;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** The unit, locked, at rest. */
    private Unit atRest(long unitId) {
        Unit unit = bringUps.unit(unitId);
        // in the order in which everybody else who changes units locks them
        db.lock(bringUps.get(unit.bringUpId), LockModeType.PESSIMISTIC_WRITE);
        db.refresh(unit, LockModeType.PESSIMISTIC_WRITE);
        if (runs.settingUp(unitId)) {
            throw Refusal.conflict(HandoverText.IS_BEING_SET_UP.said(unit.label()));
        }
        checks.cancelOf(unitId);
        return unit;
    }

    // --- retired ---

    /** A unit that is no more. */
    public record RetiredUnit(String name, String serial, String place, String why, String by, Instant at) {}

    @Transactional
    public List<RetiredUnit> retired(long bringUpId) {
        return db.createNativeQuery(
                        "select r.name, r.serial, r.place, r.why, a.name as by_whom, r.retired_at from retirement r "
                                + "join unit u on u.id = r.unit_id join account a on a.id = r.retired_by where "
                                + "u.bring_up_id = :id order by r.retired_at desc",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .map(row -> new RetiredUnit(
                        (String) row[0], (String) row[1], (String) row[2], (String) row[3], (String) row[4], (Instant)
                                row[5]))
                .toList();
    }

    /**
     * Retires a unit: its addresses are released, its records are deleted on the name servers, what it
     * bore (serial, MAC address, place in a rack) is free for others. Its record stays and counts no more.
     */
    @Transactional
    public void retire(long unitId, String reason, Who.Person person) {
        Unit unit = atRest(unitId);
        Instant now = clock.instant();
        String name = nameOf(unit);
        signOff.end(unit, "retired: " + reason, person);
        int addresses = releases.giveUp(unit);
        db.createNativeMutationQuery(
                        "insert into retirement (unit_id, name, serial, mac, place, why, retired_by, retired_at) "
                                + "select id, :name, coalesce(serial, ''), mac, :place, :why, :by, :at from unit "
                                + "where id = :unit")
                .setParameter("name", name)
                .setParameter("place", unit.place())
                .setParameter("why", reason)
                .setParameter("by", person.id())
                .setParameter("at", now)
                .setParameter("unit", unitId)
                .executeUpdate();
        db.createMutationQuery(
                        "update OpenItem set closedAt = :now, closedBy = :by where unitId = :unit and closedAt is null")
                .setParameter("now", now)
                .setParameter("by", person.id())
                .setParameter("unit", unitId)
                .executeUpdate();
        journal.write(person, unit.bringUpId, unitId, HandoverText.RETIRED.text(name, reason, addresses), null, null);
        unit.serial = null;
        unit.mac = null;
        unit.rack = null;
        unit.rackUnit = null;
        unit.retiredAt = now;
        db.flush();
        live.tell(unit.bringUpId, "handover");
        live.tell(unit.bringUpId, "allocate");
    }

    private String nameOf(Unit unit) {
        return unit.name != null
                ? unit.name
                : claims.ofUnit(unit.id).map(claim -> claim.hostName).orElse(unit.label());
    }

    // --- replaced ---

    /**
     * What tells one of a unit's machines from another.
     *
     * @param member its label; empty for the unit itself
     * @param facts serial and MAC addresses, by the name of the fact
     */
    public record ReplaceablePart(String member, Map<String, BornFact> facts) {}

    /** A fact that belongs to the machine itself, such as its serial. */
    public record BornFact(String title, String value) {}

    /** The machines of a unit that can be replaced. */
    @Transactional
    public List<ReplaceablePart> parts(long unitId) {
        Unit unit = bringUps.unit(unitId);
        Kind kind = kinds.of(unit);
        UnitFacts known = facts.of(unit, bringUps.get(unit.bringUpId));
        Map<String, Map<String, BornFact>> parts = new LinkedHashMap<>();
        for (FactSpec spec : kind.facts()) {
            if (spec.type() == FactType.SERIAL || spec.type() == FactType.MAC) {
                UnitFacts.owners(kind, unit.members, spec)
                        .forEach(member -> parts.computeIfAbsent(member, none -> new LinkedHashMap<>())
                                .put(
                                        spec.name(),
                                        new BornFact(
                                                spec.title(),
                                                known.fact(member, spec.name())
                                                        .map(fact -> fact.value())
                                                        .orElse(""))));
            }
        }
        return parts.entrySet().stream()
                .map(part -> new ReplaceablePart(part.getKey(), part.getValue()))
                .toList();
    }

    /**
     * A machine that takes the place of another.
     *
     * @param member whose
     * @param facts by name, what the new one bears
     * @param firstAddress where it is met before its setup, if that is known; only for what is set over the network
     */
    public record NewMachine(String member, Map<String, String> facts, String firstAddress, @Reason String why) {}

    /**
     * Puts another machine in the place of one: addresses and names stay, serial and MAC addresses are the new
     * one's, and whatever was remembered of the old one (certificate, host key, what it showed when it was accepted) is
     * forgotten. The unit is to be set up, proven and signed again.
     */
    @Transactional
    public void replace(long unitId, NewMachine machine, Who.Person person) {
        String reason = machine.why.strip();
        String member = machine.member == null ? "" : machine.member;
        ReplaceablePart part = parts(unitId).stream()
                .filter(each -> each.member.equals(member))
                .findFirst()
                .orElseThrow(() -> Refusal.bad(HandoverText.UNIT_HAS_NO_MEMBER_WITH_A_SERIAL.said(member)));
        Unit unit = atRest(unitId);
        Kind kind = kinds.of(unit);
        Map<String, String> after = read(kind, part, machine.facts == null ? Map.of() : machine.facts);
        Map<String, String> before = new LinkedHashMap<>();
        part.facts.forEach((name, bears) -> before.put(name, bears.value));
        Address first = first(machine.firstAddress);
        String what = nameOf(unit) + (member.isEmpty() ? "" : " " + member);
        signOff.end(unit, HandoverText.MACHINE_WAS_REPLACED.text(reason), person);
        store(unit, member, after, person);
        unit.firstAddress = first;
        forget(unit, kind, member);
        Replacement row = new Replacement();
        row.unitId = unitId;
        row.member = member;
        row.before = before;
        row.after = after;
        row.why = reason;
        row.replacedBy = person.id();
        row.replacedAt = clock.instant();
        db.persist(row);
        journal.write(
                person,
                unit.bringUpId,
                unitId,
                HandoverText.REPLACED_A_MACHINE.text(
                        what,
                        String.join(
                                ", ",
                                after.entrySet().stream()
                                        .map(each -> HandoverText.VALUE_IS_NOW.text(
                                                part.facts.get(each.getKey()).title,
                                                before.get(each.getKey()),
                                                each.getValue()))
                                        .toList()),
                        reason),
                before,
                after);
        live.tell(unit.bringUpId, "handover");
        live.tell(unit.bringUpId, "configure");
        live.tell(unit.bringUpId, "prove");
    }

    /** What the new machine bears, each fact that the old one is known by. */
    private static Map<String, String> read(Kind kind, ReplaceablePart part, Map<String, String> typed) {
        List<FieldFault> faults = new ArrayList<>();
        Map<String, String> after = new LinkedHashMap<>();
        part.facts.forEach((name, bears) -> {
            String text = typed.getOrDefault(name, "").strip();
            FactSpec spec = kind.fact(name).orElseThrow();
            if (text.isEmpty() && (!bears.value.isEmpty() || spec.wanted())) {
                faults.add(new FieldFault(name, HandoverText.ENTER_THE_VALUE_OF_THE_NEW_MACHINE.said()));
            } else if (!text.isEmpty()) {
                try {
                    after.put(name, spec.read(text));
                } catch (IllegalArgumentException e) {
                    faults.add(new FieldFault(name, e.getMessage()));
                }
                if (bears.value.equals(after.get(name))) {
                    faults.add(new FieldFault(name, HandoverText.IS_THE_VALUE_OF_THE_OLD_MACHINE.said()));
                }
            }
        });
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
        return after;
    }

    private void store(Unit unit, String member, Map<String, String> after, Who.Person person) {
        FactChanges.FactsReport report = factChanges.set(
                unit.bringUpId,
                after.entrySet().stream()
                        .map(each -> new FactChanges.FactCell(unit.id, member, each.getKey(), each.getValue()))
                        .toList(),
                Fact.Source.TYPED,
                person);
        if (!report.faults().isEmpty()) {
            throw Refusal.fields(report.faults().stream()
                    .map(fault -> new FieldFault(fault.name(), fault.reason()))
                    .toList());
        }
    }

    /** Where the label said that the old one would be met says nothing of the new one. */
    private static Address first(String text) {
        try {
            return text == null || text.isBlank() ? null : Address.parse(text.strip());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault("firstAddress", e.getMessage())));
        }
    }

    private void forget(Unit unit, Kind kind, String member) {
        List<Claim> own = claims.live(unit.bringUpId).stream()
                .filter(claim -> claim.unitId.equals(unit.id)
                        && (member.isEmpty() || claim.role.equals(member) || claim.role.startsWith(member + " ")))
                .toList();
        Set<String> roles = new TreeSet<>(own.stream().map(claim -> claim.role).toList());
        List<Long> ids = own.stream().map(claim -> claim.id).toList();
        proofs.forget(unit.id, roles, ids);
        if (kind.driven()) {
            sealed.forget(unit.id);
        }
        runs.replaced(unit.id);
        consoles.replaced(unit.id, member);
    }
}
