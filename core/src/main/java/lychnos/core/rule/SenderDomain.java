package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.service.Measured;
import lychnos.core.service.Reply;
import lychnos.core.service.ServiceKind;

/** A mail sender whose domain leads nowhere, so that a relay refuses it. */
final class SenderDomain implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.asked("mail-sender")) {
            unit.unitFact("mail-sender").ifPresent(sender -> plan.services(ServiceKind.RELAY)
                    .flatMap(relay -> Reply.refusal(relay.replies(), Reply.Request.SENDER, sender)
                            .map(refusal -> finding(plan, unit, sender, relay, refusal))
                            .stream())
                    .findFirst()
                    .ifPresent(findings::add));
        }
        return findings;
    }

    private static Finding finding(Plan plan, PlannedUnit unit, String sender, Measured relay, Reply refusal) {
        String domain = sender.substring(sender.indexOf('@') + 1);
        boolean nowhere = Reply.refusal(relay.replies(), Reply.Request.MAIL_DOMAIN, domain)
                .isPresent();
        Finding finding = Finding.blocks(
                "sender-domain",
                Finding.About.unit(unit),
                RuleText.SENDER_DOMAIN.text(unit.name()),
                nowhere
                        ? RuleText.SENDER_DOMAIN_NOWHERE.text(domain, refusal.text())
                        : RuleText.SENDER_DOMAIN_WHY.text(refusal.text()));
        return plan.ours("management")
                .map(network -> sender.substring(0, sender.indexOf('@')) + "@" + network.domain())
                .filter(better -> !better.equals(sender))
                .findFirst()
                .map(better ->
                        finding.fixedBy(Fix.setFact(RuleText.USE_VALUE.text(better), unit, "", "mail-sender", better)))
                .orElse(finding);
    }
}
