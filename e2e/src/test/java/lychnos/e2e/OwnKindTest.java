package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** A kind of the site's own: added in the browser on a running server, used at once, and changed while it is in use. */
class OwnKindTest {

    private static final Duration LONG = Duration.ofSeconds(240);
    private static final String KIND = "power-meter-gateway";

    private Stage stage;
    private Screen screen;
    private Api engineer;

    private JsonNode ask(String server, String method, String path, Object body)
            throws IOException, InterruptedException {
        return engineer.ask(server, method, path, body == null ? null : Api.JSON.valueToTree(body));
    }

    private JsonNode ask(String method, String path, Object body) throws IOException, InterruptedException {
        return ask(stage.url(), method, path, body);
    }

    @Test
    void aKindFromTheShortFormIsUsedWithoutARestart() throws Exception {
        try (Stage opened = Stage.ofOwnPages("PM-1 02:4c:59:d5:00:01 10.40.16.240 -\n");
                Screen window = new Screen(1280, 800, ColorScheme.LIGHT)) {
            stage = opened;
            screen = window;
            engineer = new Api(stage.url());
            screen.signIn(stage.url(), "hall-lead", "lead-of-the-hall");
            addByForm();
            publish();
            prepare();
            long first = announce(stage.url());
            place(first, "R1 u4", "PM-1");
            byHand(first);
            prove(first);
            handOver();
            anotherVersion(first);
            assertEquals(List.of(), screen.complaints());
        }
    }

    private Locator labelled(String start) {
        return screen.page.getByLabel(Pattern.compile("^" + start));
    }

    private void addByForm() throws IOException {
        screen.page
                .getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Kinds"))
                .click();
        assertThat(screen.text("Hypervisor host")).isVisible();
        assertEquals(List.of(), screen.axe(), "the list of kinds");
        screen.button("Add kind", true).click();
        labelled("Name").fill("Hypervisor host");
        assertThat(labelled("Short name in host names")).hasValue("hh");
        labelled("Factory user").fill("owner");
        labelled("Factory password").fill("owner");
        screen.button("Save as draft").click();
        assertThat(screen.text("There is a kind “hypervisor-host” already")).isVisible();
        labelled("Name").fill("Power meter gateway");
        assertThat(labelled("Short name in host names")).hasValue("pmg");
        assertEquals(List.of(), screen.axe(), "the form with a fault");
        screen.button("Save as draft").click();
        assertThat(screen.text("This is a draft")).isVisible();
    }

    private void publish() throws IOException {
        screen.button("Publish version 1").click();
        labelled("What is new").fill("as delivered");
        screen.page
                .getByRole(AriaRole.DIALOG)
                .getByText("Publish version 1")
                .last()
                .click();
        assertThat(screen.text("version 1").first()).isVisible();
        assertThat(screen.text("This is a draft")).isHidden();
        assertEquals(List.of(), screen.axe(), "a kind to read");
    }

    private void prepare() throws IOException, InterruptedException {
        ask(
                "POST",
                "/api/bring-ups",
                Map.of("name", "Meters", "siteCode", "own", "siteName", "Ardal", "positions", List.of()));
        ask(
                "PUT",
                "/api/bring-ups/1/network",
                Map.of(
                        "name",
                        "Management",
                        "prefix",
                        "10.40.16.0/24",
                        "gateway",
                        "10.40.16.1",
                        "domain",
                        "ardal.example",
                        "nameServers",
                        List.of("10.40.8.3", "10.40.8.4"),
                        "timeServers",
                        List.of("10.40.8.6", "10.40.8.7", "10.40.8.8"),
                        "ranges",
                        List.of(Map.of("purpose", "pool", "run", ".250-.251", "note", ""))));
    }

    private long announce(String server) throws IOException, InterruptedException {
        return ask(server, "POST", "/api/bring-ups/1/units", Map.of("kind", KIND, "count", 1, "members", 0))
                .path(0)
                .asLong();
    }

    private void place(long unit, String position, String serial) throws IOException, InterruptedException {
        JsonNode report = ask(
                "PUT",
                "/api/bring-ups/1/facts",
                Map.of(
                        "cells",
                        List.of(
                                Map.of("unitId", unit, "member", "", "name", "serial", "value", serial),
                                Map.of("unitId", unit, "member", "", "name", "location", "value", position))));
        assertEquals(0, report.path("faults").size(), report::toString);
        JsonNode fit = ask("GET", "/api/bring-ups/1/fits?unit=" + unit, null)
                .path("fits")
                .path(0);
        ask("POST", "/api/bring-ups/1/allocations", Map.of("lines", fit.path("lines"), "growth", fit.path("growth")));
    }

