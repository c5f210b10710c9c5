package lychnos.server;

import io.vertx.core.Vertx;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.inject.Produces;
import jakarta.inject.Singleton;
import java.time.Clock;
import java.util.Collection;
import lychnos.core.address.Prefix;
import lychnos.core.kind.Kind;
import lychnos.server.prepare.Kinds;
import lychnos.server.prepare.DeclaredNetworks;
import lychnos.wire.LocalVantage;
import lychnos.wire.Vantage;
import lychnos.wire.dial.Dialler;

/** Puts together the parts that know nothing of the server. */
@ApplicationScoped
public class Parts {

    @Produces
    @Singleton
    Clock clock() {
        return Clock.systemUTC();
    }

    @Produces
    @Singleton
    Vantage vantage(LychnosConfig config, DeclaredNetworks declared, Vertx vertx) {
        Dialler dialler = new Dialler((java.util.function.Supplier<Collection<Prefix>>) declared::prefixes, config.lab());
        return new LocalVantage(config.vantage().name(), config.vantage().hearsSilence(), dialler, vertx);
    }

    /** The one kind that the program sets up by itself. */
    @Produces
    @Singleton
    Kind kind(Kinds kinds) {
        return kinds.get("server-controller");
    }
}
