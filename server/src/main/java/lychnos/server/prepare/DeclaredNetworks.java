package lychnos.server.prepare;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import org.hibernate.Session;

/**
 * What may be reached at all: the prefixes of all stated networks, and the single addresses of the services that somebody
 * stated, which may lie elsewhere. Asked of the database, since a network that was stated a moment ago must be reachable now,
 * and one that is gone must not, on every server.
 */
@ApplicationScoped
public class DeclaredNetworks {

    private static final String STATED = "select cast(prefix as text) from network"
            + " union select server from network, unnest(name_servers || time_servers) server"
            + " union select coalesce(value ->> 'address', value ->> 'primary') from thing where sort in ('domain', 'time', 'relay', 'proxy', 'lines')"
            // a webhook that a lead has stated by its address
            + " union select substring(target from '^https://\\[?([0-9a-f.:]+?)\\]?(?::[0-9]+)?(?:/|$)') from notice_target where sort = 'webhook'"
            // a virtualisation host is reached for the lines of what runs on it
            + " union select value ->> 'address' from thing where sort = 'host' and value ->> 'line-ports' is not null";

    /** Thousands of checks ask at every exchange. */
    private static final long FRESH_NANOS = 500_000_000;

    private final Session db;
    private volatile Read read;

    private record Read(List<Prefix> prefixes, long at) {}

    DeclaredNetworks(Session db) {
        this.db = db;
    }

    /** Whether an address may be reached. What was declared a moment ago counts; what is declared no more, half a second longer. */
    public boolean has(Address address) {
        Read now = read;
        if (now != null && System.nanoTime() - now.at < FRESH_NANOS && has(now.prefixes, address)) {
            return true;
        }
        now = new Read(QuarkusTransaction.joiningExisting().call(this::prefixes), System.nanoTime());
        read = now;
        return has(now.prefixes, address);
    }

    private static boolean has(List<Prefix> prefixes, Address address) {
        return prefixes.stream().anyMatch(prefix -> prefix.contains(address));
    }

    private List<Prefix> prefixes() {
        return db.doReturningWork(connection -> {
            try (PreparedStatement statement = connection.prepareStatement(STATED);
                    ResultSet rows = statement.executeQuery()) {
                List<Prefix> stated = new ArrayList<>();
                while (rows.next()) {
                    Optional.ofNullable(rows.getString(1)).flatMap(DeclaredNetworks::prefix).ifPresent(stated::add);
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
        return Address.tryParse(text).map(address -> new Prefix(address, address.family().bits()));
    }
}
