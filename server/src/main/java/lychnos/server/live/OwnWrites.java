package lychnos.server.live;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.quarkus.runtime.BlockingOperationControl;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.ws.rs.HttpMethod;
import jakarta.ws.rs.container.ContainerRequestContext;
import java.util.Set;
import lychnos.server.identity.caller.Who;
import lychnos.wire.time.Ticker;
import org.jboss.resteasy.reactive.server.ServerResponseFilter;

/** When people have last changed something at this server: nobody is shown a view from before their own change. */
@ApplicationScoped
public class OwnWrites {

    private final Ticker ticker;

    private static final Set<String> READS = Set.of(HttpMethod.GET, HttpMethod.HEAD, HttpMethod.OPTIONS);

    private final Who who;
    private final Cache<Long, Long> at =
            Caffeine.newBuilder().maximumSize(10_000).build();

    OwnWrites(Who who, Ticker ticker) {
        this.ticker = ticker;
        this.who = who;
    }

    @ServerResponseFilter
    void note(ContainerRequestContext request) {
        // what no route took was refused before a worker had it, and before anybody was asked who sends it
        boolean taken = BlockingOperationControl.isBlockingAllowed();
        Who.Person person = READS.contains(request.getMethod()) || !taken ? null : who.person();
        if (person != null) {
            at.put(person.id(), ticker.nanos());
        }
    }

    /** Whether the person who asks now has changed nothing since then. */
    boolean noneSince(long nanos) {
        Who.Person person = who.person();
        Long last = person == null ? null : at.getIfPresent(person.id());
        return last == null || last - nanos < 0;
    }
}
