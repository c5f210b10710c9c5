package lychnos.server.kinds;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Adjustments;
import lychnos.core.kind.Kind;
import lychnos.server.api.problem.Refusal;
import lychnos.server.text.KindText;
import org.jboss.logging.Logger;

/**
 * The kinds of equipment that can be used: for each unit the version that it was announced with, as its site adjusts
 * it.
 */
@ApplicationScoped
public class Kinds {

    private static final Logger LOG = Logger.getLogger(Kinds.class);

    private final KindMemory memory;
    private final Cache<Long, Long> siteOfBringUp =
            Caffeine.newBuilder().maximumSize(10_000).build();
    private final Cache<Adapted, Kind> adapted =
            Caffeine.newBuilder().maximumSize(1_000).build();

    /** A version with some adjustments; an adjustment never changes, so that its number is enough. */
    private record Adapted(String id, int version, List<Long> adjustments) {}

    Kinds(KindMemory memory) {
        this.memory = memory;
    }

    /**
     * The newest version of each kind that is not retired, in the order of their titles; without those that this
     * program cannot read.
     */
    public List<Published> offered() {
        return memory.now().newest().entrySet().stream()
                .filter(each -> !each.getValue().retired())
                .filter(each ->
                        memory.fault(each.getKey(), each.getValue().version()).isEmpty())
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
            throw Refusal.bad(KindText.NO_KIND_BUT_THESE.said(
                    id, String.join(", ", offered().stream().map(Published::id).toList())));
        }
        if (newest.retired()) {
            throw Refusal.bad(KindText.KIND_IS_RETIRED.said(id));
        }
        return version(id, newest.version());
    }

    /** The newest version of a kind, retired or not; nothing where none was published that this program can read. */
    Optional<Published> find(String id) {
        return Optional.ofNullable(memory.now().newest().get(id))
                .filter(newest -> memory.fault(id, newest.version()).isEmpty())
                .flatMap(newest -> memory.version(id, newest.version()));
    }

    /** The passwords that adjustments have. */
    public List<Secret> adjustedSecrets() {
        return memory.now().adjustments().stream()
                .map(KindMemory.Adjusted::secret)
                .filter(Objects::nonNull)
                .toList();
    }

    /**
     * The kind of machines in a label list: the first that is set up over Redfish.
     *
     * @throws Refusal where every such kind is retired
     */
    public Published usual() {
        return offered().stream()
                .filter(each -> each.kind().driven())
                .findFirst()
                .orElseThrow(() -> Refusal.conflict(KindText.NO_KIND_IS_SET_UP_OVER_REDFISH.said()));
    }

    /** @throws Refusal if there is no such version */
    public Published version(String id, int version) {
        return memory.version(id, version)
                .orElseThrow(() -> Refusal.notFound(KindText.KIND_HAS_NO_VERSION.said(id, version)));
    }

    /** Why this program cannot read a version; empty where it can. */
    Optional<String> fault(String id, int version) {
        return memory.fault(id, version);
    }

    /** The version that a unit is set up with, as it was published. */
    public Published published(OfKind unit) {
        return version(unit.kindId(), unit.versionOfKind());
    }

    /** The version that a unit is set up with, with what its site and its bring-up adjust. */
    public Kind of(OfKind unit) {
        return adjusted(unit.kindId(), unit.versionOfKind(), unit.ofBringUp());
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
        long site = siteOfBringUp.get(bringUpId, memory::siteOf);
        List<KindMemory.Adjusted> fitting = fitting(own, site, bringUpId);
        return fitting.isEmpty()
                ? published.kind()
                : adapted.get(
                        new Adapted(
                                id,
                                version,
                                fitting.stream().map(KindMemory.Adjusted::id).toList()),
                        key -> apply(published.kind(), fitting));
    }

    /**
     * A kind as it holds at a site but for one place: what an adjustment of that place must agree with.
     *
     * @param bringUpId null for the whole site
     */
    Kind adjustedBut(Published published, long site, Long bringUpId, String what) {
        List<KindMemory.Adjusted> others = memory.now().adjustments().stream()
                .filter(each ->
                        each.kindId().equals(published.id()) && !each.what().equals(what))
                .toList();
        return apply(published.kind(), fitting(others, site, bringUpId == null ? 0 : bringUpId));
    }

    private static List<KindMemory.Adjusted> fitting(List<KindMemory.Adjusted> all, long site, long bringUpId) {
        return all.stream()
                .filter(each -> each.siteId() == site && (each.bringUpId() == null || each.bringUpId() == bringUpId))
                .sorted(Comparator.comparing(each -> each.bringUpId() != null))
                .toList();
    }

    /** What a later version of the kind makes impossible is left out: the kind's own value counts then. */
    private static Kind apply(Kind kind, List<KindMemory.Adjusted> adjustments) {
        Kind now = kind;
        for (KindMemory.Adjusted each : adjustments) {
            try {
                now = Adjustments.apply(now, each.what(), each.value(), Optional.ofNullable(each.secret()));
            } catch (IllegalArgumentException e) {
                LOG.warnf("The adjustment “%s” of the kind %s is left out: %s", each.what(), kind.id(), e.getMessage());
            }
        }
        return now;
    }
}
