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
                                server.address() + " accepts no updates of " + reply.about(),
                                "It answered: " + reply.text()
                                        + ". Send the zone lines to the zone's administrator. Or check the "
                                        + "key, or ask for the right to update.")))
                .toList();
    }
}
