package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.inject.Produces;
import jakarta.inject.Singleton;
import java.time.Clock;
import lychnos.core.kind.Kind;

/** Puts together the parts that know nothing of the server. */
@ApplicationScoped
public class Parts {

    @Produces
    @Singleton
    Clock clock() {
        return Clock.systemUTC();
    }

    /** The one kind that the program sets up by itself. */
    @Produces
    @Singleton
    Kind kind(Kinds kinds) {
        return kinds.get("server-controller");
    }
}
