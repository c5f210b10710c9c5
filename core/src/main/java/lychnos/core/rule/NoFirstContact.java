package lychnos.core.rule;

import java.util.List;

/** Machines that begin with an address from DHCP, of which nobody knows and nobody can find out which one. */
final class NoFirstContact implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<PlannedUnit> lost = plan
                .units(kind -> kind.driven() && kind.setup().dhcpFirst())
                .stream()
                .filter(unit -> unit.known().known() && !unit.firstKnown())
                .toList();
        return lost.isEmpty()
                ? List.of()
                : plan.ours("management")
                        .filter(network -> network.dhcp().isEmpty()
                                && lost.stream().anyMatch(unit -> Long.valueOf(network.id())
                                        .equals(unit.networkId())))
                        .map(network -> Finding.warns(
                                "no-first-contact",
                                Finding.About.network(network),
                                lost.size() == 1
                                        ? "Nothing says where " + lost.get(0).name() + " is found first"
                                        : "Nothing says where " + lost.size() + " units are found first",
                                "They leave the factory asking DHCP. State the range that it hands out in "
                                        + network.prefix()
                                        + ", or each one's first address with its label; without either a "
                                        + "setup stops at once."))
                        .toList();
    }
}
