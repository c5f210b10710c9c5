package lychnos.core.kind;

import java.util.List;
import java.util.Map;
import lychnos.core.fact.FactSpec;
import lychnos.core.name.NamePattern;

/** A kind that differs from another in what a site may adjust. */
final class KindCopy {

    private final Kind from;
    String about;
    List<FactSpec> facts;
    List<String> bring;
    String plug;
    NamePattern unitName;
    List<Kind.FactoryLogin> logins;
    KindChecks checks;
    Kind.Waits waits;
    List<Kind.Flow> flows;

    KindCopy(Kind from) {
        this.from = from;
        about = from.about();
        facts = from.facts();
        bring = from.bring();
        plug = from.plug();
        unitName = from.names().unit();
        logins = from.logins();
        checks = from.checks();
        waits = from.waits();
        flows = from.flows();
    }

    Kind kind() {
        Map<String, NamePattern> roles = from.names().roles();
        return new Kind(
                from.id(),
                from.title(),
                from.shortName(),
                about,
                from.members(),
                facts,
                new Kind.AtRack(bring, plug, from.atRack().checks()),
                from.addresses(),
                new Kind.Names(
                        unitName, roles, from.names().aliases(), from.names().longest()),
                from.setup(),
                from.dialogue(),
                from.machine(),
                logins,
                checks,
                waits,
                flows);
    }
}
