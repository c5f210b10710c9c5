package lychnos.server.configure.network;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.inject.Singleton;
import java.security.SecureRandom;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.fact.PasswordMaker;
import lychnos.core.kind.Kind;
import lychnos.core.kind.PagePassword;
import lychnos.core.order.SetupStep;
import lychnos.server.configure.network.PagePasswordChange.Place;
import lychnos.server.jobs.CheckQueue;
import lychnos.server.jobs.Run;
import lychnos.server.jobs.Runs;
import lychnos.server.kinds.Kinds;
import lychnos.server.prove.Endpoints;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.wire.ladder.Target;
import lychnos.wire.vantage.Vantage;

/** Replaces the password of one machine in use. */
@Singleton
public class PasswordChangeWork extends StepByStep {

    private final ControllerWorks works;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Endpoints endpoints;
    private final PagePasswordChange.Means means;

    PasswordChangeWork(
            Runs runs,
            ControllerWorks works,
            BringUps bringUps,
            Kinds kinds,
            Endpoints endpoints,
            Vantage vantage,
            SealedStore sealed,
            CheckQueue checks) {
        super(runs);
        this.works = works;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.endpoints = endpoints;
        this.means = new PagePasswordChange.Means(vantage, sealed, new PasswordMaker(new SecureRandom()), checks);
    }

    @Override
    public String purpose() {
        return Run.PASSWORD;
    }

    @Override
    List<SetupStep> order() {
        return SetupStep.PASSWORD_CHANGE;
    }

    @Override
    StepWork of(long unitId) throws Surprise {
        Kind kind = QuarkusTransaction.requiringNew().call(() -> kinds.of(bringUps.unit(unitId)));
        if (kind.driven()) {
            return new PasswordChange(works.of(unitId));
        }
        PagePassword password = PagePassword.of(kind).orElseThrow(() -> noLonger());
        List<Place> places = places(unitId);
        if (places.isEmpty()) {
            throw noLonger();
        }
        return new PagePasswordChange(unitId, password, places, means);
    }

    /** The unit, its kind or its addresses were changed since the round was started. */
    private static Surprise noLonger() {
        return new Surprise(
                ConfigureText.PAGES_ARE_NOT_PLANNED.text(),
                ConfigureText.ENTER_ITS_FACTS_AND_ALLOCATE_ITS_ADDRESS.text());
    }

    /** Where the pages of the unit's members are, each once. */
    private List<Place> places(long unitId) {
        Map<String, Place> places = new LinkedHashMap<>();
        for (Endpoints.TargetEndpoint each : endpoints.of(unitId)) {
            Target target = each.target();
            if (target.service() instanceof Target.SignIn signIn
                    && signIn.pages() != null
                    && signIn.pages().ours().phrase() != null) {
                String fingerprint = target.fingerprint() == null ? "" : target.fingerprint();
                places.putIfAbsent(
                        signIn.pages().at(), new Place(target.address(), target.port(), signIn.pages(), fingerprint));
            }
        }
        return List.copyOf(places.values());
    }
}
