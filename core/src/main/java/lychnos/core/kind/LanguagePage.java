package lychnos.core.kind;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;

/** The reference of the language of descriptions, in Markdown, from its published form. */
public final class LanguagePage {

    private static final String REF = "#/$defs/";

    /** What a form is called that has no page of its own. */
    private static final Map<String, String> SIMPLE = Map.of(
            "text", "text",
            "texts", "list of texts",
            "word", "word",
            "port", "port number",
            "size", "size, such as 16 GiB",
            "time", "time, such as 90 s or 3 min",
            "yes", "yes or no",
            "pointer", "JSON Pointer",
            "on", "text, or list of texts");

    private final StringBuilder text = new StringBuilder();
    private final Map<String, Map<?, ?>> forms = new LinkedHashMap<>();

    private LanguagePage() {
        Map<?, ?> schema = KindSchema.whole();
        forms.put(KindSchema.ROOT, schema);
        map(schema.get("$defs")).forEach((name, form) -> forms.put(String.valueOf(name), map(form)));
    }

    /** The whole page. */
    public static String reference() {
        LanguagePage page = new LanguagePage();
        page.text
                .append("# The language of descriptions\n\nWritten by `./lychnos record` from the JSON Schema, ")
                .append("[`kinds/kind.schema.json`](../kinds/kind.schema.json).\nHow to write a description is ")
                .append("[explained here](kinds.md). Keys in **bold** are required.\n\n");
        page.forms.forEach(page::form);
        return page.text.toString().stripTrailing() + "\n";
    }

    private void form(String name, Map<?, ?> form) {
        if (!form.containsKey("title")) {
            return;
        }
        text.append("## ")
                .append(title(form))
                .append("\n\n")
                .append(sentence(form))
                .append("\n\n");
        text.append("| key | value | meaning |\n| --- | --- | --- |\n");
        List<?> required = form.get("required") instanceof List<?> list ? list : List.of();
        map(form.get("properties")).forEach((key, value) -> text.append("| ")
                .append(required.contains(key) ? "**" + key + "**" : key)
                .append(" | ")
                .append(cell(value(map(value))))
                .append(" | ")
                .append(cell(meaning(map(value))))
                .append(" |\n"));
        text.append('\n');
    }

    private static String title(Map<?, ?> form) {
        return String.valueOf(form.get("title"));
    }

    private static String sentence(Map<?, ?> form) {
        String said = String.valueOf(form.get("description"));
        return said.substring(0, 1).toUpperCase(Locale.ROOT) + said.substring(1) + ".";
    }

    private static String cell(String text) {
        return text.replace("|", "\\|");
    }

    private String meaning(Map<?, ?> value) {
        if (value.get("description") instanceof String said) {
            return said;
        }
        return value.get("$ref") instanceof String ref
                        && forms.get(ref.replace(REF, "")).get("description") instanceof String said
                ? said
                : "";
    }

    /** What may stand there. */
    private String value(Map<?, ?> value) {
        if (value.get("$ref") instanceof String ref) {
            return named(ref.replace(REF, ""));
        }
        List<String> forms = new ArrayList<>();
        if (value.get("oneOf") instanceof List<?> any) {
            any.forEach(each -> forms.add(value(map(each))));
        } else if (value.get("enum") instanceof List<?> words) {
            forms.add(words.stream().map(each -> "`" + each + "`").collect(Collectors.joining(", ")));
        } else if (value.containsKey("const")) {
            forms.add("`" + value.get("const") + "`");
        } else if ("array".equals(value.get("type"))) {
            forms.add("list of " + value(map(value.get("items"))));
        } else if ("object".equals(value.get("type"))) {
            forms.add(
                    "map of " + (value.get("additionalProperties") instanceof Map<?, ?> each ? value(each) : "values"));
        } else {
            forms.add(
                    String.valueOf(value.get("type")).replaceAll("[\\[\\]]", "").replace("string", "text"));
        }
        return String.join("; ", forms);
    }

    private String named(String name) {
        Map<?, ?> form = forms.get(name);
        if (form.containsKey("title")) {
            return "[" + title(form).toLowerCase(Locale.ROOT) + "](#"
                    + title(form).toLowerCase(Locale.ROOT).replace(' ', '-') + ")";
        }
        return SIMPLE.containsKey(name) ? SIMPLE.get(name) : value(form);
    }

    private static Map<?, ?> map(Object value) {
        if (value instanceof Map<?, ?> map) {
            return map;
        }
        throw new IllegalStateException("the schema has another shape: " + value);
    }
}
