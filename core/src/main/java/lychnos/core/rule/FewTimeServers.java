package lychnos.core.rule;

import java.util.Optional;

/** No time server, or one or two of them. */
final class FewTimeServers implements Rule {

    @Override
    public Optional<Finding> look(Groundwork groundwork) {
        int count = groundwork.timeServers().size();
        if (count >= 3) {
            return Optional.empty();
        }
        String what = count == 0 ? "No time server is stated" : count == 1 ? "Only one time server" : "Two time servers";
        String why = count == 0
                ? "Certificates and logs go wrong without time. Enter one, better three."
                : count == 1 ? "When it fails, clocks drift unnoticed. Three are better." : "With two, a unit cannot tell which one is wrong. Three are better.";
        return Optional.of(new Finding("few-time-servers", count == 0, what, why));
    }
}
