package lychnos.server.kinds;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;

/**
 * The kinds that come with the program. A database that does not know one gets it as its first version; where it knows
 * another text, the shipped one is offered and a person decides.
 */
public final class ShippedKinds {

    private static final Map<String, String> TEXTS = texts();

    private ShippedKinds() {}

    private static Map<String, String> texts() {
        Map<String, String> texts = new LinkedHashMap<>();
        KindReader.shippedIds().forEach(id -> texts.put(id, KindReader.asWritten(id)));
        return texts;
    }

    /** The text of a shipped kind, if there is one of this id. */
    static Optional<String> text(String id) {
        return Optional.ofNullable(TEXTS.get(id));
    }

    /**
     * Publishes every shipped kind that the database does not have yet. Safe beside another server that does the
     * same.
     */
    public static void publishNew(Connection connection) throws SQLException {
        try (PreparedStatement kind =
                        connection.prepareStatement("insert into kind (id) values (?) on conflict do nothing");
                PreparedStatement version = connection.prepareStatement(
                        "insert into kind_version (kind_id, version, text, digest, title, way, shipped) select ?, 1, "
                                + "?, ?, ?, ?, true where not exists (select 1 from kind_version where kind_id = ?) "
                                + "and not exists (select 1 from kind_draft where kind_id = ?) on conflict do "
                                + "nothing")) {
            for (Map.Entry<String, String> shipped : TEXTS.entrySet()) {
                Kind read = KindReader.read(shipped.getValue());
                kind.setString(1, shipped.getKey());
                kind.executeUpdate();
                version.setString(1, shipped.getKey());
                version.setString(2, shipped.getValue());
                version.setString(3, KindVersion.digest(shipped.getValue()));
                version.setString(4, read.title());
                version.setString(5, read.setup().by());
                version.setString(6, shipped.getKey());
                version.setString(7, shipped.getKey());
                version.executeUpdate();
            }
        }
    }
}
