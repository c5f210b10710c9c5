package lychnos.core.rule;

import java.util.Optional;

/** No name server, or a single one. */
final class FewNameServers implements Rule {

    @Override
    public Optional<Finding> look(Groundwork groundwork) {
        int count = groundwork.nameServers().size();
        if (count >= 2) {
            return Optional.empty();
        }
        return Optional.of(new Finding(
                "few-name-servers",
                count == 0,
                count == 0 ? "No name server is stated" : "Only one name server",
                count == 0 ? "First setup asks for it. Enter at least one, better two." : "When it restarts, nothing resolves. Production wants two."));
    }
}
