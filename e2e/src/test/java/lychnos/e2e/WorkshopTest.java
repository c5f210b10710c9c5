package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import com.microsoft.playwright.options.SelectOption;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A console kind that is written in the editor from nothing: its fault is found at its line, it is tried on a recording
 * and on a log, published and used; then it leaves as one file and is used on another server.
 */
class WorkshopTest {

    private static final Duration LONG = Duration.ofSeconds(240);
    private static final String KIND = "gateway-of-ours";
    private static final String TITLE = "Gateway of ours";

    /** What a person writes after reading the maker's installation guide. */
    private static final String TEXT =
            """
            kind: gateway-of-ours
            title: Gateway of ours
            short: gwo
            about: A gateway of the compute fabric, written by ourselves.
            facts:
              serial: { of: member, is: serial, find: left side of the chassis }
              mac: { of: member, is: mac-address, find: same label }
              console: { of: member, is: console-line, title: console line, find: port of the console server }
              steward-password: { of: unit, is: secret, made: yes }
              watcher-password: { of: unit, is: secret, made: yes }
              peer-key: { of: unit, is: secret, made: yes }
              address-by: { of: unit, is: choice, choices: [ static, dhcp ], default: static }
              role: { of: unit, is: number, default: "5" }
            addresses:
              - { run: [ management ], in: management }
            names: { unit: "{site}-{kind}-{n}" }
            setup: { by: console }
            dialogue:
              line: 9600 8N1
              chatter: [ '/^# /' ]
              paging: { see: "(space for more)", press: space }
              refused: '/^rejected, (?<why>.+)/'
              identify:
                see: '/^Brathay gateway (?<serial>\\S+) \\* (?<state>needs setup|configured)/'
                must: { serial: "{serial}" }
                unused: [ needs setup ]
              log-in:
                - { asked: '/^user: *$/', answer: "{factory.user}" }
                - { asked: '/^password: *$/', answer: "{factory.phrase}" }
              setup:
                - { at: '/^brathay\\$ *$/', send: accounts }
                - repeat: [ steward, watcher ]
                  steps:
                    - { asked: '/^new for {item}: *$/', answer: "{{item}-password}" }
                    - { asked: '/^confirm for {item}: *$/', answer: "{{item}-password}", title: "{item} again" }
                - { asked: "new for peer key:", answer: "{peer-key}" }
                - { asked: "confirm for peer key:", answer: "{peer-key}", title: peer key again }
                - { at: '/^brathay\\$ *$/', send: host }
                - { asked: "host name:", answer: "{name}" }
                - { asked: '/^domain: *$/', answer: "{domain}" }
                - { asked: "clock source:", answer: "{time-server-1}" }
                - { asked: "time zone", answer: UTC, suggested: yes }
                - { asked: '/^resolver: *$/', answer: "{name-server-1}" }
                - { at: '/^brathay\\$ *$/', send: fabric }
                - { asked: "subnet manager priority", answer: "{role}", suggested: yes }
                - { asked: "diagnostics to the maker", answer: "no", suggested: yes }
                - { at: '/^brathay\\$ *$/', send: port }
                - { asked: "management port, static or dhcp", answer: "{address-by}", suggested: yes }
                - { asked: '/^address/length: *$/', answer: "{address}/{length}", if: { address-by: static } }
                - { asked: '/^router: *$/', answer: "{gateway}", if: { address-by: static } }
                - { at: '/^brathay\\$ *$/', send: review }
                - summary: { '/host +(\\S+)/': "{name}.{domain}", '/priority +(\\S+)/': "{role}" }
                - { at: '/^brathay\\$ *$/', send: commit }
                - { asked: "commit and restart, yes or no:", answer: "yes", within: 1 min }
                - { waits: { about: 2 min, at-most: 8 min, until: gateway ready } }
                - { asked: '/^user: *$/', answer: "{factory.user}" }
                - { asked: '/^password: *$/', answer: "{factory.phrase}", title: old one is refused, must-be-refused: yes }
                - { asked: '/^user: *$/', answer: "{factory.user}" }
                - { asked: '/^password: *$/', answer: "{steward-password}", proves: yes }
                - { at: '/^brathay\\$ *$/', send: review, title: saved settings }
                - summary: { '/address +(\\S+)/': "{address}/{length}", '/router +(\\S+)/': "{gateway}" }
            factory: { way: console, user: steward, phrase: tarnbeck }
            checks: { port: 443 }
            waits: { restart: { about: 2 min, at-most: 8 min } }
            """;

