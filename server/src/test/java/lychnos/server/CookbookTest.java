package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.common.http.TestHTTPResource;
import io.quarkus.test.junit.QuarkusTest;
import java.io.IOException;
import java.net.URL;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import lychnos.server.http.Json;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Runs docs/cookbook.md as written: each block of shell, and what it prints against the block below it. */
@QuarkusTest
class CookbookTest extends ProvenMachine {

    private static final Pattern RECIPE = Pattern.compile("```sh\n(.*?)```\n```text\n(.*?)```", Pattern.DOTALL);
    private static final String END = "--- end of recipe ---";

    @TestHTTPResource
    URL server;

    @TempDir
    Path directory;

    private record Recipe(String script, String prints) {

        /** Where three dots stand, anything may. */
        Pattern pattern() {
            return Pattern.compile(List.of(prints.split("\n")).stream()
                            .map(line -> List.of(line.split("…", -1)).stream()
                                    .map(Pattern::quote)
                                    .collect(Collectors.joining(".*")))
                            .collect(Collectors.joining("\n"))
                    + "\n");
        }
    }

    private static List<Recipe> recipes() throws IOException {
        List<Recipe> recipes = new ArrayList<>();
        Matcher found = RECIPE.matcher(Files.readString(Path.of("../docs/cookbook.md")));
        while (found.find()) {
            recipes.add(new Recipe(found.group(1), found.group(2)));
        }
        return recipes;
    }

    /**
     * Programs are written against the description: what they do most has an example there, of things that there are.
     */
    @Test
    void theDescriptionHasExamples() {
        Json described = Client.viewer()
                .request()
                .accept("application/json")
                .get("/q/openapi?format=json")
                .statusCode(200)
                .json();
        Json cell = example(described, "facts", "put.requestBody", "cells[0]");
        assertEquals("BK-40718", cell.getString("value"));
        assertNamesOf(described, "FactCell", cell);
        assertNamesOf(described, "SeenUnit", example(described, "signatures", "post.requestBody", "units[0]"));
        String answers = "paths.'/api/bring-ups/{id}/signatures'.post.responses.'200'.content.";
        assertEquals(
                64,
                described
                        .getString(answers + "'application/json'.example[0].digest")
                        .length());
    }

    /** A part of the example of an operation on a bring-up. */
    private static Json example(Json described, String path, String operation, String part) {
        return described.at("paths.'/api/bring-ups/{id}/" + path + "'." + operation
                + ".content.'application/json'.example." + part);
    }

    private static void assertNamesOf(Json described, String schema, Json example) {
        Map<String, Object> known = described.getMap("components.schemas." + schema + ".properties");
        assertTrue(known.keySet().containsAll(example.getMap("").keySet()), () -> schema + ": " + known);
    }

    @Tag("wording")
    @Test
    void everyRecipeDoesWhatItSays() throws Exception {
        List<Recipe> recipes = recipes();
        assertTrue(recipes.size() >= 9, () -> recipes.size() + " recipes");
        String token = Client.lead()
                .post("/api/tokens", Map.of("name", "cookbook " + net, "role", "lead", "days", 1))
                .statusCode(200)
                .json()
                .getString("token");
        StringBuilder script = new StringBuilder("set -euo pipefail\n");
        recipes.forEach(recipe ->
                script.append(recipe.script).append("echo '").append(END).append("'\n"));
        Path file = Files.writeString(directory.resolve("cookbook.sh"), script);
        ProcessBuilder builder = new ProcessBuilder("bash", file.toString())
                .redirectErrorStream(true)
                .redirectOutput(directory.resolve("printed").toFile());
        builder.environment()
                .putAll(Map.of(
                        "LYCHNOS",
                        server.toString().replaceFirst("/$", ""),
                        "BRING_UP",
                        String.valueOf(id),
                        "LEAD_TOKEN",
                        token));
        int exit = builder.start().waitFor();
        String printed = Files.readString(directory.resolve("printed"));
        assertEquals(0, exit, printed);
        String[] parts = printed.split(Pattern.quote(END + "\n"));
        for (int i = 0; i < recipes.size(); i++) {
            Recipe recipe = recipes.get(i);
            assertTrue(
                    recipe.pattern().matcher(parts[i]).matches(),
                    recipe.script + "printed\n" + parts[i] + "instead of\n" + recipe.prints);
        }
    }
}
