package lychnos.core.kind;

import java.util.Map;
import java.util.Set;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;

/**
 * The published form of a description, {@code kind.schema.json} (JSON Schema, draft 2020-12), as the readers use it: it
 * alone says which keys each map has. JSON is YAML (YAML 1.2, section 1.2), so the same parser reads both.
 */
final class KindSchema {

    /** The name of the form of a whole description. */
    static final String ROOT = "kind";

    private static final Map<?, ?> SCHEMA =
            map(new Load(LoadSettings.builder().build()).loadFromString(KindReader.schema()), "kind.schema.json");

    private KindSchema() {}

    /**
     * The keys of a map.
     *
     * @param form its name under {@code $defs}
     * @throws IllegalArgumentException if the schema has no such form
     */
    static Set<String> keys(String form) {
        Map<?, ?> found = form.equals(ROOT)
                ? SCHEMA
                : map(map(SCHEMA.get("$defs"), "$defs").get(form), form);
        return map(found.get("properties"), form).keySet().stream()
                .map(String::valueOf)
                .collect(java.util.stream.Collectors.toUnmodifiableSet());
    }

    /** The whole schema. */
    static Map<?, ?> whole() {
        return SCHEMA;
    }

    private static Map<?, ?> map(Object value, String name) {
        if (value instanceof Map<?, ?> map) {
            return map;
        }
        throw new IllegalArgumentException("The schema has no form “" + name + "”.");
    }
}