    @TempDir
    Path files;

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

    private void open(Stage opened, Screen window) throws Exception {
        stage = opened;
        screen = window;
        lead = new Api(stage.url(), "hall-lead", "lead-of-the-hall");
        screen.signIn(stage.url(), "hall-lead", "lead-of-the-hall");
    }

    @Test
    void aKindIsWrittenTriedUsedAndCarriedElsewhere() throws Exception {
        Path packed;
        try (Stage opened = Stage.ofConsoles("brathay WS-1 02:4c:59:e9:01:01 6101 gwo 1 - -\n", 400);
                Screen window = new Screen(1280, 800, ColorScheme.LIGHT)) {
            open(opened, window);
            write();
            tryOnARecording();
            publish();
            long dialogue = setUp("WS-1", "02:4c:59:e9:01:01", ".92-.95");
            tryOnALog(dialogue);
            packed = export();
            assertEquals(List.of(), screen.complaints());
        }
        try (Stage opened = Stage.ofConsoles("brathay WS-2 02:4c:59:e9:01:02 6101 gwo 1 - -\n", 400);
                Screen window = new Screen(1280, 800, ColorScheme.DARK)) {
            open(opened, window);
            refuseWhatIsNoPackage();
            takeOver(packed);
            publish();
            setUp("WS-2", "02:4c:59:e9:01:02", ".96-.99");
            assertEquals(List.of(), screen.complaints());
        }
    }

