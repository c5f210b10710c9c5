package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.fact.DataSize;

/** A hypervisor host below what it needs to install. */
final class HypervisorTooSmall implements Rule {

    private static final DataSize LEAST_MEMORY = DataSize.parse("32 GiB");
    private static final DataSize LEAST_DISK = DataSize.parse("128 GiB");

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.asked("memory")) {
            if (unit.kind().id().equals("hypervisor-host")) {
                unit.unitFact("memory")
                        .map(DataSize::parse)
                        .filter(size -> size.compareTo(LEAST_MEMORY) < 0)
                        .ifPresent(size -> findings.add(Finding.blocks(
                                "too-little-memory",
                                Finding.About.unit(unit),
                                unit.name() + " has " + size + " of memory",
                                "Below 32 GiB it will not start. Is the value right, or a module missing?")));
                unit.unitFact("disk")
                        .map(DataSize::parse)
                        .filter(size -> size.compareTo(LEAST_DISK) < 0)
                        .ifPresent(size -> findings.add(Finding.blocks(
                                "too-little-disk",
                                Finding.About.unit(unit),
                                unit.name() + " has " + size + " of disk",
                                "Below 128 GiB it will not install.")));
            }
        }
        return findings;
    }
}
