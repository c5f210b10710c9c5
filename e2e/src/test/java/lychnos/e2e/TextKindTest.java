package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/**
 * A kind with a console dialogue that is pasted as a text in the browser: its units are set up at once, and a unit that
 * is under way when another version is published ends as it began.
 */
class TextKindTest {

    private static final Duration LONG = Duration.ofSeconds(240);
    private static final String KIND = "screen-of-our-own";
    private static final String HALL = "ullock TU-1 02:4c:59:e8:01:01 6105 srh 1 - -\n";

    private Stage stage;
    private Screen screen;
    private Api lead;

    private JsonNode ask(String method, String path, Object body) {
        try {
            return lead.ask(stage.url(), method, path, body == null ? null : Api.JSON.valueToTree(body));
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    @Test
    void aPastedKindIsUsedAtOnceAndAUnitEndsAsItBegan() throws Exception {
        String text = Files.readString(Path.of("../kinds/server-controller-by-hand.yaml"))
                .replaceFirst("kind: server-controller-by-hand", "kind: " + KIND);
        try (Stage opened = Stage.ofConsoles(HALL, 400);
                Screen window = new Screen(1280, 800, ColorScheme.LIGHT)) {
            stage = opened;
            screen = window;
            lead = new Api(stage.url(), "hall-lead", "lead-of-the-hall");
            screen.signIn(stage.url(), "hall-lead", "lead-of-the-hall");
            paste(text);
            publish(1);
            long unit = prepare();
            ask("POST", "/api/units/" + unit + "/console", Map.of("mode", "run"));
            Stage.until("it asks before it restarts", LONG, () -> hold(unit).equals("RESTARTS"));
            change(text.replaceFirst(
                    "  setup: *(#[^\n]*)?\n",
                    "  setup:\n    - { row: Colour, asked: Colour, answer: red, title: never asked }\n"));
            publish(2);

            screen.page.navigate(stage.url() + "/b/1/configure?unit=" + unit);
            screen.button("Continue and let it restart").click();
            Stage.until(
                    "it is set up",
                    LONG,
                    () -> bench(unit).path("runState").asText().equals("DONE"));
            assertTrue(stage.kept("TU-1", "controller.Address").startsWith("10.40.16."));
            assertEquals(1, version(unit), "it ends with the version that it began with");
            assertEquals(2, version(announce()));
            dryRun();
            assertEquals(List.of(), screen.complaints());
        }
    }

    private void paste(String text) {
        screen.page.navigate(stage.url() + "/kinds/new");
        screen.text("Paste a description instead").click();
        screen.page.getByLabel("Description (YAML)").fill(text);
        screen.button("Save as draft").click();
        assertThat(screen.text("No faults found.")).isVisible();
    }

    private void change(String text) {
        screen.page.navigate(stage.url() + "/kinds/" + KIND + "?tab=text");
        screen.button("Edit as draft").click();
        screen.page.locator("#kind-text").fill(text);
        assertThat(screen.text("No faults found.")).isVisible();
        screen.button("Save draft").click();
    }

    /** What was recorded does not ask what the newest version wants. */
    private void dryRun() throws IOException {
        screen.page.navigate(stage.url() + "/kinds/" + KIND + "?tab=try");
        screen.page.locator(".choose button").first().click();
        assertThat(screen.page.locator(".result")).containsText("difference");
        assertThat(screen.text("never asked").first()).isVisible();
        assertEquals(List.of(), screen.axe(), "a dry run");
    }

    private void publish(int version) {
        screen.button("Publish version " + version).click();
        screen.page
                .getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Publish version " + version))
                .click();
        assertThat(screen.text("Version " + version + " is published")).isVisible();
    }

    private long prepare() throws IOException, InterruptedException {
        new Bench(stage.url()).ground(".252-.254");
        ask(
                "PUT",
                "/api/bring-ups/1/site-resources",
                Map.of(
                        "sort",
                        "lines",
                        "name",
                        "lines-1",
                        "values",
                        Map.of("address", Stage.LINES, "protocol", "rfc2217", "ports", "6101-6199")));
        long unit = announce();
        JsonNode facts = ask(
                "PUT",
                "/api/bring-ups/1/facts",
                Map.of(
                        "cells",
                        List.of(
                                fact(unit, "serial", "TU-1"),
                                fact(unit, "mac", "02:4c:59:e8:01:01"),
                                fact(unit, "location", "R1 u20"),
                                fact(unit, "console", "6105"))));
        assertEquals(0, facts.path("faults").size(), facts::toString);
        JsonNode fit = ask("GET", "/api/bring-ups/1/fits?unit=" + unit, null)
                .path("fits")
                .path(0);
        ask("POST", "/api/bring-ups/1/allocations", Map.of("lines", fit.path("lines"), "growth", fit.path("growth")));
        return unit;
    }

    private static Map<String, Object> fact(long unit, String name, String value) {
        return Map.of("unitId", unit, "member", "", "name", name, "value", value);
    }

    private long announce() {
        return ask("POST", "/api/bring-ups/1/units", Map.of("kind", KIND, "count", 1, "members", 0))
                .path(0)
                .asLong();
    }

    private JsonNode bench(long unit) {
        return ask("GET", "/api/units/" + unit + "/bench", null);
    }

    private String hold(long unit) {
        return bench(unit).path("members").path(0).path("hold").path("why").asText();
    }

    private int version(long unit) {
        for (JsonNode each : ask("GET", "/api/bring-ups/1/prepare", null).path("units")) {
            if (each.path("id").asLong() == unit) {
                return each.path("kindVersion").asInt();
            }
        }
        throw new AssertionError("unit " + unit + " is not there");
    }
}
