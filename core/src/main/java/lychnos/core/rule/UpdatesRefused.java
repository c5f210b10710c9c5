package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.ServiceKind;

/** A domain whose primary server takes no updates from us. */
final class UpdatesRefused implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.services(ServiceKind.NAME)
                .flatMap(server -> server.detail().entrySet().stream()
                        .filter(entry -> entry.getKey().startsWith("update ")
                                && !entry.getValue().equals("allowed"))
                        .map(entry -> Finding.warns(
                                "updates-refused",
                                Finding.About.SITE,
                                server.address() + " takes no updates of "
                                        + entry.getKey().substring(7),
                                "It answered: " + entry.getValue()
                                        + ". Names then go to its keeper as zone lines. Check the "
                                        + "key, or ask for the right to update.")))
                .toList();
    }
}
