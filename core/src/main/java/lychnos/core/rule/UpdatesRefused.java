package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.Reply;
import lychnos.core.service.ServiceKind;

/** A domain whose primary server takes no updates from us. */
final class UpdatesRefused implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.services(ServiceKind.NAME)
                .flatMap(server -> server.replies().stream()
                        .filter(reply -> reply.request() == Reply.Request.UPDATE && !reply.accepted())
                        .map(reply -> Finding.warns(
                                "updates-refused",
                                Finding.About.SITE,
                                RuleText.UPDATES_REFUSED.text(server.address(), reply.about()),
                                RuleText.UPDATES_REFUSED_WHY.text(reply.text()))))
                .toList();
    }
}
