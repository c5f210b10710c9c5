package lychnos.core.rule;

import java.util.List;
import lychnos.core.service.ServiceKind;

/** A directory that is silent, does not accept the service account, or lacks the group. */
final class DirectoryOdd implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.services(ServiceKind.DIRECTORY)
                .filter(directory -> !directory.fine())
                .map(directory -> Finding.warns(
                        "directory-odd",
                        Finding.About.SITE,
                        RuleText.DIRECTORY_ODD.text(directory.address(), directory.sentence()),
                        RuleText.DIRECTORY_ODD_WHY.text()))
                .toList();
    }
}
