package lychnos.server.configure.network;

import jakarta.enterprise.context.ApplicationScoped;
import java.security.SecureRandom;
import lychnos.core.fact.PasswordMaker;
import lychnos.server.kinds.Kinds;
import lychnos.server.prove.Proofs;
import lychnos.server.prove.Targets;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.OwnLogins;
import lychnos.wire.vantage.Vantage;

/** Puts together what work on one controller is done with. */
@ApplicationScoped
class ControllerWorks {

    private final Targets targets;
    private final Proofs proofs;
    private final SealedStore sealed;
    private final Vantage vantage;
    private final Kinds kinds;
    private final OwnLogins ownLogins;
    private final PasswordMaker passwords = new PasswordMaker(new SecureRandom());

    ControllerWorks(
            Targets targets, Proofs proofs, SealedStore sealed, Vantage vantage, Kinds kinds, OwnLogins ownLogins) {
        this.targets = targets;
        this.proofs = proofs;
        this.sealed = sealed;
        this.vantage = vantage;
        this.kinds = kinds;
        this.ownLogins = ownLogins;
    }

    ControllerWork.Means of(long unitId) throws Surprise {
        Targets.Subject subject = targets.subject(unitId)
                .orElseThrow(() -> new Surprise(
                        ConfigureText.UNIT_NO_LONGER_HAS_AN_ADDRESS.text(),
                        ConfigureText.ENTER_ITS_FACTS_AND_ALLOCATE_ITS_ADDRESS.text()));
        return new ControllerWork.Means(
                subject,
                ownLogins.with(kinds.of(subject.unit()), unitId, ""),
                vantage,
                targets,
                proofs,
                sealed,
                passwords);
    }
}
