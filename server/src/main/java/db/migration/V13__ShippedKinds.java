package db.migration;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import lychnos.server.kinds.ShippedKinds;
import org.flywaydb.core.api.migration.BaseJavaMigration;
import org.flywaydb.core.api.migration.Context;

/** Publishes the kinds that the program ships as their first versions, and binds every unit to the version it uses. */
public class V13__ShippedKinds extends BaseJavaMigration {

    @Override
    public void migrate(Context context) throws SQLException {
        Connection connection = context.getConnection();
        ShippedKinds.publishNew(connection);
        try (Statement statement = connection.createStatement()) {
            statement.execute("alter table unit add constraint unit_kind_version_fkey foreign key (kind, kind_version)"
                    + " references kind_version");
            statement.execute(
                    "alter table bring_up add constraint bring_up_kind_fkey foreign key (kind) references " + "kind");
        }
    }
}
