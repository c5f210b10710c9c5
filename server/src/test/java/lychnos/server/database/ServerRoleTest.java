package lychnos.server.database;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What the role that the server runs with may do to its database. */
class ServerRoleTest {

    private static final String ROLE = "lychnos_role_of_test";
    private static final String PERMISSION_DENIED = "42501";

    @Test
    void changesNothingThatWasSignedOrWrittenDownAlsoNotThroughAView() throws SQLException {
        try (TestDatabase database = new TestDatabase("server_role")) {
            database.migrate("latest");
            try (Statement statement = database.connection().createStatement()) {
                statement.execute("do $$ begin create role " + ROLE
                        + " nologin; exception when duplicate_object then null; end $$");
                MigrateMain.grant(statement, ROLE);
                statement.execute("set role " + ROLE);
                for (String read : List.of("record", "signed_unit", "chained_record", "unit_run", "unit_label")) {
                    statement.execute("select count(*) from " + read);
                }
                for (String harm : List.of(
                        "update journal set act = ''",
                        "delete from record",
                        "delete from signed_unit",
                        "update chained_record set body = '{}'",
                        "delete from chained_pack",
                        "update chained_pack set manifest = '{}'",
                        "update unit_run set state = 'DONE'",
                        "insert into checked_address (claim_id) values (1)",
                        "delete from flyway_schema_history")) {
                    SQLException refused = assertThrows(SQLException.class, () -> statement.execute(harm), harm);
                    assertEquals(PERMISSION_DENIED, refused.getSQLState(), () -> harm + ": " + refused.getMessage());
                }
                statement.execute("reset role");
                statement.execute("drop owned by " + ROLE);
                statement.execute("drop role " + ROLE);
            }
        }
    }
}
