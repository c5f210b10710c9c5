package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.ServiceKind;
import lychnos.core.site.SiteResourceSort;

/** A unit that wants a proxy where none is stated or it does not let through. */
final class ProxyMissing implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.asked("proxy-needed").stream()
                .filter(unit ->
                        unit.unitFact("proxy-needed").filter("yes"::equals).isPresent())
                .filter(unit -> plan.resources(SiteResourceSort.PROXY).findAny().isEmpty()
                        || plan.services(ServiceKind.PROXY).anyMatch(proxy -> !proxy.fine()))
                .map(unit -> Finding.blocks(
                        "proxy-missing",
                        Finding.About.unit(unit),
                        RuleText.PROXY_MISSING.text(unit.name()),
                        plan.resources(SiteResourceSort.PROXY).findAny().isEmpty()
                                ? RuleText.PROXY_NOT_DEFINED.text()
                                : RuleText.PROXY_FAILS.text(plan.services(ServiceKind.PROXY)
                                        .filter(proxy -> !proxy.fine())
                                        .findFirst()
                                        .orElseThrow()
                                        .sentence())))
                .toList();
    }
}
