package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import lychnos.core.fact.DataSize;
import lychnos.core.site.SiteResource;
import lychnos.core.site.SiteResourceSort;

/** A virtualisation host with too few cores, too little memory or disk for what is planned on it. */
final class HostTooSmall implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        plan.resources(SiteResourceSort.HOST).forEach(host -> {
            List<PlannedUnit> guests = plan.units().stream()
                    .filter(unit -> unit.kind().machine().isPresent())
                    .flatMap(unit ->
                            unit.hosts().stream().filter(host.name()::equals).map(machine -> unit))
                    .toList();
            if (!guests.isEmpty()) {
                int cores = guests.stream()
                        .mapToInt(unit -> unit.kind().machine().orElseThrow().cores())
                        .sum();
                DataSize memory = guests.stream()
                        .map(unit -> unit.kind().machine().orElseThrow().memory())
                        .reduce(DataSize::plus)
                        .orElseThrow();
                DataSize disk = guests.stream()
                        .map(unit -> unit.kind().machine().orElseThrow().disk())
                        .reduce(DataSize::plus)
                        .orElseThrow();
                String names = guests.stream().map(PlannedUnit::name).distinct().collect(Collectors.joining(", "));
                if (cores > host.number("cores", cores)) {
                    findings.add(finding(
                            "host-cores",
                            guests.get(0),
                            host,
                            RuleText.CORES.text(cores),
                            host.value("cores").orElse(""),
                            names));
                }
                host.size("memory")
                        .filter(has -> memory.compareTo(has) > 0)
                        .ifPresent(has -> findings.add(finding(
                                "host-memory",
                                guests.get(0),
                                host,
                                RuleText.MEMORY.text(memory),
                                has.toString(),
                                names)));
                host.size("disk")
                        .filter(has -> disk.compareTo(has) > 0)
                        .ifPresent(has -> findings.add(finding(
                                "host-disk", guests.get(0), host, RuleText.DISK.text(disk), has.toString(), names)));
            }
        });
        return findings;
    }

    private static Finding finding(
            String code, PlannedUnit unit, SiteResource host, String wants, String has, String names) {
        return Finding.blocks(
                code,
                Finding.About.unit(unit),
                RuleText.HOST_TOO_SMALL.text(host.name(), has, wants),
                RuleText.HOST_TOO_SMALL_WHY.text(names));
    }
}
