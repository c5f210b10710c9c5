package lychnos.server.configure.bench;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.kind.Kind;
import lychnos.core.order.RunState;
import lychnos.server.allocate.Plans;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.FactoryAddresses;
import lychnos.server.configure.plan.GoingAlone;
import lychnos.server.jobs.Run;
import lychnos.server.kinds.Kinds;
import lychnos.server.site.BringUp;
import lychnos.server.units.BringUps;
import lychnos.server.units.Facts;
import lychnos.server.units.Unit;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** What screens show of all setups on consoles of a bring-up: a lane for each member. */
@ApplicationScoped
public class LaneViews {

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Facts facts;
    private final Plans plans;
    private final GoingAlone goingAlone;
    private final FactoryAddresses factoryAddresses;

    LaneViews(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            Facts facts,
            Plans plans,
            GoingAlone goingAlone,
            FactoryAddresses factoryAddresses) {
        this.factoryAddresses = factoryAddresses;
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.facts = facts;
        this.plans = plans;
        this.goingAlone = goingAlone;
    }

    // --- lanes ---

    /** A part of a lane: hands, wait or held; still going on where it has no end. */
    public record LanePart(
            String kind, String title, @Nullable Instant from, @Nullable Instant to, long about, long atMost) {}

    /** One member under way. {@code ahead} are the waits that still come, each with its usual length in seconds. */
    public record BenchLane(
            long unitId,
            long dialogueId,
            String name,
            String state,
            String prerequisite,
            List<LanePart> parts,
            List<LanePart> ahead) {}

    /**
     * What may be begun now: known and placed, and never begun or put away.
     *
     * @param alone whether another of its kind goes first: the first of each kind goes alone until it is proven
     */
    public record StartableUnit(long unitId, String name, String kindTitle, String position, boolean alone) {}

    /** Everything on consoles of a bring-up. */
    public record BenchLanes(List<BenchLane> lanes, List<StartableUnit> startable) {}

    @Transactional
    public BenchLanes lanes(long bringUpId) {
        BringUp bringUp = bringUps.get(bringUpId);
        Map<Long, Run> newest = new LinkedHashMap<>();
        for (Run run : db.createQuery(
                        "select r from Run r join Unit u on u.id = r.unitId where u.bringUpId = :id and r.purpose = "
                                + "'console' and r.earlier = false order by r.id",
                        Run.class)
                .setParameter("id", bringUpId)
                .getResultList()) {
            newest.put(run.unitId, run);
        }
        newest.values().removeIf(run -> run.state == RunState.CANCELLED);
        Drawn drawn = drawn(newest.values().stream().map(run -> run.id).toList());
        List<BenchLane> lanes = new ArrayList<>();
        List<StartableUnit> startable = new ArrayList<>();
        Set<Long> placed = plans.seats(bringUpId).keySet();
        GoingAlone.Begun begun = goingAlone.begun(bringUpId);
        Set<String> first = new HashSet<>();
        for (Unit unit : bringUps.units(bringUpId)) {
            if (newest.containsKey(unit.id)) {
                drawn.dialogues
                        .getOrDefault(newest.get(unit.id).id, List.of())
                        .forEach(row -> lanes.add(lane(unit, kinds.of(unit), row, drawn)));
            }
        }
        Map<Long, Unit> sharing = factoryAddresses.waiting(bringUp, bringUps.units(bringUpId));
        facts.of(bringUp, newest.keySet()).forEach((unit, known) -> {
            if (known.kind().dialogue().isPresent() && known.known() && placed.contains(unit.id)) {
                startable.add(new StartableUnit(
                        unit.id,
                        unit.label(),
                        known.kind().title(),
                        unit.place(),
                        known.kind().byHand() // a person has one line at a time
                                || begun.waits(unit.kind).isPresent()
                                || sharing.containsKey(unit.id)
                                || !begun.ofKind().containsKey(unit.kind) && !first.add(unit.kind)));
            }
        });
        return new BenchLanes(lanes, startable);
    }

    /**
     * What lanes are drawn from, read at once: by run its dialogues, by dialogue its parts and the places of its open
     * steps.
     */
    private record Drawn(
            Map<Long, List<MemberDialogue>> dialogues, Map<Long, List<LanePart>> parts, Map<Long, Set<Integer>> open) {}

    private Drawn drawn(List<Long> runs) {
        if (runs.isEmpty()) {
            return new Drawn(Map.of(), Map.of(), Map.of());
        }
        Map<Long, List<MemberDialogue>> dialogues = db.createQuery(
                        "from MemberDialogue where runId in (:runs) order by place", MemberDialogue.class)
                .setParameter("runs", runs)
                .getResultStream()
                .collect(Collectors.groupingBy(row -> row.runId));
        Map<Long, List<LanePart>> parts = new HashMap<>();
        db.createNativeQuery(
                        "select s.dialogue_id, s.kind, s.title, s.began_at, s.ended_at, s.about, s.at_most from "
                                + "dialogue_stretch s join dialogue d on d.id = s.dialogue_id where d.run_id in "
                                + "(:runs) order by s.id",
                        Object[].class)
                .setParameter("runs", runs)
                .getResultStream()
                .forEach(row -> parts.computeIfAbsent((Long) row[0], id -> new ArrayList<>())
                        .add(new LanePart(
                                (String) row[1],
                                (String) row[2],
                                (Instant) row[3],
                                (Instant) row[4],
                                (Long) row[5],
                                (Long) row[6])));
        Map<Long, Set<Integer>> open = new HashMap<>();
        db.createNativeQuery(
                        "select s.dialogue_id, s.place from dialogue_step s join dialogue d on d.id = s.dialogue_id "
                                + "where d.run_id in (:runs) and s.progress = 'OPEN'",
                        Object[].class)
                .setParameter("runs", runs)
                .getResultStream()
                .forEach(row -> open.computeIfAbsent((Long) row[0], id -> new HashSet<>())
                        .add((Integer) row[1]));
        return new Drawn(dialogues, parts, open);
    }

    private static BenchLane lane(Unit unit, Kind kind, MemberDialogue row, Drawn drawn) {
        List<DialogueStep> steps = kind.dialogue()
                .map(dialogue -> dialogue.withPages(row.member, row.wiped))
                .orElse(List.of());
        List<LanePart> ahead = new ArrayList<>();
        for (int i = 0; i < steps.size(); i++) {
            if (!drawn.open.getOrDefault(row.id, Set.of()).contains(i)) {
                continue;
            }
            if (steps.get(i) instanceof Waits waits) {
                ahead.add(new LanePart(
                        "wait",
                        waits.title(),
                        null,
                        null,
                        waits.about().toSeconds(),
                        waits.atMost().toSeconds()));
            } else if (steps.get(i) instanceof DialogueStep.Remote remote && remote.usually() != null) {
                ahead.add(new LanePart(
                        "wait",
                        remote.title(),
                        null,
                        null,
                        remote.usually().toSeconds(),
                        remote.longest().toSeconds()));
            }
        }
        boolean standsBy = row.state == MemberDialogue.DialogueState.DONE
                && !row.identified
                && !row.line.isEmpty()
                && !kind.byHand();
        return new BenchLane(
                unit.id,
                row.id,
                unit.label() + (row.member.isEmpty() ? "" : " " + row.member),
                standsBy
                        ? "STANDS_BY"
                        : row.state == MemberDialogue.DialogueState.HELD
                                        && row.hold != null
                                        && row.hold.why().endsAlone()
                                ? row.hold.why().name()
                                : row.state.name(),
                row.prerequisite,
                drawn.parts.getOrDefault(row.id, List.of()),
                ahead);
    }
}
