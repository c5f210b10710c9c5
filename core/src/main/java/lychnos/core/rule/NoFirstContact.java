package lychnos.core.rule;

import java.util.List;

/** Machines that begin with an address from DHCP, whose address is unknown and cannot be found out. */
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
                                        ? RuleText.NO_FIRST_CONTACT_ONE.text(
                                                lost.get(0).name())
                                        : RuleText.NO_FIRST_CONTACT_MANY.text(lost.size()),
                                RuleText.NO_FIRST_CONTACT_WHY.text(network.prefix())))
                        .toList();
    }
}
