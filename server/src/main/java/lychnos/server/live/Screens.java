package lychnos.server.live;

import io.quarkus.websockets.next.OpenConnections;
import jakarta.enterprise.context.ApplicationScoped;
import org.jboss.logging.Logger;

/** The browsers that are connected to this server. */
@ApplicationScoped
public class Screens {

    /** What the channel to browsers is called. */
    public static final String ENDPOINT = "live";

    private static final Logger LOG = Logger.getLogger(Screens.class);

    private final OpenConnections connections;

    Screens(OpenConnections connections) {
        this.connections = connections;
    }

    /** Lets every screen that shows a bring-up look again; all of them where it is 0. */
    void tell(long bringUpId, String topic) {
        String message = bringUpId + " " + topic;
        connections.findByEndpointId(ENDPOINT).forEach(connection -> connection
                .sendText(message)
                .subscribe()
                .with(sent -> {}, fault -> LOG.debug("a screen is gone", fault)));
    }
}