    /** The value sheet says what to enter where; the engineer ticks what is done. */
    private void byHand(long unit) throws Exception {
        screen.page.navigate(stage.url() + "/b/1/configure?unit=" + unit);
        screen.button("Start, ask me each time").click();
        assertThat(screen.text("10.40.16.250").first()).isVisible();
        assertThat(screen.text("255.255.255.0").first()).isVisible();
        typeIntoTheMachine();
        Locator read = screen.page.getByLabel("Serial number or MAC address");
        read.fill("PM-2");
        screen.button("Compare with the label").click();
        assertThat(screen.text("You read “PM-2”, and the label list has PM-1")).isVisible();
        assertEquals(List.of(), screen.axe(), "the value sheet with a fault");
        read.fill("PM-1");
        screen.button("Compare with the label").click();
        assertThat(screen.text("hall-lead read PM-1 on the machine")).isVisible();
        Stage.until("every page is ticked", LONG, () -> {
            Locator tick = screen.page.locator("ol input[type=checkbox]:not(:checked)");
            if (tick.count() > 0) {
                tick.first().click();
            }
            return state(unit).equals("DONE");
        });
    }

    /** What the engineer does at the machine: its form as delivered takes the address of the value sheet. */
    private static void typeIntoTheMachine() throws IOException, InterruptedException {
        HttpResponse<String> taken = HttpClient.newBuilder()
                .version(HttpClient.Version.HTTP_1_1)
                .build()
                .send(
                        HttpRequest.newBuilder(URI.create("http://10.40.16.240/"))
                                .header("Content-Type", "application/x-www-form-urlencoded")
                                .POST(HttpRequest.BodyPublishers.ofString(
                                        "address=10.40.16.250&password=peat-and-heather"))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertTrue(taken.body().contains("Stored"), taken.body());
    }

    private void prove(long unit) throws IOException {
        screen.page.navigate(stage.url() + "/b/1/prove");
        screen.page.locator("tr[id^=endpoint-]").first().click();
        screen.page.keyboard().press("x");
        assertThat(screen.text("hall-lead read PM-1 on the machine").first()).isVisible();
        assertThat(screen.page.getByRole(AriaRole.NAVIGATION)).containsText("1 proven");
        screen.page.navigate(stage.url() + "/b/1");
        assertThat(screen.text("not measured: as planned, safe")).isVisible();
        assertEquals(List.of(), screen.axe(), "the Board");
    }

    private void handOver() {
        screen.page.navigate(stage.url() + "/b/1/handover");
        screen.button("Sign 1 unit").click();
        screen.page
                .getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Sign 1 unit"))
                .click();
        assertThat(screen.page.getByRole(AriaRole.NAVIGATION)).containsText("1 signed");
    }

    private String state(long unit) {
        try {
            return ask("GET", "/api/units/" + unit + "/bench", null)
                    .path("runState")
                    .asText();
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    /** A new version, published at one server, is used by the other; the unit that is done keeps its own. */
    private void anotherVersion(long first) throws Exception {
        String other = stage.startSecondServer();
        long before = announce(other);
        screen.page.navigate(stage.url() + "/kinds/" + KIND + "?tab=text");
        screen.button("Edit as draft").click();
        Locator text = screen.page.locator("#kind-text");
        String published = (String) screen.page.evaluate(
                "path => fetch(path).then((answer) => answer.text())", "/api/catalogue/" + KIND + "/versions/1");
        String changed =
                published.replace("  location:", "  feed: { of: unit, is: text, find: the rack }\n  location:");
        text.fill(changed.replace("is: rack-position", "is: rack"));
        assertThat(screen.text("1 fault")).isVisible();
        screen.page.getByText("line 8, column").click();
        assertThat(text).isFocused();
        text.fill(changed);
        assertThat(screen.text("No faults found.")).isVisible();
        assertEquals(List.of(), screen.axe(), "the text of a kind");
        screen.button("Save draft").click();
        screen.button("Publish version 2").click();
        screen.page
                .getByRole(AriaRole.DIALOG)
                .getByText("Publish version 2")
                .last()
                .click();
        assertThat(screen.text("version 2").first()).isVisible();

        Stage.until("the other server uses it", LONG, () -> versionOf(other, announced(other)) == 2);
        assertEquals(1, versionOf(other, first), "what is done stays as it was");
        assertEquals(1, versionOf(other, before));

        screen.page.navigate(stage.url() + "/kinds/" + KIND + "?tab=history");
        screen.button("Move to version 2").click();
        assertThat(screen.page.getByRole(AriaRole.DIALOG).getByText("feed")).isVisible();
        screen.page.getByRole(AriaRole.DIALOG).locator("button[type=submit]").click();
        assertThat(screen.text("Not moved")).isVisible();
        // a view may be a moment late for those who did not change anything
        Stage.until("the one that nothing was done with has moved", LONG, () -> versionOf(other, before) == 2);
        assertEquals(1, versionOf(other, first), "a signed unit stays as it is");
    }

    private long announced(String server) {
        try {
            return announce(server);
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    /** Asked of the server that announced the unit: what another one shows may be a moment late. */
    private int versionOf(String server, long unit) {
        try {
            for (JsonNode each :
                    ask(server, "GET", "/api/bring-ups/1/prepare", null).path("units")) {
                if (each.path("id").asLong() == unit) {
                    return each.path("kindVersion").asInt();
                }
            }
            throw new AssertionError("unit " + unit + " is not there");
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }
}
