package lychnos.core.rule;

import java.util.List;

/** A unit that is to keep its address from DHCP. */
final class DhcpLeftOn implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.asked("address-by").stream()
                .filter(unit ->
                        unit.unitFact("address-by").filter("dhcp"::equals).isPresent())
                .map(unit -> Finding.warns(
                                "dhcp-left-on",
                                Finding.About.unit(unit),
                                unit.name() + " would keep an address from DHCP",
                                "The address can change with the lease. Use the planned address.")
                        .fixedBy(Fix.setFact("Make it static", unit, "", "address-by", "static")))
                .toList();
    }
}
