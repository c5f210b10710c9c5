package lychnos.core.site;

import java.util.Map;
import java.util.Optional;
import lychnos.core.fact.DataSize;

/**
 * One thing that a site has.
 *
 * @param name by which units refer to it
 * @param values by the names of its sort's fields
 */
public record SiteResource(SiteResourceSort sort, String name, Map<String, String> values) {

    public SiteResource {
        values = Map.copyOf(values);
    }

    public Optional<String> value(String field) {
        return Optional.ofNullable(values.get(field));
    }

    public Optional<DataSize> size(String field) {
        return value(field).map(DataSize::parse);
    }

    public int number(String field, int otherwise) {
        return value(field).map(Integer::parseInt).orElse(otherwise);
    }
}
