package lychnos.core.rule;

import java.util.List;
import lychnos.core.site.SiteResourceSort;

/** Nobody said from where management may be reached. */
final class NoSources implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.units().isEmpty()
                        || plan.things(SiteResourceSort.SOURCE).findAny().isPresent()
                ? List.of()
                : List.of(Finding.warns(
                        "no-sources",
                        Finding.About.SITE,
                        "Nobody said from where management may be reached",
                        "Then it is open to everyone who has a route. State the prefixes of those who may."));
    }
}
