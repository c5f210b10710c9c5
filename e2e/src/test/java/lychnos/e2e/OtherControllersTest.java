package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/**
 * Redfish controllers as other makers deliver them: an account of another name, a password on each tag, no serial, no
 * presence ping, and services that are missing. Nothing is edited but a label list and two adjustments of the site.
 */
class OtherControllersTest {

    private static final LocatorAssertions.ContainsTextOptions LONG =
            new LocatorAssertions.ContainsTextOptions().setTimeout(120_000);

    private static final String HALL =
            """
            CW-3001 02:4c:59:d4:00:01 10.40.9.51 no-serial,no-presence,no-full-name warden:Pull-Tag-31
            CW-3002 02:4c:59:d4:00:02 10.40.9.52 no-serial,no-presence,no-time-service,no-sessions warden:Pull-Tag-32
            """;

    /** As somebody else's spreadsheet has it. */
    private static final String LABELS =
            """
            Delivery of Monday;;;;;;
            goods in, hall 2;;;;;;
            Rack;U position;Chassis serial number;LAN 1 MAC;BMC MAC;Default login;Default password
            R1;4;CW-3001;02:4c:59:d4:10:01;024c59d40001;warden;Pull-Tag-31
            R1;6;CW-3002;02:4c:59:d4:10:02;02-4C-59-D4-00-02;warden;Pull-Tag-32
            """;

    private Stage stage;
    private Screen screen;
    private Api engineer;

    @Test
    void aDifferentAccountAPasswordForEachAndMissingServices() throws Exception {
        try (Stage opened = new Stage(HALL, 500);
                Screen window = new Screen()) {
            stage = opened;
            screen = window;
            engineer = new Api(stage.url());
            screen.signIn(stage.url(), "hall-lead", "lead-of-the-hall");
            plan();
            adjust();
            readLabels();
            allocate();
            configure();
            prove();
            for (String serial : List.of("CW-3001", "CW-3002")) {
                assertTrue(stage.machine(serial).contains("\"factoryPhraseWorks\":false"), stage.machine(serial));
            }
            assertEquals(List.of(), screen.complaints());
        }
    }

    private void ask(String method, String path, Object body) throws IOException, InterruptedException {
        engineer.ask(stage.url(), method, path, Api.JSON.valueToTree(body));
    }

    private void network(String name, String prefix, String gateway, List<String> names, Map<String, String> ranges)
            throws IOException, InterruptedException {
        Map<String, Object> body = new java.util.HashMap<>(Map.of(
                "name", name, "prefix", prefix, "gateway", gateway, "domain", "ardal.example", "nameServers", names));
        body.put("timeServers", List.of("10.40.8.6", "10.40.8.7", "10.40.8.8"));
        body.put("purpose", "management");
        body.put(
                "ranges",
                ranges.entrySet().stream()
                        .map(range -> Map.of("purpose", range.getKey(), "run", range.getValue(), "note", ""))
                        .toList());
        ask("PUT", "/api/bring-ups/1/networks", body);
    }

    private void plan() throws IOException, InterruptedException {
        ask(
                "POST",
                "/api/bring-ups",
                Map.of("name", "Racks of others", "siteCode", "ard", "siteName", "Ardal", "positions", List.of()));
        network(
                "Management",
                "10.40.9.0/24",
                "10.40.9.1",
                List.of("10.40.8.3", "10.40.8.4"),
                Map.of("pool", ".240-.249", "dhcp", ".50-.60"));
        network(
                "Management, IPv6",
                "fd40:a4da:1:8::/64",
                "fd40:a4da:1:8::1",
                List.of("fd40:a4da:1:8::3"),
                Map.of("pool", "fd40:a4da:1:8::f0-fd40:a4da:1:8::ff"));
    }

    private void adjust() {
        screen.page.navigate(stage.url() + "/kinds/server-controller?tab=adjust");
        adjustTo("presence ping", "forbidden", "RMCP is off at this site");
    }

    private void adjustTo(String what, String value, String reason) {
        Locator row = screen.page
                .locator(".row")
                .filter(new Locator.FilterOptions().setHasText(what))
                .last();
        row.getByRole(AriaRole.BUTTON).last().click();
        Locator dialog = screen.page.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("New value").fill(value);
        dialog.getByLabel("Reason").fill(reason);
        dialog.locator("button[type=submit]").click();
        assertThat(dialog).hasCount(0);
        assertThat(screen.text(reason)).isVisible();
    }

    private void readLabels() throws IOException {
        screen.page.navigate(stage.url() + "/b/1/prepare");
        screen.button("Import labels").click();
        screen.page.getByLabel("or paste here").fill(LABELS);
        screen.button("Preview").click();
        Locator dialog = screen.page.getByRole(AriaRole.DIALOG);
        assertThat(dialog.getByText("CW-3002").first()).isVisible();
        assertEquals(List.of(), screen.axe(), "the columns of a list");
        assertThat(dialog).not().containsText("Pull-Tag-31 ");
        screen.button("Import 2 valid lines").click();
        assertThat(screen.text("2 of 2 known").last()).isVisible();
    }

    private void allocate() {
        screen.page.navigate(stage.url() + "/b/1/allocate");
        assertThat(screen.text("4 addresses").first()).isVisible();
        screen.page.keyboard().press("t");
        assertThat(screen.text("All units have their addresses.")).isVisible();
    }

    private void configure() {
        screen.page.navigate(stage.url() + "/b/1/configure");
        screen.button("Set up 2 units").click();
        screen.button("Start setup").last().click();
        Locator course = screen.page.getByRole(AriaRole.NAVIGATION);
        assertThat(course).containsText("2 set", LONG);
        assertThat(course).not().containsText("stopped");
    }

    private void prove() throws IOException {
        screen.page.navigate(stage.url() + "/b/1/prove");
        assertThat(screen.page.locator("tr[id^=endpoint-]")).hasCount(4);
        screen.page.keyboard().press("c");
        assertThat(screen.page.getByRole(AriaRole.IMG, new Page.GetByRoleOptions().setName("7 of 7 rungs pass")))
                .hasCount(4, new LocatorAssertions.HasCountOptions().setTimeout(60_000));
        screen.page.locator("tr[id^=endpoint-]").first().click();
        assertThat(screen.text("recognized by the MAC address alone, since the controller shows no serial")
                        .first())
                .isVisible();
        assertThat(screen.text("this controller does not show the value").first())
                .isVisible();
        assertEquals(List.of(), screen.axe(), "Prove");
    }
}
