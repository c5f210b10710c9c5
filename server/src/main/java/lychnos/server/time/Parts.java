package lychnos.server.time;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.inject.Produces;
import jakarta.inject.Singleton;
import java.time.Clock;

/** Puts together the parts that know nothing of the server. */
@ApplicationScoped
public class Parts {

    @Produces
    @Singleton
    Clock clock() {
        return Clock.systemUTC();
    }
}
