package lychnos.server.api;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import io.quarkus.smallrye.openapi.OpenApiFilter;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Map;
import org.eclipse.microprofile.openapi.OASFactory;
import org.eclipse.microprofile.openapi.OASFilter;
import org.eclipse.microprofile.openapi.models.OpenAPI;
import org.eclipse.microprofile.openapi.models.Operation;
import org.eclipse.microprofile.openapi.models.PathItem;
import org.eclipse.microprofile.openapi.models.media.Content;
import org.eclipse.microprofile.openapi.models.media.MediaType;
import org.eclipse.microprofile.openapi.models.media.Schema;
import org.eclipse.microprofile.openapi.models.responses.APIResponse;

/**
 * Adds to the description of the interface what each operation does ({@code api-summaries.json}) and examples of
 * requests and answers ({@code api-examples.json}). The build fails when an operation has no summary, when one that is
 * sent an object has no example or one with other names, and when a text names an operation that does not exist.
 */
@OpenApiFilter(OpenApiFilter.RunStage.BUILD)
public class ApiDescription implements OASFilter {

    private static final String EXAMPLES = "/api-examples.json";
    private static final String SUMMARIES = "/api-summaries.json";
    private static final String JSON = "application/json";

    @Override
    public void filterOpenAPI(OpenAPI api) {
        read(SUMMARIES).fields().forEachRemaining(entry -> operation(api, SUMMARIES, entry.getKey())
                .setSummary(entry.getValue().asText()));
        read(EXAMPLES).fields().forEachRemaining(entry -> {
            Operation operation = operation(api, EXAMPLES, entry.getKey());
            JsonNode example = entry.getValue();
            if (example.has("request")) {
                put(operation.getRequestBody().getContent(), example.get("request"));
            }
            if (example.has("answer")) {
                answered(operation, example.get("answer"));
            }
        });
        api.getPaths().getPathItems().forEach((path, item) -> item.getOperations()
                .forEach((method, operation) -> {
                    // a sentence of ours; what is made from the name of a method has no full stop
                    if (operation.getSummary() == null
                            || !operation.getSummary().endsWith(".")) {
                        throw new IllegalStateException(SUMMARIES + " says nothing about " + method + " " + path);
                    }
                    requireExample(api, operation, method + " " + path);
                }));
    }

    /** An operation that is sent an object has an example, all of whose names are those of the object. */
    private static void requireExample(OpenAPI api, Operation operation, String name) {
        MediaType json =
                operation.getRequestBody() == null || operation.getRequestBody().getContent() == null
                        ? null
                        : operation.getRequestBody().getContent().getMediaType(JSON);
        if (json == null || json.getSchema() == null || json.getSchema().getRef() == null) {
            return;
        }
        Schema schema =
                api.getComponents().getSchemas().get(json.getSchema().getRef().replaceFirst(".*/", ""));
        if (!(json.getExample() instanceof Map<?, ?> example)) {
            throw new IllegalStateException(EXAMPLES + " has no request for " + name);
        }
        if (schema.getProperties() != null && !schema.getProperties().keySet().containsAll(example.keySet())) {
            throw new IllegalStateException(EXAMPLES + " has other names for " + name + " than "
                    + schema.getProperties().keySet());
        }
    }

    private static Operation operation(OpenAPI api, String file, String name) {
        String[] named = name.split(" ", 2);
        PathItem item = api.getPaths().getPathItem(named[1]);
        Operation operation = item == null ? null : item.getOperations().get(PathItem.HttpMethod.valueOf(named[0]));
        if (operation == null) {
            throw new IllegalStateException(file + " names " + name + ", which does not exist");
        }
        return operation;
    }

    private static void answered(Operation operation, JsonNode answer) {
        APIResponse response = operation.getResponses().getAPIResponses().entrySet().stream()
                .filter(each -> each.getKey().startsWith("2"))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElseGet(() -> {
                    APIResponse made = OASFactory.createAPIResponse().description("OK");
                    operation.getResponses().addAPIResponse("200", made);
                    return made;
                });
        if (response.getContent() == null) {
            response.setContent(OASFactory.createContent());
        }
        put(response.getContent(), answer);
    }

    private static void put(Content content, JsonNode example) {
        MediaType type = content.getMediaType(JSON);
        if (type == null) {
            type = OASFactory.createMediaType();
            content.addMediaType(JSON, type);
        }
        type.setExample(new ObjectMapper().convertValue(example, Object.class));
    }

    private static JsonNode read(String file) {
        try (InputStream in = ApiDescription.class.getResourceAsStream(file)) {
            return new ObjectMapper().readTree(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
