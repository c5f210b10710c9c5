package lychnos.server.identity;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.ws.rs.core.NewCookie;
import lychnos.server.LychnosConfig;

/** The cookie of a session (RFC 6265): only the server reads it, and it goes to this site alone. */
@ApplicationScoped
class SessionCookie {

    private final LychnosConfig config;

    SessionCookie(LychnosConfig config) {
        this.config = config;
    }

    /** With the token of a session, for as long as the longest session lasts. */
    NewCookie of(String token) {
        return cookie(token, (int) config.session().longest().toSeconds());
    }

    /** Removes it. */
    NewCookie none() {
        return cookie("", 0);
    }

    private NewCookie cookie(String value, int seconds) {
        return new NewCookie.Builder(SignInMechanism.cookie(config.cookieSecure()))
                .value(value)
                .path("/")
                .httpOnly(true)
                .secure(config.cookieSecure())
                .sameSite(NewCookie.SameSite.STRICT)
                .maxAge(seconds)
                .build();
    }
}
