package lychnos.server.database;

import java.io.Serializable;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Types;
import java.util.Objects;
import java.util.function.Function;
import org.hibernate.type.descriptor.WrapperOptions;
import org.hibernate.usertype.UserType;
import org.postgresql.util.PGobject;

/**
 * Maps a value of the core to a PostgreSQL type of its own, through the text that both understand.
 *
 * @param <T> an immutable type whose {@code toString} its parser reads back
 */
abstract class PgText<T> implements UserType<T> {

    private final Class<T> type;
    private final String column;
    private final Function<String, T> parser;

    PgText(Class<T> type, String column, Function<String, T> parser) {
        this.type = type;
        this.column = column;
        this.parser = parser;
    }

    @Override
    public int getSqlType() {
        return Types.OTHER;
    }

    @Override
    public Class<T> returnedClass() {
        return type;
    }

    @Override
    public boolean equals(T a, T b) {
        return Objects.equals(a, b);
    }

    @Override
    public int hashCode(T value) {
        return Objects.hashCode(value);
    }

    @Override
    public T nullSafeGet(ResultSet rows, int position, WrapperOptions options) throws SQLException {
        String text = rows.getString(position);
        return text == null ? null : parser.apply(text);
    }

    @Override
    public void nullSafeSet(PreparedStatement statement, T value, int position, WrapperOptions options)
            throws SQLException {
        if (value == null) {
            statement.setNull(position, Types.OTHER);
        } else {
            PGobject object = new PGobject();
            object.setType(column);
            object.setValue(value.toString());
            statement.setObject(position, object);
        }
    }

    @Override
    public T deepCopy(T value) {
        return value;
    }

    @Override
    public boolean isMutable() {
        return false;
    }

    @Override
    public Serializable disassemble(T value) {
        return value.toString();
    }

    @Override
    public T assemble(Serializable cached, Object owner) {
        return parser.apply((String) cached);
    }
}
