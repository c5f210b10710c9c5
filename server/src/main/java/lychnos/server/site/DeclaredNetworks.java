package lychnos.server.site;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.wire.time.Ticker;
import org.hibernate.Session;

/**
 * What may be reached at all: the prefixes of all stated networks, and the single addresses of the services that
 * somebody stated, which may lie elsewhere. Asked of the database, since a network that was stated a moment ago must be
 * reachable now, and one that is gone must not, on every server.
 */
@ApplicationScoped
public class DeclaredNetworks {

    private final Ticker ticker;

    private static final String STATED = "select cast(prefix as text) from network"
            + " union select server from network, unnest(name_servers || time_servers) server"
            + " union select coalesce(value ->> 'address', value ->> 'primary') from site_resource where sort "
            + "in ('domain', "
            + "'time', 'relay', 'proxy', 'lines', 'directory')"
            // a virtualisation host is reached for the lines of what runs on it
            + " union select value ->> 'address' from site_resource where sort = 'host' and value ->> "
            + "'line-ports' is not null";

    /** Thousands of checks ask at every exchange. */
    private static final long FRESH_NANOS = 500_000_000;

    /** A webhook that a lead has defined by its address, and mail relays: what notices go to. */
    private static final String NOTICES =
            "select host from notice_host union select value ->> 'address' from site_resource where sort = 'relay'";

    private final Session db;
    private final OperatorReach operator;
    private volatile Read read;

    private record Read(List<Prefix> prefixes, List<Prefix> notices, long at) {

        boolean has(Address address, OperatorReach operator) {
            return operator.admits(address) && DeclaredNetworks.has(prefixes, address)
                    || operator.admitsForNotices(address) && DeclaredNetworks.has(notices, address);
        }
    }

    DeclaredNetworks(Session db, OperatorReach operator, Ticker ticker) {
        this.ticker = ticker;
        this.db = db;
        this.operator = operator;
    }

    /**
     * Whether an address may be reached: somebody has defined it, and it lies in what the operator allows. What was
     * declared a moment ago counts; what is declared no more, half a second longer.
     */
    public boolean has(Address address) {
        Read now = read;
        if (now != null && ticker.nanos() - now.at < FRESH_NANOS && now.has(address, operator)) {
            return true;
        }
        now = QuarkusTransaction.joiningExisting()
                .call(() -> new Read(prefixes(STATED), prefixes(NOTICES), ticker.nanos()));
        read = now;
        return now.has(address, operator);
    }

    private static boolean has(List<Prefix> prefixes, Address address) {
        return prefixes.stream().anyMatch(prefix -> prefix.contains(address));
    }

    private List<Prefix> prefixes(String query) {
        return db.doReturningWork(connection -> {
            try (PreparedStatement statement = connection.prepareStatement(query);
                    ResultSet rows = statement.executeQuery()) {
                List<Prefix> stated = new ArrayList<>();
                while (rows.next()) {
                    Optional.ofNullable(rows.getString(1))
                            .flatMap(DeclaredNetworks::prefix)
                            .ifPresent(stated::add);
                }
                return stated;
            }
        });
    }

    /** A server that is stated by its name is reached through none of this: names are not resolved here. */
    private static Optional<Prefix> prefix(String text) {
        if (text.indexOf('/') >= 0) {
            return Optional.of(Prefix.parse(text));
        }
        return Address.tryParse(text)
                .map(address -> new Prefix(address, address.family().bits()));
    }
}
