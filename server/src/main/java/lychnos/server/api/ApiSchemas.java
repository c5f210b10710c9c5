package lychnos.server.api;

import io.quarkus.smallrye.openapi.OpenApiFilter;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.eclipse.microprofile.openapi.OASFactory;
import org.eclipse.microprofile.openapi.OASFilter;
import org.eclipse.microprofile.openapi.models.OpenAPI;
import org.eclipse.microprofile.openapi.models.media.Content;
import org.eclipse.microprofile.openapi.models.media.Schema;
import org.eclipse.microprofile.openapi.models.responses.APIResponse;
import org.jboss.jandex.ClassInfo;
import org.jboss.jandex.DotName;
import org.jboss.jandex.IndexView;
import org.jspecify.annotations.Nullable;

/**
 * Says of the objects that are answered what is always there. A record always has all of its components; those that may
 * be null are marked {@link Nullable} in Java. The types of the web are made from it. The build fails when two
 * records would share a name, since the description knows no packages.
 */
@OpenApiFilter(OpenApiFilter.RunStage.BUILD)
public class ApiSchemas implements OASFilter {

    private static final DotName NULLABLE = DotName.createSimple(Nullable.class);

    private final Map<String, ClassInfo> records = new HashMap<>();

    public ApiSchemas(IndexView index) {
        for (ClassInfo each : index.getKnownClasses()) {
            if (each.isRecord() && each.name().toString().startsWith("lychnos.")) {
                records.merge(each.simpleName(), each, (one, other) -> one);
            }
        }
    }

    @Override
    public void filterOpenAPI(OpenAPI api) {
        Map<String, Schema> schemas = api.getComponents().getSchemas();
        List<String> twice = schemas.keySet().stream()
                .filter(name -> name.matches(".*[a-z]\\d+"))
                .map(name -> name.replaceFirst("\\d+$", ""))
                .filter(schemas::containsKey)
                .distinct()
                .toList();
        if (!twice.isEmpty()) {
            throw new IllegalStateException("More than one record of the interface is called so: " + twice);
        }
        Set<String> answered = new HashSet<>();
        api.getPaths().getPathItems().values().stream()
                .flatMap(item -> item.getOperations().values().stream())
                .flatMap(operation -> operation.getResponses().getAPIResponses().values().stream())
                .map(APIResponse::getContent)
                .flatMap(ApiSchemas::schemas)
                .forEach(schema -> reach(schema, schemas, answered));
        answered.forEach(name -> complete(name, schemas.get(name)));
    }

    private static Stream<Schema> schemas(@Nullable Content content) {
        return content == null
                ? Stream.empty()
                : content.getMediaTypes().values().stream()
                        .map(type -> type.getSchema())
                        .filter(schema -> schema != null);
    }

    /** Collects the names of all schemas that one leads to. */
    private static void reach(@Nullable Schema schema, Map<String, Schema> all, Set<String> reached) {
        if (schema == null) {
            return;
        }
        if (schema.getRef() != null) {
            String name = schema.getRef().replaceFirst(".*/", "");
            if (reached.add(name)) {
                reach(all.get(name), all, reached);
            }
            return;
        }
        reach(schema.getItems(), all, reached);
        reach(schema.getAdditionalPropertiesSchema(), all, reached);
        if (schema.getProperties() != null) {
            schema.getProperties().values().forEach(each -> reach(each, all, reached));
        }
    }

    private void complete(String name, Schema schema) {
        ClassInfo type = records.get(name);
        if (type == null || schema.getProperties() == null) {
            return;
        }
        Map<String, Schema> properties = new HashMap<>(schema.getProperties());
        properties.forEach((property, value) -> {
            schema.addRequired(property);
            if (type.recordComponent(property) != null
                    && type.recordComponent(property).type().hasAnnotation(NULLABLE)) {
                schema.addProperty(property, orNull(value));
            }
        });
    }

    private static Schema orNull(Schema schema) {
        Schema nothing = OASFactory.createSchema().addType(Schema.SchemaType.NULL);
        return schema.getRef() != null
                ? OASFactory.createSchema().anyOf(List.of(schema, nothing))
                : schema.addType(Schema.SchemaType.NULL);
    }
}