    /** In the editor, with a slip that is marked at its line; then as a form. */
    private void write() throws IOException {
        String slip = TEXT.replace("answer: \"{domain}\"", "answer: \"{domian}\"");
        int line = (int)
                TEXT.substring(0, TEXT.indexOf("answer: \"{domain}\"")).lines().count();
        screen.page.navigate(stage.url() + "/kinds?add=text");
        screen.page.getByRole(AriaRole.DIALOG).getByRole(AriaRole.TEXTBOX).fill("kind: " + KIND + "\n");
        screen.page.getByRole(AriaRole.DIALOG).locator("button[type=submit]").click();
        screen.page.locator("#kind-text").fill(slip);
        Locator fault =
                screen.page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("line " + line + ", "));
        assertThat(fault).isVisible();
        assertThat(screen.text("Unknown placeholder “domian”")).isVisible();
        screen.page.locator("#kind-text").fill(TEXT);
        assertThat(screen.text("No faults found.")).isVisible();
        screen.button("Form").click();
        Locator about = screen.page.getByLabel("About");
        about.fill("A gateway of the compute fabric.");
        about.blur();
        screen.button("Text").click();
        assertThat(screen.page.locator("#kind-text")).containsText("about: A gateway of the compute fabric.");
        screen.page.getByRole(AriaRole.TAB).getByText("Addresses").click();
        assertThat(screen.text("ard-gwo-1").first()).isVisible();
        assertEquals(List.of(), screen.axe(), "the editor with its preview");
        screen.button("Save draft").click();
        assertThat(screen.text("Draft saved.")).isVisible();
    }

    private Path file(String name, String text) throws IOException {
        return Files.writeString(files.resolve(name), text);
    }

    private void load(Path file) {
        screen.page.navigate(stage.url() + "/kinds/" + KIND + "?tab=try");
        screen.page.locator("input[type=file]").setInputFiles(file);
    }

    /** Of a machine that somebody else has set up by hand; its file says what was answered. */
    private void tryOnARecording() throws IOException {
        String cast = Files.readString(Path.of("../kinds/recordings/infiniband-gateway.cast"))
                .replace("\"kind\":\"infiniband-gateway\"", "\"kind\":\"" + KIND + "\"")
                .replace("\"subnet-manager\":", "\"role\":");
        load(file("by-hand.cast", cast));
        assertThat(screen.page.locator(".result")).containsText("no differences");
        screen.button("Keep with this kind").click();
        screen.page
                .getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Keep with this kind"))
                .click();
        assertThat(screen.text("Kept as by-hand.")).isVisible();
        assertThat(screen.page.getByLabel("Kept with this kind")).containsText("agrees");
        assertEquals(List.of(), screen.axe(), "a dry run with kept recordings");
    }

    /** What a terminal program has written of the setup, and when: nothing but what the machine has shown. */
    private void tryOnALog(long dialogue) throws Exception {
        String cast = lead.send(stage.url(), "GET", "/api/dialogues/" + dialogue + "/recording.cast", null)
                .body();
        StringBuilder log = new StringBuilder();
        StringBuilder timing = new StringBuilder();
        double before = 0;
        for (String line : cast.lines().skip(1).toList()) {
            JsonNode piece = Api.JSON.readTree(line);
            if (piece.path(1).asText().equals("o")) {
                String text = piece.path(2).asText();
                log.append(text);
                timing.append(String.format(
                        Locale.ROOT,
                        "%.6f %d%n",
                        piece.path(0).asDouble() - before,
                        text.getBytes(StandardCharsets.UTF_8).length));
                before = piece.path(0).asDouble();
            }
        }
        screen.page.navigate(stage.url() + "/kinds/" + KIND + "?tab=try");
        screen.page.locator("input[type=file]").setInputFiles(new Path[] {
            file("terminal.log", log.toString()), file("terminal.timing", timing.toString())
        });
        screen.page.getByLabel("The console was that of").selectOption(new SelectOption().setLabel("ben-gwo-1, Bench"));
        screen.button("Play").click();
        assertThat(screen.page.locator(".result")).containsText("no differences");
    }

    private void publish() {
        screen.page.navigate(stage.url() + "/kinds/" + KIND);
        screen.button("Publish version 1").click();
        screen.page
                .getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Publish version 1"))
                .click();
        assertThat(screen.text("Version 1 is published")).isVisible();
    }

    /** Without a person, from its label to the end of its console. */
    private long setUp(String serial, String mac, String pool) throws Exception {
        new Bench(stage.url()).ground(pool);
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
        long unit = ask("POST", "/api/bring-ups/1/units", Map.of("kind", KIND, "count", 1, "members", 0))
                .path(0)
                .asLong();
        JsonNode facts = ask(
                "PUT",
                "/api/bring-ups/1/facts",
                Map.of(
                        "cells",
                        List.of(fact(unit, "serial", serial), fact(unit, "mac", mac), fact(unit, "console", "6101"))));
        assertEquals(0, facts.path("faults").size(), facts::toString);
        JsonNode fit = ask("GET", "/api/bring-ups/1/fits?unit=" + unit, null)
                .path("fits")
                .path(0);
        ask("POST", "/api/bring-ups/1/allocations", Map.of("lines", fit.path("lines"), "growth", fit.path("growth")));
        ask("POST", "/api/units/" + unit + "/console", Map.of("mode", "run"));
        Stage.until(
                "it is set up",
                LONG,
                () -> bench(unit).path("runState").asText().equals("DONE"));
        assertTrue(stage.kept(serial, "address").startsWith("10.40.16."), stage.kept(serial, "address"));
        assertEquals("5", stage.kept(serial, "priority"));
        return bench(unit).path("members").path(0).path("dialogueId").asLong();
    }

    private static Map<String, Object> fact(long unit, String name, String value) {
        return Map.of("unitId", unit, "member", "", "name", name, "value", value);
    }

    private JsonNode bench(long unit) {
        return ask("GET", "/api/units/" + unit + "/bench", null);
    }

    private Path export() {
        screen.page.navigate(stage.url() + "/kinds/" + KIND + "?tab=history");
        Download download = screen.page.waitForDownload(
                () -> screen.text("Export with recordings").click());
        Path packed = files.resolve("gateway.zip");
        download.saveAs(packed);
        return packed;
    }

    private void choosePackage(Path file) {
        screen.page.navigate(stage.url() + "/kinds");
        screen.button("Import kind").click();
        screen.page.getByRole(AriaRole.DIALOG).locator("input[type=file]").setInputFiles(file);
    }

    private void refuseWhatIsNoPackage() throws IOException {
        choosePackage(file("none.zip", "not an archive"));
        assertThat(screen.page.getByRole(AriaRole.ALERT)).containsText("This file is not a ZIP archive.");
    }

    private void takeOver(Path packed) throws IOException {
        choosePackage(packed);
        Locator dialog = screen.page.getByRole(AriaRole.DIALOG);
        assertThat(dialog).containsText(TITLE);
        assertThat(dialog).containsText("by-hand");
        assertThat(dialog).containsText("agrees");
        assertEquals(List.of(), screen.axe(), "a package");
        screen.button("Import as draft").click();
        assertThat(screen.page.locator("#kind-text")).containsText(KIND);
    }
}
