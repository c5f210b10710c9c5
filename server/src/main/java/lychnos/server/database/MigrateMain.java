package lychnos.server.database;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.flywaydb.core.Flyway;

/**
 * Brings the database up to this version as its owner, and lets the server's role read and write what it must and
 * nothing more: that role owns nothing, so that it can neither drop a trigger nor change what stands in the journal, in
 * records or in the chain.
 *
 * <p>From the environment: {@code QUARKUS_DATASOURCE_JDBC_URL}, {@code LYCHNOS_DB_OWNER}, {@code
 * LYCHNOS_DB_OWNER_PASSWORD}, and in {@code QUARKUS_DATASOURCE_USERNAME} the server's role.
 */
public final class MigrateMain {

    /** What is added to and never changed. */
    private static final String FROZEN = "journal, chain_link, pack, proof_change, kind_version";

    private MigrateMain() {}

    public static void main(String[] args) throws SQLException {
        String url = needed("QUARKUS_DATASOURCE_JDBC_URL");
        String owner = needed("LYCHNOS_DB_OWNER");
        String password = needed("LYCHNOS_DB_OWNER_PASSWORD");
        String role = needed("QUARKUS_DATASOURCE_USERNAME");
        if (!role.matches("[a-z_][a-z0-9_]{0,62}") || role.equals(owner)) {
            System.err.println("QUARKUS_DATASOURCE_USERNAME must name the server's own role, and not the owner's.");
            System.exit(2);
        }
        int done = Flyway.configure().dataSource(url, owner, password).load().migrate().migrationsExecuted;
        try (Connection connection = DriverManager.getConnection(url, owner, password);
                Statement statement = connection.createStatement()) {
            grant(statement, role);
            refuseTooMuch(statement, role);
        }
        System.out.println(
                done == 0
                        ? "The database is of this version."
                        : "The database was brought up to this version (" + done
                                + (done == 1 ? " step)." : " steps)."));
    }

    private static String needed(String name) {
        String value = System.getenv(name);
        if (value == null || value.isBlank()) {
            System.err.println(name + " is not set.");
            System.exit(2);
        }
        return value;
    }

    /** Lets the server's role do what it needs, and nothing that would change what was signed or written down. */
    static void grant(Statement statement, String role) throws SQLException {
        statement.execute("grant usage on schema public to " + role);
        statement.execute("grant select, insert, update, delete on all tables in schema public to " + role);
        statement.execute("grant usage, select on all sequences in schema public to " + role);
        statement.execute("revoke update, delete on " + FROZEN + " from " + role);
        statement.execute("revoke delete on record from " + role);
        statement.execute("revoke insert, update, delete on flyway_schema_history from " + role);
        // a simple view can be written to, with the rights of its owner: that would pass by what is revoked above
        for (String view : views(statement)) {
            statement.execute("revoke insert, update, delete on " + view + " from " + role);
        }
    }

    private static List<String> views(Statement statement) throws SQLException {
        List<String> views = new ArrayList<>();
        try (ResultSet found =
                statement.executeQuery("select quote_ident(viewname) from pg_views where schemaname = 'public'")) {
            while (found.next()) {
                views.add(found.getString(1));
            }
        }
        return views;
    }

    private static void refuseTooMuch(Statement statement, String role) throws SQLException {
        try (ResultSet found = statement.executeQuery(
                "select rolsuper or pg_has_role(rolname, 'pg_write_all_data', 'member') as too_much from pg_roles "
                        + "where rolname = '"
                        + role + "'")) {
            if (!found.next() || found.getBoolean(1)) {
                System.err.println("The role " + role
                        + " is a superuser or may write everything. docs/operations.md says how to make one "
                        + "that may not.");
                System.exit(1);
            }
        }
    }
}
