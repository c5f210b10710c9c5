package lychnos.server.identity;

import io.smallrye.mutiny.Uni;
import io.smallrye.mutiny.infrastructure.Infrastructure;
import io.vertx.core.http.HttpServerRequest;
import java.util.List;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.text.IdentityText;

/** What requests with passwords have in common. */
final class PasswordRequests {

    static final int LONGEST_PASSWORD = 200;

    private PasswordRequests() {}

    static SignIns.Origin origin(HttpServerRequest request) {
        return new SignIns.Origin(
                request.remoteAddress() == null ? "" : request.remoteAddress().hostAddress(),
                request.getHeader("User-Agent"));
    }

    static void refuse(String password, String login, String name) {
        if (password == null || password.length() > LONGEST_PASSWORD) {
            throw Refusal.fields(List.of(
                    new FieldFault("password", IdentityText.PASSWORD_HAS_AT_MOST_CHARACTERS.said(LONGEST_PASSWORD))));
        }
        Passwords.fault(password, login, name).ifPresent(fault -> {
            throw Refusal.fields(List.of(new FieldFault("password", fault)));
        });
    }

    static <T> Uni<T> blocking(java.util.function.Supplier<T> work) {
        return Uni.createFrom().item(work).runSubscriptionOn(Infrastructure.getDefaultWorkerPool());
    }

    /** One who is signed in and mistypes is not signed out by that. */
    static Throwable wrongPassword(Throwable refused) {
        return refused instanceof Refusal refusal && refusal.status() == 401
                ? Refusal.fields(List.of(new FieldFault("old", IdentityText.IS_NOT_YOUR_PASSWORD.said())))
                : refused;
    }
}
