package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import lychnos.core.fact.DataSize;
import lychnos.core.fact.Version;
import lychnos.core.image.CheckedImage;
import lychnos.core.image.ImageDescription;
import lychnos.core.image.ImageFormat;
import lychnos.core.kind.Kind;
import lychnos.core.site.SiteResource;
import lychnos.core.site.SiteResourceSort;

/** An image that its kind or its host cannot use, or that wants more than its kind plans for. */
final class ImageUnsuited implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.units(kind -> kind.machine().isPresent())) {
            Kind.Machine machine = unit.kind().machine().orElseThrow();
            unit.unitFact("image").flatMap(plan::image).ifPresent(image -> ofKind(unit, machine, image, findings));
            unit.hosts().stream()
                    .distinct()
                    .flatMap(host -> plan.resource(SiteResourceSort.HOST, host).stream())
                    .forEach(host -> ofHost(unit, machine, host, plan, findings));
        }
        return findings;
    }

    private static void ofKind(PlannedUnit unit, Kind.Machine machine, CheckedImage image, List<Finding> findings) {
        Finding.About about = Finding.About.unit(unit);
        List<ImageFormat> formats = machine.image().formats();
        if (!formats.isEmpty() && !formats.contains(image.format())) {
            findings.add(Finding.blocks(
                    "image-format",
                    about,
                    RuleText.IMAGE_FORMAT.text(
                            unit.name(),
                            image.name(),
                            image.format().word(),
                            formats.stream().map(ImageFormat::word).collect(Collectors.joining(" or "))),
                    RuleText.IMAGE_FORMAT_WHY.text()));
        }
        ImageDescription description = image.description();
        if (description == null) {
            return;
        }
        if (isOlder(description.version(), machine.image().from())) {
            findings.add(Finding.blocks(
                    "image-version",
                    about,
                    RuleText.IMAGE_VERSION.text(
                            unit.name(),
                            image.name(),
                            description.version(),
                            machine.image().from()),
                    RuleText.IMAGE_VERSION_WHY.text()));
        }
        wanted(description, machine)
                .ifPresent(more -> findings.add(Finding.blocks(
                        "image-wants-more",
                        about,
                        RuleText.IMAGE_WANTS_MORE.text(unit.name(), image.name(), more),
                        RuleText.IMAGE_WANTS_MORE_WHY.text(machine.cores(), machine.memory(), machine.disk()))));
        if (!description.networks().isEmpty()
                && description.networks().size() != machine.networks().size()) {
            findings.add(Finding.warns(
                    "image-networks",
                    about,
                    RuleText.IMAGE_NETWORKS.text(
                            unit.name(),
                            image.name(),
                            description.networks().size(),
                            machine.networks().size()),
                    RuleText.IMAGE_NETWORKS_WHY.text(String.join(", ", description.networks()))));
        }
    }

    private static Optional<String> wanted(ImageDescription description, Kind.Machine machine) {
        if (description.cores() > machine.cores()) {
            return Optional.of(RuleText.CORES.text(description.cores()));
        }
        DataSize memory = description.memory();
        if (memory != null && memory.compareTo(machine.memory()) > 0) {
            return Optional.of(RuleText.MEMORY.text(memory));
        }
        DataSize disk = description.disk();
        return disk != null && disk.compareTo(machine.disk()) > 0
                ? Optional.of(RuleText.DISK.text(disk))
                : Optional.empty();
    }

    private static void ofHost(
            PlannedUnit unit, Kind.Machine machine, SiteResource host, Plan plan, List<Finding> findings) {
        Finding.About about = Finding.About.unit(unit);
        String version = host.value("version").orElse("");
        if (isOlder(version, machine.image().hostFrom())) {
            findings.add(Finding.blocks(
                    "image-host-version",
                    about,
                    RuleText.IMAGE_HOST_VERSION.text(
                            unit.name(), host.name(), version, machine.image().hostFrom()),
                    RuleText.IMAGE_HOST_VERSION_WHY.text()));
        }
        Optional<ImageFormat> takes = host.value("disk-format").flatMap(ImageFormat::named);
        Optional<CheckedImage> image = unit.unitFact("image").flatMap(plan::image);
        if (takes.isPresent() && image.isPresent() && isOtherDisk(image.get().format(), takes.get())) {
            findings.add(Finding.blocks(
                    "image-disk-format",
                    about,
                    RuleText.IMAGE_DISK_FORMAT.text(
                            unit.name(),
                            image.get().name(),
                            image.get().format().word(),
                            host.name(),
                            takes.get().word()),
                    RuleText.IMAGE_DISK_FORMAT_WHY.text()));
        }
    }

    /** A package says in its description what its disks are, and a host unpacks it. */
    private static boolean isOtherDisk(ImageFormat image, ImageFormat takes) {
        return image != takes && image != ImageFormat.OVA && image != ImageFormat.ISO && image != ImageFormat.UNKNOWN;
    }

    /** What is not known is not too old. */
    private static boolean isOlder(String version, String least) {
        Optional<Version> has = Version.find(version);
        return has.isPresent() && !least.isEmpty() && has.get().compareTo(Version.parse(least)) < 0;
    }
}
