package lychnos.server.database;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import org.flywaydb.core.Flyway;

/** A database of a test's own, on the server that the tests have; empty at first, dropped at the end. */
public final class TestDatabase implements AutoCloseable {

    private static final String USER = "lychnos";
    private static final String PASSWORD = "none";
    private static final String SERVER =
            System.getenv().getOrDefault("LYCHNOS_TEST_DB", "jdbc:postgresql://127.0.0.1:5440/lychnos");

    private final String name;
    private final String url;
    private final Connection connection;

    public TestDatabase(String name) throws SQLException {
        this.name = name;
        url = SERVER.replaceFirst("/[^/]+$", "/" + name);
        at(SERVER, "drop database if exists " + name, "create database " + name);
        connection = DriverManager.getConnection(url, USER, PASSWORD);
    }

    /** @param version up to which it is migrated, or {@code latest} */
    public void migrate(String version) {
        Flyway.configure()
                .dataSource(url, USER, PASSWORD)
                .target(version)
                .load()
                .migrate();
    }

    /** What migrates it. */
    public Flyway flyway() {
        return Flyway.configure().dataSource(url, USER, PASSWORD).load();
    }

    /** One that stays open until the end. */
    public Connection connection() {
        return connection;
    }

    /** Carries statements out on a connection of their own. */
    public void run(String... statements) throws SQLException {
        at(url, statements);
    }

    private static void at(String url, String... statements) throws SQLException {
        try (Connection connection = DriverManager.getConnection(url, USER, PASSWORD);
                Statement statement = connection.createStatement()) {
            for (String each : statements) {
                statement.execute(each);
            }
        }
    }

    /** The first column of what a query gives, row by row, with a comma between. */
    String text(String query) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(query)) {
            StringBuilder all = new StringBuilder();
            for (boolean first = true; rows.next(); first = false) {
                all.append(first ? "" : ", ").append(rows.getString(1));
            }
            return all.toString();
        }
    }

    @Override
    public void close() throws SQLException {
        connection.close();
        at(SERVER, "drop database " + name);
    }
}
