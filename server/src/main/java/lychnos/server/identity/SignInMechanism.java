package lychnos.server.identity;

import io.quarkus.security.identity.AuthenticationRequestContext;
import io.quarkus.security.identity.IdentityProvider;
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
import lychnos.server.LychnosConfig;
import lychnos.server.database.DatabaseTrouble;
import lychnos.server.identity.caller.Credential;
import lychnos.server.identity.caller.Who;

/**
 * Knows people by the token in their cookie, and programs by theirs (RFC 6750). A bad or old token is nobody, not an
 * error.
 */
@ApplicationScoped
public class SignInMechanism implements HttpAuthenticationMechanism {

    /** Behind TLS the browser itself holds the name to this host alone (RFC 6265bis, section 4.1.3.2). */
    static String cookie(boolean secure) {
        return secure ? "__Host-lychnos" : "lychnos";
    }

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

    private final LychnosConfig config;

    SignInMechanism(LychnosConfig config) {
        this.config = config;
    }

    @Override
    public Uni<SecurityIdentity> authenticate(RoutingContext context, IdentityProviderManager manager) {
        String header = context.request().getHeader("Authorization");
        if (header != null && header.startsWith(BEARER + ApiTokens.PREFIX) && header.length() < LONGEST) {
            return manager.authenticate(new TokenRequest(header.substring(BEARER.length())));
        }
        Cookie cookie = context.request().getCookie(cookie(config.cookieSecure()));
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

        private final Sessions sessions;
        private final ApiTokens tokens;

        Provider(Sessions sessions, ApiTokens tokens) {
            this.sessions = sessions;
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
                    return identity(
                            request.token.startsWith(ApiTokens.PREFIX)
                                    ? tokens.holder(request.token)
                                    : sessions.holder(request.token));
                } catch (RuntimeException e) {
                    // nobody is signed out because the database is away
                    return untold(DatabaseTrouble.of(e).orElseThrow(() -> e));
                }
            });
        }

        private static SecurityIdentity untold(DatabaseTrouble trouble) {
            return QuarkusSecurityIdentity.builder()
                    .setAnonymous(true)
                    .addAttribute(DatabaseTrouble.ATTRIBUTE, trouble)
                    .build();
        }

        private static SecurityIdentity identity(Optional<Sessions.SessionHolder> holder) {
            return holder.<SecurityIdentity>map(each -> {
                        Who.Person found = each.person();
                        var builder = QuarkusSecurityIdentity.builder()
                                .setPrincipal(new QuarkusPrincipal(found.login()))
                                .addAttribute(Who.ATTRIBUTE, found)
                                .addAttribute(Credential.ATTRIBUTE, each.credential());
                        ROLES.subList(0, ROLES.indexOf(found.role()) + 1).forEach(builder::addRole);
                        return builder.build();
                    })
                    .orElse(QuarkusSecurityIdentity.builder().setAnonymous(true).build());
        }
    }
}
