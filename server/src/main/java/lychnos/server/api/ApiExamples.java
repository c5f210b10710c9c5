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
import org.eclipse.microprofile.openapi.models.responses.APIResponse;

/**
 * Puts examples of requests and answers, as they stand in {@code api-examples.json}, into the description of the
 * interface. An example of an operation that there is not fails the build.
 */
@OpenApiFilter(OpenApiFilter.RunStage.BUILD)
public class ApiExamples implements OASFilter {

    private static final String FILE = "/api-examples.json";
    private static final String JSON = "application/json";

    @Override
    public void filterOpenAPI(OpenAPI api) {
        read().fields().forEachRemaining(entry -> {
            String[] named = entry.getKey().split(" ", 2);
            PathItem item = api.getPaths().getPathItem(named[1]);
            Operation operation = item == null ? null : item.getOperations().get(PathItem.HttpMethod.valueOf(named[0]));
            if (operation == null) {
                throw new IllegalStateException(FILE + " has an example of " + entry.getKey() + ", which there is not");
            }
            JsonNode example = entry.getValue();
            operation.setSummary(example.path("summary").asText(operation.getSummary()));
            if (example.has("request")) {
                put(operation.getRequestBody().getContent(), example.get("request"));
            }
            if (example.has("answer")) {
                answered(operation, example.get("answer"));
            }
        });
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

    private static JsonNode read() {
        try (InputStream in = ApiExamples.class.getResourceAsStream(FILE)) {
            return new ObjectMapper().readTree(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
