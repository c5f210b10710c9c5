package lychnos.server.kinds;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.core.kind.Adjustments;
import lychnos.core.kind.Kind;
import lychnos.server.problem.Refusal;
import lychnos.server.store.Unit;

/**
 * The kinds of equipment that can be used: for each unit the version that it was announced with, as its site adjusts
 * it.
 */
@ApplicationScoped
public class Kinds {

    private final KindMemory memory;
    private final Map<Long, Long> siteOfBringUp = new ConcurrentHashMap<>();
    private final Map<Adapted, Kind> adapted = new ConcurrentHashMap<>();

    /** A version with some adjustments; an adjustment never changes, so that its number is enough. */
    private record Adapted(String id, int version, List<Long> adjustments) {}

    Kinds(KindMemory memory) {
        this.memory = memory;
    }

    /** The newest version of each kind that is not retired, in the order of their titles. */
    public List<Published> offered() {
        return memory.now().newest().entrySet().stream()
                .filter(each -> !each.getValue().retired())
                .map(each -> version(each.getKey(), each.getValue().version()))
                .toList();
    }

    /**
     * The version that a new unit gets.
     *
     * @throws Refusal if there is none, or it is retired
     */
    public Published newest(String id) {
        KindMemory.Newest newest = memory.now().newest().get(id);
        if (newest == null) {
            throw Refusal.bad("There is no kind “" + id + "”. These can be used: "
                    + String.join(", ", offered().stream().map(Published::id).toList()) + ".");
        }
        if (newest.retired()) {
            throw Refusal.bad("The kind “" + id + "” is retired. A lead can bring it back under Kinds.");
        }
        return version(id, newest.version());
    }

    /**
     * The kind of machines that a label list tells of: the first that the program sets up by itself.
     *
     * @throws Refusal where every such kind is retired
     */
    public Published usual() {
        return offered().stream()
                .filter(each -> each.kind().driven())
                .findFirst()
                .orElseThrow(() -> Refusal.conflict("No kind is set up over Redfish. Publish one under Kinds first."));
    }

    /** @throws Refusal if there is no such version */
    public Published version(String id, int version) {
        return memory.version(id, version)
                .orElseThrow(() -> Refusal.notFound("The kind “" + id + "” has no version " + version + "."));
    }

    /** The version that a unit is set up with, as it was published. */
    public Published published(Unit unit) {
        return version(unit.kind, unit.kindVersion);
    }

    /** The version that a unit is set up with, with what its site and its bring-up adjust. */
    public Kind of(Unit unit) {
        return adjusted(unit.kind, unit.kindVersion, unit.bringUpId);
    }

    /** A version as it holds in a bring-up. */
    public Kind adjusted(String id, int version, long bringUpId) {
        Published published = version(id, version);
        List<KindMemory.Adjusted> own = memory.now().adjustments().stream()
                .filter(each -> each.kindId().equals(id))
                .toList();
        if (own.isEmpty()) {
            return published.kind();
        }
        long site = siteOfBringUp.computeIfAbsent(bringUpId, memory::siteOf);
        List<KindMemory.Adjusted> fitting = own.stream()
                .filter(each -> each.siteId() == site && (each.bringUpId() == null || each.bringUpId() == bringUpId))
                .sorted(Comparator.comparing(each -> each.bringUpId() != null))
                .toList();
        return fitting.isEmpty()
                ? published.kind()
                : adapted.computeIfAbsent(
                        new Adapted(
                                id,
                                version,
                                fitting.stream().map(KindMemory.Adjusted::id).toList()),
                        key -> apply(published.kind(), fitting));
    }

    private static Kind apply(Kind kind, List<KindMemory.Adjusted> adjustments) {
        Kind now = kind;
        for (KindMemory.Adjusted each : adjustments) {
            now = Adjustments.apply(now, each.what(), each.value(), Optional.ofNullable(each.secret()));
        }
        return now;
    }
}
