package lychnos.core.rule;

import java.util.List;
import java.util.Optional;
import lychnos.core.fact.DataSize;
import lychnos.core.image.CheckedImage;
import lychnos.core.site.SiteResourceSort;

/** An image that does not fit on the disk of its host. */
final class ImageTooLarge implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.asked("image-size").stream()
                .flatMap(unit -> size(plan, unit).stream().flatMap(image -> unit.hosts().stream()
                        .distinct()
                        .flatMap(host -> plan.resource(SiteResourceSort.HOST, host).stream())
                        .filter(host -> host.size("disk")
                                .filter(disk -> image.compareTo(disk) > 0)
                                .isPresent())
                        .map(host -> Finding.blocks(
                                "image-too-large",
                                Finding.About.unit(unit),
                                RuleText.IMAGE_TOO_LARGE.text(unit.name(), image, host.name()),
                                RuleText.IMAGE_TOO_LARGE_WHY.text(
                                        host.value("disk").orElse(""))))))
                .toList();
    }

    /** As it was read; before that, as it was stated. */
    private static Optional<DataSize> size(Plan plan, PlannedUnit unit) {
        return unit.unitFact("image")
                .flatMap(plan::image)
                .map(CheckedImage::size)
                .or(() -> unit.unitFact("image-size").map(DataSize::parse));
    }
}
