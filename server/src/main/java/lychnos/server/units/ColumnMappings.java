package lychnos.server.units;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import lychnos.core.fact.LabelList.Column;
import lychnos.core.record.CanonicalJson;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;

/**
 * What people have said of the columns of their lists: the next list with the same headings is read the same way. What
 * a column holds is a word, such as {@code serial} or the name of a fact.
 */
@ApplicationScoped
public class ColumnMappings {

    private static final int MOST_COLUMNS = 200;
    private static final TypeReference<Map<Integer, String>> WORDS = new TypeReference<>() {};

    private final Session db;
    private final ObjectMapper json;

    ColumnMappings(Session db, ObjectMapper json) {
        this.db = db;
        this.json = json;
    }

    /** Which list: the same headings may mean different things in each. */
    enum Sort {
        LABELS,
        FACTS
    }

    /**
     * A column of a list.
     *
     * @param heading as it stands in the list, or empty
     * @param sample the first value in it; empty for a password
     * @param meaning what is read from it, such as {@code serial}; empty where it is left out
     */
    public record ColumnView(int index, String heading, String sample, String meaning) {}

    static List<ColumnView> views(List<String> headings, List<String> samples, Map<Integer, String> meaning) {
        List<ColumnView> all = new ArrayList<>();
        for (int i = 0; i < headings.size(); i++) {
            all.add(new ColumnView(i, headings.get(i), samples.get(i), meaning.getOrDefault(i, "")));
        }
        return all;
    }

    /** The word for what a column of labels holds, such as {@code rack-unit}. */
    static String word(Column column) {
        return column.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    static Map<Integer, String> words(Map<Integer, Column> columns) {
        Map<Integer, String> words = new HashMap<>();
        columns.forEach((index, column) -> words.put(index, word(column)));
        return words;
    }

    /** The columns of labels that these words name; what names none is left out. */
    public static Map<Integer, Column> columns(Map<Integer, String> words) {
        Map<Integer, Column> columns = new HashMap<>();
        words.forEach((index, word) -> Stream.of(Column.values())
                .filter(column -> word(column).equals(word))
                .findFirst()
                .ifPresent(column -> columns.put(index, column)));
        return columns;
    }

    /** Every word for a column of labels. */
    public static List<String> labelWords() {
        return Stream.of(Column.values()).map(ColumnMappings::word).toList();
    }

    /**
     * Reads what a request says of the columns: {@code 0:serial,3:mac}.
     *
     * @param possible the words that mean something
     * @throws Refusal where that is nothing that can be read, or one thing is to be read from two columns
     */
    public static Map<Integer, String> parse(String columns, List<String> possible) {
        Map<Integer, String> chosen = new HashMap<>();
        if (columns == null || columns.isBlank()) {
            return chosen;
        }
        for (String each : columns.split(",")) {
            String[] parts = each.strip().split(":");
            if (parts.length != 2
                    || !possible.contains(parts[1])
                    || !parts[0].matches("[0-9]{1,3}")
                    || Integer.parseInt(parts[0]) >= MOST_COLUMNS) {
                throw Refusal.bad(
                        PrepareText.IS_NOT_A_COLUMN_MAPPING_SUCH_AS_0_SERIAL.said(each, String.join(", ", possible)));
            }
            if (chosen.containsValue(parts[1])) {
                throw Refusal.bad(PrepareText.TWO_COLUMNS_ARE_CHOSEN.said(parts[1]));
            }
            chosen.put(Integer.valueOf(parts[0]), parts[1]);
        }
        return chosen;
    }

    /** What was chosen for a list with the same headings; empty where nothing was, or the list has no headings. */
    Map<Integer, String> of(Sort sort, int headingLine, List<String> headings) {
        return headingLine < 0
                ? Map.of()
                : Optional.ofNullable(db.createNativeQuery(
                                        "select cast(columns as text) from label_mapping where headings = :headings",
                                        String.class)
                                .setParameter("headings", digest(sort, headings))
                                .getSingleResultOrNull())
                        .map(this::words)
                        .orElse(Map.of());
    }

    void remember(Sort sort, int headingLine, List<String> headings, Map<Integer, String> meaning, Who.Person person) {
        if (headingLine < 0) {
            return;
        }
        db.createNativeMutationQuery(
                        "insert into label_mapping (headings, columns, chosen_by) values (:headings, cast(:columns as "
                                + "jsonb), :by) on conflict (headings) do update set columns = excluded.columns, "
                                + "chosen_by = excluded.chosen_by, chosen_at = now()")
                .setParameter("headings", digest(sort, headings))
                .setParameter("columns", text(new TreeMap<>(meaning)))
                .setParameter("by", person.id())
                .executeUpdate();
    }

    private static String digest(Sort sort, List<String> headings) {
        return CanonicalJson.digest(
                sort == Sort.LABELS ? List.copyOf(headings) : List.of(sort.name(), List.copyOf(headings)));
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
