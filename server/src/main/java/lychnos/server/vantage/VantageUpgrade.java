package lychnos.server.vantage;

import io.quarkus.websockets.next.HttpUpgradeCheck;
import io.smallrye.mutiny.Uni;
import io.smallrye.mutiny.infrastructure.Infrastructure;
import jakarta.inject.Singleton;

/** Lets nobody link who has no token, before a word is said. */
@Singleton
public class VantageUpgrade implements HttpUpgradeCheck {

    private static final int UNAUTHORIZED = 401;

    private final Vantages vantages;

    VantageUpgrade(Vantages vantages) {
        this.vantages = vantages;
    }

    /** The token of a request, or an empty text. */
    static String token(String authorization) {
        return authorization != null && authorization.startsWith("Bearer ")
                ? authorization.substring("Bearer ".length())
                : "";
    }

    @Override
    public boolean appliesTo(String endpointId) {
        return endpointId.equals(VantageSocket.class.getName());
    }

    @Override
    public Uni<CheckResult> perform(HttpUpgradeContext context) {
        String token = token(context.httpRequest().getHeader("Authorization"));
        return Uni.createFrom()
                .item(() -> vantages.nameOf(token).isPresent())
                .runSubscriptionOn(Infrastructure.getDefaultWorkerPool())
                .chain(known -> known ? CheckResult.permitUpgrade() : CheckResult.rejectUpgrade(UNAUTHORIZED));
    }
}
