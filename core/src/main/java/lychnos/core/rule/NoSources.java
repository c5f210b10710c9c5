package lychnos.core.rule;

import java.util.List;
import lychnos.core.site.SiteResourceSort;

/** No source networks are defined for management access. */
final class NoSources implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.units().isEmpty()
                        || plan.resources(SiteResourceSort.SOURCE).findAny().isPresent()
                ? List.of()
                : List.of(Finding.warns(
                        "no-sources",
                        Finding.About.SITE,
                        "No source networks are defined for management access",
                        "Management is then open to everyone with a route. Define the prefixes that may reach it."));
    }
}
