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
                        "no-sources", Finding.About.SITE, RuleText.NO_SOURCES.text(), RuleText.NO_SOURCES_WHY.text()));
    }
}
