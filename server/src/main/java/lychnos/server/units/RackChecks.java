package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collector;
import java.util.stream.Collectors;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.Live;
import lychnos.server.site.BringUp;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** What the kinds of a bring-up want checked at the rack, and who has ticked it. */
@ApplicationScoped
public class RackChecks {

    /** The fact that says where a machine is mounted. */
    private static final String LOCATION = "location";

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Facts facts;
    private final SignedUnits signedUnits;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    RackChecks(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            Facts facts,
            SignedUnits signedUnits,
            Journal journal,
            Live live,
            Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.facts = facts;
        this.signedUnits = signedUnits;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /**
     * One check of a machine.
     *
     * @param late whether it may come after the setup
     * @param at when it was ticked, or null
     */
    public record RackCheckView(String text, boolean late, @Nullable String by, @Nullable Instant at) {}

    /**
     * A machine and its checks.
     *
     * @param member empty for the unit itself
     * @param location where it is mounted; empty where that is unknown
     */
    public record RackMachine(
            long unitId, String unit, String kind, String member, String location, List<RackCheckView> checks) {}

    /** All checks of a bring-up, unit by unit. */
    @Transactional
    public List<RackMachine> of(long bringUpId) {
        BringUp bringUp = bringUps.get(bringUpId);
        Map<RackTick.RackTickKey, RackTick> ticks = db.createQuery(
                        "from RackTick t where t.key.unitId in (select u.id from Unit u where u.bringUpId = :id)",
                        RackTick.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .collect(byKey());
        List<RackMachine> machines = new ArrayList<>();
        facts.of(bringUp).forEach((unit, known) -> {
            checks(unit, known.kind(), ticks)
                    .forEach((member, checks) -> machines.add(new RackMachine(
                            unit.id, unit.label(), unit.kind, member, location(unit, known, member), checks)));
        });
        return machines;
    }

    /** By member, the checks of one unit; the unit's own under an empty text. */
    @Transactional
    public Map<String, List<RackCheckView>> of(Unit unit) {
        Map<RackTick.RackTickKey, RackTick> ticks = db.createQuery(
                        "from RackTick t where t.key.unitId = :id", RackTick.class)
                .setParameter("id", unit.id)
                .getResultStream()
                .collect(byKey());
        return checks(unit, kinds.of(unit), ticks);
    }

    private static Collector<RackTick, ?, Map<RackTick.RackTickKey, RackTick>> byKey() {
        return Collectors.toMap(tick -> tick.key, Function.identity());
    }

    private static Map<String, List<RackCheckView>> checks(
            Unit unit, Kind kind, Map<RackTick.RackTickKey, RackTick> ticks) {
        Map<String, List<RackCheckView>> byMember = new LinkedHashMap<>();
        for (Kind.RackCheck check : kind.atRack().checks()) {
            for (String member : owners(unit, kind, check)) {
                RackTick tick = ticks.get(new RackTick.RackTickKey(unit.id, member, check.text()));
                byMember.computeIfAbsent(member, made -> new ArrayList<>())
                        .add(new RackCheckView(
                                check.text(),
                                check.late(),
                                tick == null ? null : tick.byLogin,
                                tick == null ? null : tick.at));
            }
        }
        return byMember;
    }

    private static List<String> owners(Unit unit, Kind kind, Kind.RackCheck check) {
        return check.scope() == FactSpec.Scope.UNIT
                ? List.of("")
                : kind.members().of(unit.members);
    }

    private static String location(Unit unit, UnitFacts known, String member) {
        return known.fact(member, LOCATION)
                .or(() -> known.fact("", LOCATION))
                .map(Fact::value)
                .orElse(unit.place());
    }

    /** Which check of which machine, and whether it is done. */
    public record Tick(long unit, String member, String check, boolean done) {}

    /** Ticks a check, or takes the tick away. A late check of a signed unit may be ticked still. */
    @Transactional
    public void tick(long bringUpId, Tick tick, Who.Person person) {
        Unit unit = bringUps.unit(tick.unit);
        if (!unit.bringUpId.equals(bringUpId)) {
            throw Refusal.notFound(PrepareText.UNIT_IS_NOT_IN_THE_BRING_UP.said());
        }
        db.lock(unit, LockModeType.PESSIMISTIC_WRITE);
        String member = tick.member == null ? "" : tick.member;
        Kind kind = kinds.of(unit);
        Kind.RackCheck check = kind.atRack().checks().stream()
                .filter(each -> each.text().equals(tick.check))
                .filter(each -> owners(unit, kind, each).contains(member))
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(PrepareText.KIND_HAS_NO_SUCH_CHECK.said(kind.title())));
        if (!check.late() || !tick.done) {
            signedUnits.refuse(List.of(unit.id));
        }
        RackTick.RackTickKey key = new RackTick.RackTickKey(unit.id, member, check.text());
        RackTick there = db.find(RackTick.class, key);
        if (tick.done == (there != null)) {
            return; // somebody was faster
        }
        if (there != null) {
            db.remove(there);
        } else {
            RackTick row = new RackTick();
            row.key = key;
            row.byLogin = person.login();
            row.at = clock.instant();
            db.persist(row);
        }
        db.flush();
        journal.write(
                person,
                bringUpId,
                unit.id,
                (tick.done ? PrepareText.TICKED_AT_THE_RACK : PrepareText.UNTICKED_AT_THE_RACK)
                        .text(check.text(), member.isEmpty() ? "" : ", " + member),
                null,
                null);
        live.tell(bringUpId, "prepare");
    }
}
