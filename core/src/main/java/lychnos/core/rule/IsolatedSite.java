package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.site.SitePolicies;
import lychnos.core.site.SiteResourceSort;

/** At an isolated site, what needs the internet, or would send something out. */
final class IsolatedSite implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        boolean isolated = plan.resource(SiteResourceSort.POLICY, SitePolicies.ISOLATED)
                .flatMap(policy -> policy.value("answer"))
                .filter("yes"::equals)
                .isPresent();
        List<Finding> findings = new ArrayList<>();
        if (isolated) {
            plan.units(kind -> kind.setup().internet()).forEach(unit -> findings.add(needsTheInternet(unit)));
            plan.units().forEach(unit -> SitePolicies.OUTWARD.stream()
                    .filter(fact -> unit.unitFact(fact).filter("yes"::equals).isPresent())
                    .forEach(fact -> findings.add(sendsOut(unit, fact))));
        }
        return findings;
    }

    private static Finding needsTheInternet(PlannedUnit unit) {
        String way = unit.kind().setup().wayRound();
        return Finding.warns(
                "isolated-needs-internet",
                Finding.About.unit(unit),
                RuleText.ISOLATED_NEEDS_INTERNET.text(unit.name()),
                way.isEmpty() ? RuleText.ISOLATED_NEEDS_INTERNET_WHY.text() : RuleText.ISOLATED_WAY_ROUND.text(way));
    }

    private static Finding sendsOut(PlannedUnit unit, String fact) {
        return Finding.blocks(
                        "isolated-sends-out",
                        Finding.About.unit(unit),
                        RuleText.ISOLATED_SENDS_OUT.text(unit.name(), fact.replace('-', ' ')),
                        RuleText.ISOLATED_SENDS_OUT_WHY.text())
                .fixedBy(Fix.setFact(RuleText.SET_VALUE.text("no"), unit, "", fact, "no"));
    }
}
