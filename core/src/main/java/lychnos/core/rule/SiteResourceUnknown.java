package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.site.SiteResourceSort;

/** A unit that refers to a host or a fabric which the site does not have. */
final class SiteResourceUnknown implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit :
                plan.units(kind -> kind.facts().stream().anyMatch(fact -> fact.type() == FactType.SITE_RESOURCE))) {
            for (FactSpec fact : unit.kind().facts()) {
                if (fact.type() == FactType.SITE_RESOURCE) {
                    SiteResourceSort sort =
                            SiteResourceSort.named(fact.choices().get(0)).orElseThrow();
                    unit.unitFact(fact.name())
                            .filter(name -> plan.resource(sort, name).isEmpty())
                            .ifPresent(name -> findings.add(Finding.blocks(
                                    "site-resource-unknown",
                                    Finding.About.unit(unit),
                                    RuleText.SITE_RESOURCE_UNKNOWN.text(
                                            unit.name(), sort.title().toLowerCase(java.util.Locale.ROOT), name),
                                    RuleText.SITE_RESOURCE_UNKNOWN_WHY.text())));
                }
            }
        }
        return findings;
    }
}
