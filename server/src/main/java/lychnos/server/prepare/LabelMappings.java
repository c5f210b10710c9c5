package lychnos.server.prepare;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import lychnos.core.fact.LabelColumns;
import lychnos.core.fact.LabelList.Column;
import lychnos.core.record.CanonicalJson;
import lychnos.server.caller.Who;
import lychnos.server.problem.Refusal;
import org.hibernate.Session;

/**
 * What people have said of the columns of their label lists: the next list with the same headings is read the same
 * way.
 */
@ApplicationScoped
class LabelMappings {

    private static final int MOST_COLUMNS = 200;
    private static final TypeReference<Map<Integer, String>> WORDS = new TypeReference<>() {};

    private final Session db;
    private final ObjectMapper json;

    LabelMappings(Session db, ObjectMapper json) {
        this.db = db;
        this.json = json;
    }

    /** The word for what a column holds, such as {@code rack-unit}. */
    static String word(Column column) {
        return column.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /**
     * Reads what a request says of the columns: {@code 0:serial,3:mac}.
     *
     * @throws Refusal where that is nothing that can be read, or one thing is to be read from two columns
     */
    static Map<Integer, Column> parse(String columns) {
        Map<Integer, Column> chosen = new HashMap<>();
        if (columns == null || columns.isBlank()) {
            return chosen;
        }
        for (String each : columns.split(",")) {
            String[] parts = each.strip().split(":");
            Optional<Column> column = parts.length == 2 ? of(parts[1]) : Optional.empty();
            if (column.isEmpty() || !parts[0].matches("[0-9]{1,3}") || Integer.parseInt(parts[0]) >= MOST_COLUMNS) {
                throw Refusal.bad("“" + each + "” says nothing of a column; 0:serial does. Possible are "
                        + String.join(
                                ", ",
                                Stream.of(Column.values())
                                        .map(LabelMappings::word)
                                        .toList()) + ".");
            }
            if (chosen.containsValue(column.get())) {
                throw Refusal.bad(
                        "Two columns are chosen for the " + column.get().title() + ". Choose one.");
            }
            chosen.put(Integer.valueOf(parts[0]), column.get());
        }
        return chosen;
    }

    private static Optional<Column> of(String word) {
        return Stream.of(Column.values())
                .filter(column -> word(column).equals(word))
                .findFirst();
    }

    /** What was chosen for a list with the same headings; empty where nothing was, or the list has no headings. */
    Map<Integer, Column> of(LabelColumns columns) {
        Map<Integer, Column> chosen = new HashMap<>();
        if (columns.headingLine() < 0) {
            return chosen;
        }
        db.createNativeQuery("select cast(columns as text) from label_mapping where headings = :headings", String.class)
                .setParameter("headings", digest(columns))
                .getResultStream()
                .findFirst()
                .ifPresent(text ->
                        words(text).forEach((index, word) -> of(word).ifPresent(column -> chosen.put(index, column))));
        return chosen;
    }

    void remember(LabelColumns columns, Who.Person person) {
        if (columns.headingLine() < 0) {
            return;
        }
        Map<Integer, String> words = new TreeMap<>();
        columns.meaning().forEach((index, column) -> words.put(index, word(column)));
        db.createNativeMutationQuery(
                        "insert into label_mapping (headings, columns, chosen_by) values (:headings, cast(:columns as "
                                + "jsonb), :by) on conflict (headings) do update set columns = excluded.columns, "
                                + "chosen_by = excluded.chosen_by, chosen_at = now()")
                .setParameter("headings", digest(columns))
                .setParameter("columns", text(words))
                .setParameter("by", person.id())
                .executeUpdate();
    }

    private static String digest(LabelColumns columns) {
        return CanonicalJson.digest(List.copyOf(columns.headings()));
    }

    private Map<Integer, String> words(String text) {
        try {
            return json.readValue(text, WORDS);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("the columns of a list cannot be read back", e);
        }
    }

    private String text(Map<Integer, String> words) {
        try {
            return json.writeValueAsString(words);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("the columns of a list can be written", e);
        }
    }
}
