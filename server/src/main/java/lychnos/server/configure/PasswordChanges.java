package lychnos.server.configure;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.kind.Kind;
import lychnos.core.kind.PagePassword;
import lychnos.core.order.RunState;
import lychnos.server.allocate.Claim;
import lychnos.server.allocate.Claims;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.Rounds.SetupLane;
import lychnos.server.identity.caller.Who;
import lychnos.server.jobs.CheckQueue;
import lychnos.server.jobs.Run;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.Live;
import lychnos.server.secrets.SealedStore;
import lychnos.server.secrets.SealedStore.SealedState;
import lychnos.server.site.BringUp;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/**
 * Replaces the passwords of machines in use, in rounds: the first alone, then several at once, and the first surprise
 * stops the others. Machines that are set over Redfish, and those whose pages have a documented interface for it; a
 * console has no way in that changes a password unattended.
 */
@ApplicationScoped
public class PasswordChanges {

    private final Session db;
    private final BringUps bringUps;
    private final Claims claims;
    private final Kinds kinds;
    private final SealedStore sealed;
    private final Rounds rounds;
    private final CheckQueue checkQueue;
    private final Journal journal;
    private final Live live;

    PasswordChanges(
            Session db,
            BringUps bringUps,
            Claims claims,
            Kinds kinds,
            SealedStore sealed,
            Rounds rounds,
            CheckQueue checkQueue,
            Journal journal,
            Live live) {
        this.db = db;
        this.bringUps = bringUps;
        this.claims = claims;
        this.kinds = kinds;
        this.sealed = sealed;
        this.rounds = rounds;
        this.checkQueue = checkQueue;
        this.journal = journal;
        this.live = live;
    }

    /** A unit whose password can be changed now. */
    public record ChangeableUnit(long unitId, String name, String position) {}

    /**
     * What the screen shows.
     *
     * @param lanes the newest change of each unit that had one
     * @param hold why units wait: a {@link lychnos.core.order.RoundOrder.Hold} by its name
     */
    public record PasswordChangesView(List<ChangeableUnit> units, List<SetupLane> lanes, String hold) {}

    @Transactional
    public PasswordChangesView of(long bringUpId) {
        BringUp bringUp = bringUps.get(bringUpId);
        Map<Long, Unit> units =
                bringUps.units(bringUpId).stream().collect(Collectors.toMap(unit -> unit.id, Function.identity()));
        Map<Long, Claim> places = claims.primaries(bringUpId);
        Map<Long, Run> newest = rounds.newest(bringUpId, Run.PASSWORD);
        return new PasswordChangesView(
                changeable(bringUp, places).stream()
                        .map(unit -> new ChangeableUnit(unit.id, places.get(unit.id).hostName, unit.place()))
                        .toList(),
                newest.values().stream()
                        .filter(run -> units.containsKey(run.unitId))
                        .sorted(Comparator.comparing(run -> units.get(run.unitId).number))
                        .map(run -> Rounds.lane(run, units.get(run.unitId), places.get(run.unitId)))
                        .toList(),
                rounds.hold(bringUpId, Run.PASSWORD));
    }

    /** With a password of ours that has logged in and that can be replaced, and nothing under way. */
    private List<Unit> changeable(BringUp bringUp, Map<Long, Claim> places) {
        Map<Unit, String> passwords = new LinkedHashMap<>();
        for (Unit unit : bringUps.units(bringUp.id)) {
            if (places.containsKey(unit.id)) {
                password(kinds.of(unit)).ifPresent(name -> passwords.put(unit, name));
            }
        }
        Set<Long> ids = passwords.keySet().stream().map(unit -> unit.id).collect(Collectors.toSet());
        if (ids.isEmpty()) {
            return List.of();
        }
        Map<Long, Set<String>> known = sealed.names(ids, SealedState.PROVEN);
        Set<Long> busy = new HashSet<>(db.createQuery(
                        "select r.unitId from Run r where r.unitId in :ids and r.purpose <> 'prove' and r.state in "
                                + ":live",
                        Long.class)
                .setParameter("ids", ids)
                .setParameter("live", List.of(RunState.WAITING, RunState.RUNNING, RunState.STOPPED))
                .getResultList());
        return passwords.entrySet().stream()
                .filter(each -> known.getOrDefault(each.getKey().id, Set.of()).contains(each.getValue())
                        && !busy.contains(each.getKey().id))
                .map(Map.Entry::getKey)
                .toList();
    }

    /** The name of the password that can be replaced from here. */
    private static Optional<String> password(Kind kind) {
        return kind.driven()
                ? Optional.of(SealedStore.ONLY)
                : PagePassword.of(kind).map(PagePassword::fact);
    }

    /**
     * Starts to change the passwords of these units.
     *
     * @throws Refusal 409 if one of them cannot be changed now: nothing is started then
     */
    @Transactional
    public void start(long bringUpId, Set<Long> unitIds, int width, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        Rounds.refuseWidth(width);
        List<Unit> chosen = changeable(bringUp, claims.primaries(bringUpId)).stream()
                .filter(unit -> unitIds.contains(unit.id))
                .toList();
        if (chosen.isEmpty() || chosen.size() < unitIds.size()) {
            throw Refusal.conflict(ConfigureText.NO_PASSWORD_CAN_BE_CHANGED.said());
        }
        // a check would sign in with the password that is being replaced; one follows at the end of each change
        chosen.forEach(unit -> checkQueue.cancelOf(unit.id));
        rounds.begin(bringUpId, Run.PASSWORD, width, chosen, person);
        journal.write(
                person, bringUpId, null, ConfigureText.STARTED_PASSWORD_CHANGES.text(chosen.size(), width), null, null);
        live.tell(bringUpId, Run.PASSWORD);
    }
}
