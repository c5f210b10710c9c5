package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/**
 * A machine that is not described yet is set up at the bench by a person, who makes a typing error, gives one answer
 * that is refused and loads the page again; what Lychnos learns from it sets up the next machine.
 */
class SetUpByHandTest {

    private static final Duration LONG = Duration.ofSeconds(240);
    private static final String KIND = "gateway-of-ours";
    private static final String HALL =
            """
            brathay WS-1 02:4c:59:e9:01:01 6101 gwo 1 - -
            brathay WS-2 02:4c:59:e9:01:02 6102 gwo 2 - -
            """;

    /** A password that no plan knows, as a person makes it up at the rack. */
    private static final String OWN = "Vd8pXw3nTk";

    private static final String TEXT =
            """
            kind: gateway-of-ours
            title: Gateway of ours
            short: gwo
            about: A gateway of the compute fabric that is not described yet.
            facts:
              serial: { of: member, is: serial, find: left side of the chassis }
              mac: { of: member, is: mac-address, find: same label }
              console: { of: member, is: console-line, title: console line, find: port of the console server }
              steward-password: { of: unit, is: secret, title: steward password, made: yes }
            addresses:
              - { run: [ management ], in: management }
            names: { unit: "{site}-{kind}-{n}" }
            setup: { by: console }
            factory: { way: console, user: steward, phrase: tarnbeck }
            checks: { port: 443 }
            waits: { restart: { about: 2 min, at-most: 8 min } }
            """;

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
    void whatAPersonDoesOnceIsDoneForTheNextMachine() throws Exception {
        try (Stage opened = Stage.ofConsoles(HALL, 400);
                Screen window = new Screen(1280, 800, ColorScheme.LIGHT)) {
            stage = opened;
            screen = window;
            lead = new Api(stage.url(), "hall-lead", "lead-of-the-hall");
            screen.signIn(stage.url(), "hall-lead", "lead-of-the-hall");
            new Bench(stage.url()).ground(".100-.107");
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
            describe();
            long first = unit("WS-1", "02:4c:59:e9:01:01", "6101");
            byHand(first);
            assertTrue(stage.kept("WS-1", "address").startsWith("10.40.16."), stage.kept("WS-1", "address"));
            assertEquals("5", stage.kept("WS-1", "priority"));
            nothingTypedIsLeft();
            learn();
            long second = unit("WS-2", "02:4c:59:e9:01:02", "6102");
            unattended(second);
            assertEquals("5", stage.kept("WS-2", "priority"));
            assertTrue(stage.kept("WS-2", "address").startsWith("10.40.16."), stage.kept("WS-2", "address"));
            assertEquals("", stage.kept("WS-2", "seen.refusedLogins"));
            assertEquals(List.of(), screen.complaints());
        }
    }

    /** In the editor, with nothing of its console. */
    private void describe() {
        screen.page.navigate(stage.url() + "/kinds?add=text");
        screen.page.getByRole(AriaRole.DIALOG).getByRole(AriaRole.TEXTBOX).fill("kind: " + KIND + "\n");
        screen.page.getByRole(AriaRole.DIALOG).locator("button[type=submit]").click();
        screen.page.locator("#kind-text").fill(TEXT);
        assertThat(screen.text("No faults found.")).isVisible();
        screen.button("Save draft").click();
        assertThat(screen.text("Draft saved.")).isVisible();
        publish(1);
    }

    private void publish(int version) {
        screen.page.navigate(stage.url() + "/kinds/" + KIND);
        screen.button("Publish version " + version).click();
        screen.page
                .getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Publish version " + version))
                .click();
        assertThat(screen.text("Version " + version + " is published")).isVisible();
    }

