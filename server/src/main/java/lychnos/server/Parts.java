package lychnos.server;

import io.vertx.core.Vertx;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.inject.Produces;
import jakarta.inject.Singleton;
import java.time.Clock;
import java.util.Collection;
import lychnos.core.address.Prefix;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
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

    /** The one kind there is. */
    @Produces
    @Singleton
    Kind kind(LychnosConfig config) {
        Kind kind = KindReader.shipped("server-controller");
        return config.labPort().isEmpty() ? kind : kind.withPort(config.labPort().get());
    }
}
