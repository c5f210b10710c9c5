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
                                RuleText.DHCP_LEFT_ON.text(unit.name()),
                                RuleText.DHCP_LEFT_ON_WHY.text())
                        .fixedBy(Fix.setFact(RuleText.MAKE_IT_STATIC.text(), unit, "", "address-by", "static")))
                .toList();
    }
}
