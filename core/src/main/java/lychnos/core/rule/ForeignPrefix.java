package lychnos.core.rule;

import java.util.List;
import java.util.stream.Stream;
import lychnos.core.address.Prefix;

/** A prefix that is kept for documentation or loopback. */
final class ForeignPrefix implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        List<Prefix> foreign = Stream.of(
                        "192.0.2.0/24", "198.51.100.0/24", "203.0.113.0/24", "2001:db8::/32", "127.0.0.0/8", "::1/128")
                .map(Prefix::parse)
                .toList();
        return plan.ours()
                .filter(network ->
                        !plan.lab() && foreign.stream().anyMatch(prefix -> prefix.overlaps(network.prefix())))
                .map(network -> Finding.blocks(
                        "foreign-prefix",
                        Finding.About.network(network),
                        RuleText.FOREIGN_PREFIX.text(network.prefix()),
                        RuleText.FOREIGN_PREFIX_WHY.text()))
                .toList();
    }
}
