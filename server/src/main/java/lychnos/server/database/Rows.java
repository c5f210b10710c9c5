package lychnos.server.database;

import java.sql.PreparedStatement;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.hibernate.Session;

/**
 * Many rows that go to the database in one statement, as one array a column ({@code unnest}). Ten thousand rows are one
 * plan and one round trip, and cost little more than a COPY of the same rows.
 */
public final class Rows<T> {

    private record Column<T>(String type, Function<T, Object> value) {}

    private final List<T> rows;
    private final List<Column<T>> columns = new ArrayList<>();

    private Rows(List<T> rows) {
        this.rows = rows;
    }

    public static <T> Rows<T> of(List<T> rows) {
        return new Rows<>(rows);
    }

    /** @param type the database's; types that Java has no counterpart of are given as text */
    public Rows<T> column(String type, Function<T, Object> value) {
        columns.add(new Column<>(type, value));
        return this;
    }

    /**
     * Runs a statement.
     *
     * @param sql with {@code %s} where the rows are to stand
     * @param more values of question marks behind the rows
     * @return how many rows were written
     */
    public int write(Session db, String sql, Object... more) {
        String arrays = String.join(
                ", ",
                columns.stream()
                        .map(column -> "cast(? as " + column.type + "[])")
                        .toList());
        return db.doReturningWork(connection -> {
            try (PreparedStatement statement = connection.prepareStatement(sql.formatted("unnest(" + arrays + ")"))) {
                int at = 0;
                for (Column<T> column : columns) {
                    Object[] values = rows.stream()
                            .map(column.value)
                            .map(value -> value == null ? null : value.toString())
                            .toArray();
                    statement.setArray(++at, connection.createArrayOf("text", values));
                }
                for (Object value : more) {
                    statement.setObject(++at, value);
                }
                return statement.executeUpdate();
            }
        });
    }
}
