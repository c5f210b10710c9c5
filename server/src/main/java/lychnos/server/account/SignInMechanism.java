package lychnos.server.account;

import io.quarkus.security.identity.IdentityProvider;
import io.quarkus.security.identity.AuthenticationRequestContext;
import io.quarkus.security.identity.IdentityProviderManager;
import io.quarkus.security.identity.SecurityIdentity;
import io.quarkus.security.identity.request.AuthenticationRequest;
import io.quarkus.security.identity.request.BaseAuthenticationRequest;
import io.quarkus.security.runtime.QuarkusPrincipal;
import io.quarkus.security.runtime.QuarkusSecurityIdentity;
import io.quarkus.vertx.http.runtime.security.ChallengeData;
import io.quarkus.vertx.http.runtime.security.HttpAuthenticationMechanism;
import io.smallrye.mutiny.Uni;
import io.vertx.core.http.Cookie;
import io.vertx.ext.web.RoutingContext;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import java.util.Optional;
import java.util.Set;

import lychnos.server.store.DatabaseTrouble;

/** Knows people by the token in their cookie, and programs by theirs (RFC 6750). A bad or old token is nobody, not an error. */
@ApplicationScoped
public class SignInMechanism implements HttpAuthenticationMechanism {

    static final String COOKIE = "lychnos";

    private static final String BEARER = "Bearer ";
    private static final int LONGEST = 100;

    static final List<String> ROLES = List.of("viewer", "engineer", "lead");

    /** Asks who holds a token. */
    static final class TokenRequest extends BaseAuthenticationRequest {

        private final String token;

        TokenRequest(String token) {
            this.token = token;
        }
    }

    @Override
    public Uni<SecurityIdentity> authenticate(RoutingContext context, IdentityProviderManager manager) {
        String header = context.request().getHeader("Authorization");
        if (header != null && header.startsWith(BEARER + ApiTokens.PREFIX) && header.length() < LONGEST) {
            return manager.authenticate(new TokenRequest(header.substring(BEARER.length())));
        }
        Cookie cookie = context.request().getCookie(COOKIE);
        if (cookie == null || cookie.getValue().length() > LONGEST) {
            return Uni.createFrom().nullItem();
        }
        return manager.authenticate(new TokenRequest(cookie.getValue()));
    }

    @Override
    public Uni<ChallengeData> getChallenge(RoutingContext context) {
        return Uni.createFrom().item(new ChallengeData(401, null, null));
    }

    @Override
    public Set<Class<? extends AuthenticationRequest>> getCredentialTypes() {
        return Set.of(TokenRequest.class);
    }

    /** Looks the token up; each role includes the ones below it. */
    @ApplicationScoped
    static class Provider implements IdentityProvider<TokenRequest> {

        private final Accounts accounts;
        private final ApiTokens tokens;

        Provider(Accounts accounts, ApiTokens tokens) {
            this.accounts = accounts;
            this.tokens = tokens;
        }

        @Override
        public Class<TokenRequest> getRequestType() {
            return TokenRequest.class;
        }

        @Override
        public Uni<SecurityIdentity> authenticate(TokenRequest request, AuthenticationRequestContext context) {
            return context.runBlocking(() -> {
                try {
                    return identity(request.token.startsWith(ApiTokens.PREFIX) ? tokens.holder(request.token) : accounts.holder(request.token));
                } catch (RuntimeException e) {
                    // nobody is signed out because the database is away
                    return untold(DatabaseTrouble.of(e).orElseThrow(() -> e));
                }
            });
        }

        private static SecurityIdentity untold(DatabaseTrouble trouble) {
            return QuarkusSecurityIdentity.builder().setAnonymous(true).addAttribute(DatabaseTrouble.ATTRIBUTE, trouble).build();
        }

        private static SecurityIdentity identity(Optional<Who.Person> person) {
            return person.<SecurityIdentity>map(found -> {
                        var builder = QuarkusSecurityIdentity.builder().setPrincipal(new QuarkusPrincipal(found.login())).addAttribute(Who.ATTRIBUTE, found);
                        ROLES.subList(0, ROLES.indexOf(found.role()) + 1).forEach(builder::addRole);
                        return builder.build();
                    })
                    .orElse(QuarkusSecurityIdentity.builder().setAnonymous(true).build());
        }
    }
}
