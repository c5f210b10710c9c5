package lychnos.server.http;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.util.List;
import java.util.Map;

/**
 * An answer in JSON, with its values looked up by {@link Path path}. A value that is not there is null as text, list or
 * map, and an {@link AssertionError} as number or truth value.
 */
public final class Json {

    static final ObjectMapper MAPPER = new ObjectMapper();

    private final Object root;

    private Json(Object root) {
        this.root = root;
    }

    public static Json parse(String text) {
        try {
            return new Json(MAPPER.readValue(text, Object.class));
        } catch (JsonProcessingException e) {
            throw new AssertionError("not JSON: " + text, e);
        }
    }

    /** @return a map, list, text, number, truth value or null */
    @SuppressWarnings("unchecked")
    public <T> T get(String path) {
        return (T) Path.parse(path).in(root);
    }

    /** The part of the answer at a path. */
    public Json at(String path) {
        return new Json(there(path));
    }

    public String getString(String path) {
        Object value = get(path);
        return value == null ? null : value.toString();
    }

    public int getInt(String path) {
        return Math.toIntExact(getLong(path));
    }

    public long getLong(String path) {
        Object value = there(path);
        return value instanceof Number ? ((Number) value).longValue() : Long.parseLong(value.toString());
    }

    public boolean getBoolean(String path) {
        Object value = there(path);
        if (value instanceof Boolean) {
            return (boolean) value;
        }
        throw new AssertionError(path + " is no truth value but " + value);
    }

    public <T> List<T> getList(String path) {
        return get(path);
    }

    public <K, V> Map<K, V> getMap(String path) {
        return get(path);
    }

    private Object there(String path) {
        Object value = get(path);
        if (value == null) {
            throw new AssertionError(path + " is missing in " + prettify());
        }
        return value;
    }

    /** The whole answer, indented, for a failed test to show. */
    public String prettify() {
        try {
            return MAPPER.writer(SerializationFeature.INDENT_OUTPUT).writeValueAsString(root);
        } catch (JsonProcessingException e) {
            throw new AssertionError(e);
        }
    }
}
