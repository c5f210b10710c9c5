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
                    unit.name() + ": " + image.name() + " is " + image.format().word() + ", its kind is shipped as "
                            + formats.stream().map(ImageFormat::word).collect(Collectors.joining(" or ")),
                    "It is told by the first bytes of the file. Choose the variant that the kind names."));
        }
        ImageDescription description = image.description();
        if (description == null) {
            return;
        }
        if (isOlder(description.version(), machine.image().from())) {
            findings.add(Finding.blocks(
                    "image-version",
                    about,
                    unit.name() + ": " + image.name() + " has version " + description.version() + ", its kind needs "
                            + machine.image().from(),
                    "Its first setup is described for newer versions. Fetch a newer image."));
        }
        wanted(description, machine)
                .ifPresent(more -> findings.add(Finding.blocks(
                        "image-wants-more",
                        about,
                        unit.name() + ": the description of " + image.name() + " wants " + more,
                        "Its kind plans " + machine.cores() + " cores, " + machine.memory() + " of memory and "
                                + machine.disk() + " of disk, and its host was checked for that. Adjust the kind.")));
        if (!description.networks().isEmpty()
                && description.networks().size() != machine.networks().size()) {
            findings.add(Finding.warns(
                    "image-networks",
                    about,
                    unit.name() + ": " + image.name() + " has "
                            + counted(description.networks().size()) + ", its kind joins "
                            + machine.networks().size(),
                    "Interfaces of the description: " + String.join(", ", description.networks())
                            + ". One that is left over stays unconnected; one too few cannot be set up."));
        }
    }

    private static String counted(int interfaces) {
        return interfaces == 1 ? "1 interface" : interfaces + " interfaces";
    }

    private static Optional<String> wanted(ImageDescription description, Kind.Machine machine) {
        if (description.cores() > machine.cores()) {
            return Optional.of(description.cores() + " cores");
        }
        DataSize memory = description.memory();
        if (memory != null && memory.compareTo(machine.memory()) > 0) {
            return Optional.of(memory + " of memory");
        }
        DataSize disk = description.disk();
        return disk != null && disk.compareTo(machine.disk()) > 0 ? Optional.of(disk + " of disk") : Optional.empty();
    }

    private static void ofHost(
            PlannedUnit unit, Kind.Machine machine, SiteResource host, Plan plan, List<Finding> findings) {
        Finding.About about = Finding.About.unit(unit);
        String version = host.value("version").orElse("");
        if (isOlder(version, machine.image().hostFrom())) {
            findings.add(Finding.blocks(
                    "image-host-version",
                    about,
                    unit.name() + ": " + host.name() + " has version " + version + ", its kind needs "
                            + machine.image().hostFrom(),
                    "The image would not start there. Update the host, or plan it on another one."));
        }
        Optional<ImageFormat> takes = host.value("disk-format").flatMap(ImageFormat::named);
        Optional<CheckedImage> image = unit.unitFact("image").flatMap(plan::image);
        if (takes.isPresent() && image.isPresent() && isOtherDisk(image.get().format(), takes.get())) {
            findings.add(Finding.blocks(
                    "image-disk-format",
                    about,
                    unit.name() + ": " + image.get().name() + " is "
                            + image.get().format().word() + ", " + host.name() + " takes "
                            + takes.get().word(),
                    "Fetch the variant for this host, or convert the disk and check it again."));
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
