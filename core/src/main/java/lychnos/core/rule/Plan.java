package lychnos.core.rule;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;
import lychnos.core.image.CheckedImage;
import lychnos.core.kind.Kind;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;
import lychnos.core.site.SiteResource;
import lychnos.core.site.SiteResourceSort;

/**
 * Everything that is known before a machine is touched, as the rules look at it.
 *
 * @param networks the networks of the site
 * @param units the units of the bring-up
 * @param resources hosts, fabrics and services of the site
 * @param services what they answered when they were last asked
 * @param images image files of the site that were read to their end
 * @param records names that already lead somewhere, as a name server answered
 * @param firmware what machines run, as their last check has read it; empty where the site has no baseline
 * @param today for what ends on a date
 * @param lab whether documentation and loopback prefixes are in order here
 */
public record Plan(
        List<PlannedNetwork> networks,
        List<PlannedUnit> units,
        List<SiteResource> resources,
        List<Measured> services,
        List<CheckedImage> images,
        List<Record> records,
        List<SeenFirmware> firmware,
        LocalDate today,
        boolean lab) {

    /** What a name server answers for a planned name: a full name and the address it leads to. */
    public record Record(String fqdn, String address) {}

    /**
     * The version that a machine showed.
     *
     * @param unit the id of its unit
     * @param role the address at which it was read, such as {@code left}
     */
    public record SeenFirmware(long unit, String role, String version) {}

    /** Units of kinds that are so; a kind is looked at once, however many units it has. */
    List<PlannedUnit> units(Predicate<Kind> so) {
        Map<Kind, Boolean> seen = new IdentityHashMap<>();
        List<PlannedUnit> these = new ArrayList<>();
        Kind last = null;
        boolean wanted = false;
        for (PlannedUnit unit : units) {
            // units of a kind mostly stand together
            if (unit.kind() != last) {
                last = unit.kind();
                wanted = seen.computeIfAbsent(last, so::test);
            }
            if (wanted) {
                these.add(unit);
            }
        }
        return these;
    }

    /** Units whose kind asks for a fact. */
    List<PlannedUnit> asked(String fact) {
        return units(kind -> kind.fact(fact).isPresent());
    }

    Stream<PlannedNetwork> ours() {
        return networks.stream().filter(PlannedNetwork::ours);
    }

    Stream<PlannedNetwork> ours(String purpose) {
        return ours().filter(network -> network.purpose().equals(purpose));
    }

    Stream<SiteResource> resources(SiteResourceSort sort) {
        return resources.stream().filter(resource -> resource.sort() == sort);
    }

    Optional<SiteResource> resource(SiteResourceSort sort, String name) {
        return resources(sort).filter(resource -> resource.name().equals(name)).findFirst();
    }

    /** The checked image file of a name. */
    Optional<CheckedImage> image(String name) {
        return images.stream().filter(image -> image.name().equals(name)).findFirst();
    }

    Stream<Measured> services(ServiceKind kind) {
        return services.stream().filter(service -> service.kind() == kind);
    }

    Optional<Measured> service(ServiceKind kind, String address) {
        return services(kind)
                .filter(service -> service.address().equals(address))
                .findFirst();
    }
}
