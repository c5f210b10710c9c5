package lychnos.core.rule;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.core.fact.Version;
import lychnos.core.site.SiteResource;
import lychnos.core.site.SiteResourceSort;

/** A machine whose firmware, as it was read at its last check, is not what the site wants for its kind. */
final class FirmwareBaseline implements Rule {

    private static final String EXACTLY = "exactly";

    @Override
    public List<Finding> look(Plan plan) {
        return plan.firmware().isEmpty()
                ? List.of()
                : plan.units().stream()
                        .flatMap(unit -> plan
                                .resource(SiteResourceSort.FIRMWARE, unit.kind().id())
                                .stream()
                                .flatMap(baseline -> off(plan, unit, baseline)))
                        .toList();
    }

    private static Stream<Finding> off(Plan plan, PlannedUnit unit, SiteResource baseline) {
        Optional<Version> wanted = baseline.value("version").flatMap(Version::find);
        boolean exactly = baseline.value("rule").filter(EXACTLY::equals).isPresent();
        return plan.firmware().stream()
                .filter(seen -> seen.unit() == unit.id() && wanted.isPresent())
                .filter(seen -> isOff(seen.version(), wanted.get(), exactly))
                .map(seen -> finding(unit, seen, wanted.get(), exactly));
    }

    /** What does not look like a version cannot be compared, and is shown as it is. */
    private static boolean isOff(String shown, Version wanted, boolean exactly) {
        Optional<Version> has = Version.find(shown);
        if (has.isEmpty()) {
            return true;
        }
        return exactly ? !has.get().equals(wanted) : has.get().compareTo(wanted) < 0;
    }

    private static Finding finding(PlannedUnit unit, Plan.SeenFirmware seen, Version wanted, boolean exactly) {
        RuleText text = exactly ? RuleText.FIRMWARE_NOT_EXACT : RuleText.FIRMWARE_TOO_OLD;
        String machine = seen.role().equals("management") ? unit.name() : unit.name() + ", " + seen.role();
        return Finding.warns(
                "firmware-baseline",
                Finding.About.unit(unit),
                text.text(machine, seen.version(), wanted),
                RuleText.FIRMWARE_WHY.text(unit.kind().title()));
    }
}