    private long unit(String serial, String mac, String port) {
        long unit = ask("POST", "/api/bring-ups/1/units", Map.of("kind", KIND, "count", 1, "members", 0))
                .path(0)
                .asLong();
        JsonNode facts = ask(
                "PUT",
                "/api/bring-ups/1/facts",
                Map.of(
                        "cells",
                        List.of(fact(unit, "serial", serial), fact(unit, "mac", mac), fact(unit, "console", port))));
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

    // --- by hand ---

    /** What a person sees on the console now, without its right edge. */
    private String shown() {
        return String.valueOf(screen.page.evaluate(
                "[...document.querySelectorAll('.con .xterm-rows > div')].map((row) => row.innerText.replaceAll("
                        + "'\\u00a0', ' ').trimEnd()).join('\\n').trimEnd()"));
    }

    private SetUpByHandTest at(String prompt) {
        Stage.until("it asks “" + prompt + "”", LONG, () -> shown().endsWith(prompt), this::shown);
        return this;
    }

    private void type(String keys) {
        screen.page.keyboard().type(keys);
        enter();
    }

    private void enter() {
        screen.page.keyboard().press("Enter");
    }

    private void value(String title) {
        screen.button("Type " + title, true).click();
        assertThat(screen.page.locator(".con textarea")).isFocused();
        enter();
    }

    private void byHand(long unit) throws IOException {
        screen.page.navigate(stage.url() + "/b/1/configure?unit=" + unit);
        assertThat(screen.text("No setup of this kind is described yet.")).isVisible();
        screen.button("Set up by hand and learn").click();
        assertThat(screen.text("You type; Lychnos only listens.")).isVisible();
        assertEquals(List.of(), screen.axe(), "a setup by hand");
        screen.page.keyboard().press("Control+Shift+ArrowDown");
        screen.page.keyboard().press("Control+l"); // the machine asked before anybody listened
        at("user:").value("Factory login");
        at("password:").value("Factory password");
        accounts();
        screen.page.reload(); // what was shown is shown again, and nothing of the log is lost
        at("brathay$");
        screen.page.keyboard().press("Control+Shift+ArrowDown");
        host();
        fabricAndPort();
        review();
        at("brathay$").type("commit");
        at("commit and restart, yes or no:").type("yes");
        at("user:").value("Factory login");
        at("password:").value("steward password");
        review();
        at("brathay$");
        screen.button("The machine is set up").click();
        assertThat(screen.text("Set up by hand.")).isVisible();
        JsonNode bench = ask("GET", "/api/units/" + unit + "/bench", null);
        assertEquals("DONE", bench.path("runState").asText(), bench::toString);
    }

    private void accounts() {
        at("brathay$").type("accounts");
        at("new for steward:").value("steward password");
        at("confirm for steward:").value("steward password");
        at("new for watcher:").type(OWN);
        at("confirm for watcher:").type(OWN);
        at("new for peer key:").value("steward password");
        at("confirm for peer key:").value("steward password");
    }

    private void host() {
        at("brathay$").type("host");
        at("host name:").value("Host name");
        at("domain:").value("Domain");
        at("clock source:").value("First time server");
        at("time zone [UTC]:").enter();
        at("resolver:").value("First name server");
    }

    private void fabricAndPort() {
        at("brathay$");
        screen.page.keyboard().type("fabrik");
        screen.page.keyboard().press("Backspace"); // a typing error
        type("c");
        at("subnet manager priority, 15 highest, 0 off [8]:").type("5");
        at("diagnostics to the maker [yes]:").type("no");
        at("brathay$").type("port");
        at("management port, static or dhcp [dhcp]:").type("static");
        at("address/length:").type("10.40.16.300"); // refused
        at("address/length:");
        screen.button("Type Address", true).click();
        screen.page.keyboard().type("/24");
        enter();
        at("router:").value("Gateway");
    }

    private void review() {
        at("brathay$").type("review");
        at("(space for more)");
        screen.page.keyboard().press("Space");
    }

    // --- what it leaves ---

    /** A password that only a person knew is nowhere in the database. */
    private void nothingTypedIsLeft() throws IOException {
        String found = stage.sql(
                """
                select coalesce(string_agg(tablename, ' '), 'in no table') from pg_tables where schemaname = 'public'
                and query_to_xml(format('select * from %I', tablename), true, false, '')::text like '%PASSWORD%';
                """
                        .replace("PASSWORD", OWN));
        assertTrue(found.contains("in no table"), found);
    }

    private void learn() throws IOException {
        screen.text("Learn from this setup").click();
        screen.button("Learn from it").click();
        assertThat(screen.page.getByText("Only you know this")).isVisible();
        assertEquals(List.of(), screen.axe(), "what is learnt and asked");
        Locator asks = screen.page.locator(".asks");
        Stage.until("no question is left", LONG, () -> {
            if (asks.getByText("No question is left.").isVisible()) {
                return true;
            }
            for (String answer : List.of("always so", "None of them holds a password", "That is right")) {
                Locator button = asks.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(answer))
                        .first();
                if (button.and(screen.page.locator(":enabled")).isVisible()) {
                    button.click();
                    return false;
                }
            }
            return false;
        });
        assertThat(screen.text("the same recording passes")).isVisible();
        screen.button("Save as the draft").click();
        assertThat(screen.page.locator("#kind-text")).containsText("subnet manager priority");
        assertThat(screen.page.locator("#kind-text")).not().containsText(OWN);
        publish(2);
    }

    /** A restart is confirmed, as with every kind; nothing else is asked. */
    private void unattended(long unit) throws Exception {
        ask("POST", "/api/units/" + unit + "/console", Map.of("mode", "run"));
        Stage.until(
                "the second machine is set up",
                LONG,
                () -> {
                    JsonNode member = bench(unit).path("members").path(0);
                    String why = member.path("hold").path("why").asText();
                    if (why.equals("RESTARTS")) {
                        ask(
                                "POST",
                                "/api/dialogues/" + member.path("dialogueId").asLong() + "/decision",
                                Map.of("typed", ""));
                    } else {
                        assertEquals("", why, member::toString);
                    }
                    return bench(unit).path("runState").asText().equals("DONE");
                },
                () -> bench(unit).toPrettyString());
    }

    private JsonNode bench(long unit) {
        return ask("GET", "/api/units/" + unit + "/bench", null);
    }
}
