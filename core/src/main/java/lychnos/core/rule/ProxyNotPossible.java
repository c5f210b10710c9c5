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
                        unit.name() + " cannot use a proxy in its first setup",
                        "It needs the internet at that point, and this site has a proxy. "
                                + unit.kind().setup().wayRound()))
                .toList();
    }
}
