package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.List;
import java.util.stream.Stream;
import lychnos.core.fact.Secret;
import lychnos.server.kinds.Kinds;
import lychnos.server.secrets.SealedStore;
import lychnos.server.site.SiteResources;
import lychnos.server.units.OwnLogins;

/** Every password that this server has sealed, to be looked for in a text that comes from outside. */
@ApplicationScoped
public class KnownSecrets {

    private final SealedStore sealed;
    private final OwnLogins facts;
    private final SiteResources resources;
    private final Kinds kinds;

    KnownSecrets(SealedStore sealed, OwnLogins facts, SiteResources resources, Kinds kinds) {
        this.sealed = sealed;
        this.facts = facts;
        this.resources = resources;
        this.kinds = kinds;
    }

    /** Passwords of machines, made or entered, of site resources, and of adjustments. */
    @Transactional
    public List<Secret> all() {
        return Stream.of(sealed.openAll(), facts.sealedFacts(), resources.secrets(), kinds.adjustedSecrets())
                .flatMap(List::stream)
                .toList();
    }
}
