package lychnos.core.rule;

import java.util.List;
import java.util.Optional;

/** One thing that can be wrong with the groundwork. */
@FunctionalInterface
public interface Rule {

    /** Looks for it. */
    Optional<Finding> look(Groundwork groundwork);

    /** All rules, gravest first. */
    List<Rule> ALL = List.of(
            new GatewayOutsidePrefix(), new PoolOutsidePrefix(), new NoPool(), new PoolTooSmall(), new GatewayInPool(), new FewNameServers(), new FewTimeServers());

    /** Everything that would go wrong, gravest first. */
    static List<Finding> lookAt(Groundwork groundwork) {
        return ALL.stream().flatMap(rule -> rule.look(groundwork).stream()).toList();
    }
}
