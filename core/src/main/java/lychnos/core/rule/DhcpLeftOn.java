package lychnos.core.rule;

import java.util.List;

/** A unit that is to keep its address from DHCP. */
final class DhcpLeftOn implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.asked("static").stream()
                .filter(unit -> unit.unitFact("static").filter("no"::equals).isPresent())
                .map(unit -> Finding.warns(
                                "dhcp-left-on",
                                Finding.About.unit(unit),
                                unit.name() + " is to keep an address from DHCP",
                                "It works until the lease moves. Management wants the address of the plan.")
                        .mendedBy(Fix.setFact("Set it by hand", unit, "", "static", "yes")))
                .toList();
    }
}
