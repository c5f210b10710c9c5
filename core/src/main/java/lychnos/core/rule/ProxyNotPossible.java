package lychnos.core.rule;

import java.util.List;
import lychnos.core.site.SiteResourceSort;

/** A unit that must reach the internet through a proxy which its first setup cannot take. */
final class ProxyNotPossible implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        boolean proxy = plan.resources(SiteResourceSort.PROXY).findAny().isPresent();
        return plan.units(kind -> kind.setup().internet() && !kind.setup().proxy()).stream()
                .filter(unit -> proxy && unit.unitFact("licence-end").isEmpty())
                .map(unit -> Finding.warns(
                        "proxy-not-possible",
                        Finding.About.unit(unit),
                        RuleText.PROXY_NOT_POSSIBLE.text(unit.name()),
                        RuleText.PROXY_NOT_POSSIBLE_WHY.text(unit.kind().setup().wayRound())))
                .toList();
    }
}
