package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/**
 * Every view with something in it, and what can be opened from it: in both themes, for everybody, and as narrow as a
 * phone.
 */
class EveryViewTest {

    private static final Map<String, String> VIEWS = new LinkedHashMap<>();

    static {
        VIEWS.put("board", "/b/1");
        VIEWS.put("prepare", "/b/1/prepare");
        VIEWS.put("allocate", "/b/1/allocate");
        VIEWS.put("configure", "/b/1/configure");
        VIEWS.put("prove", "/b/1/prove");
        VIEWS.put("hand over", "/b/1/handover");
        VIEWS.put("what the server needs", "/server");
        VIEWS.put("kinds", "/kinds");
        VIEWS.put("a kind", "/kinds/hypervisor-host");
        VIEWS.put("the text of a kind", "/kinds/hypervisor-host?tab=text");
        VIEWS.put("a draft", "/kinds/console-manager?tab=text");
        VIEWS.put("the versions of a kind", "/kinds/hypervisor-host?tab=history");
        VIEWS.put("the adjustments of a kind", "/kinds/server-controller?tab=adjust");
        VIEWS.put("a new kind", "/kinds/new");
    }

    /** Those of row B, and of a virtual machine, which is in no rack. */
    private static final int ENDPOINTS = 13;

    private final List<String> wrong = new ArrayList<>();

    @Test
    void readsInBothThemesForEverybodyAndOnAPhone() throws Exception {
        try (Stage stage = new Stage(Machines.hallFile(Machines.rowB()), 300)) {
            fill(stage);
            look(stage, "hall-lead", "lead-of-the-hall", 1280, 800, ColorScheme.LIGHT, true);
            look(stage, "hall-lead", "lead-of-the-hall", 1280, 800, ColorScheme.DARK, true);
            look(stage, "night-watch", "only-looking-around", 1280, 800, ColorScheme.LIGHT, false);
            look(stage, "rack-one", "engineer-at-rack-one", 390, 844, ColorScheme.LIGHT, false);
            assertEquals(List.of(), wrong);
        }
    }

    private void look(
            Stage stage, String login, String password, int width, int height, ColorScheme scheme, boolean dialogs)
            throws IOException {
        String who = login + ", " + scheme.name().toLowerCase(java.util.Locale.ROOT) + ", " + width + ": ";
        try (Screen screen = new Screen(width, height, scheme)) {
            screen.signIn(stage.url(), login, password);
            note(screen, who + "bring-ups");
            for (Map.Entry<String, String> view : VIEWS.entrySet()) {
                screen.page.navigate(stage.url() + view.getValue());
                screen.page.locator("main h1, main h2, main table").first().waitFor();
                note(screen, who + view.getKey());
                if (view.getKey().equals("prove")
                        && screen.page.locator("tr[id^=endpoint-]").count() != ENDPOINTS) {
                    wrong.add(who + "not every endpoint is listed");
                }
                int over = ((Number)
                                screen.page.evaluate("() => document.documentElement.scrollWidth - window.innerWidth"))
                        .intValue();
                if (over > 0) {
                    wrong.add(who + view.getKey() + " is " + over + " pixels too wide");
                }
            }
            if (dialogs) {
                dialogs(stage, screen, who);
            }
            screen.complaints().forEach(complaint -> wrong.add(who + complaint));
        }
    }

    private void note(Screen screen, String where) throws IOException {
        screen.axe().forEach(rule -> wrong.add(where + ": " + rule));
    }

    private void dialogs(Stage stage, Screen screen, String who) throws IOException {
        screen.page.navigate(stage.url() + "/b/1/handover");
        for (String name : List.of("Sign ", "Add open item", "Reopen, replace or retire a unit", "for a key")) {
            screen.button(name).first().click();
            open(screen, who + "“" + name + "”");
        }
        screen.page.navigate(stage.url() + "/b/1/prove");
        screen.page.locator("main table").first().waitFor();
        screen.page.keyboard().press("?");
        open(screen, who + "keys");
        screen.page.locator(".you > button").click();
        screen.button("Tokens…").click();
        open(screen, who + "tokens");
    }

    /** Looks at the dialog that is open, and closes it. */
    private void open(Screen screen, String where) throws IOException {
        Locator dialog = screen.page.locator("dialog[open], [role=dialog]").first();
        dialog.waitFor();
        note(screen, where);
        screen.page.keyboard().press("Escape");
        dialog.waitFor(
                new Locator.WaitForOptions().setState(com.microsoft.playwright.options.WaitForSelectorState.HIDDEN));
    }

    /** Twelve machines: set up and proven, one of them signed, one broken; and one that lives on a host. */
    private static void fill(Stage stage) throws Exception {
        Api lead = new Api(stage.url(), "hall-lead", "lead-of-the-hall");
        ObjectNode begin = Api.JSON
                .createObjectNode()
                .put("name", "Row B")
                .put("siteCode", "ard")
                .put("siteName", "Ardal");
        begin.putArray("positions");
        lead.ask(stage.url(), "POST", "/api/bring-ups", begin);
        lead.ask(
                stage.url(),
                "PUT",
                "/api/bring-ups/1/network",
                Api.JSON.readTree(
                        """
                {"name":"Management","prefix":"10.40.9.0/24","gateway":"10.40.9.1","vlan":408,
                 "domain":"ardal.example","nameServers":["10.40.9.3"],"timeServers":["10.40.9.6"],
                 "ranges":[{"purpose":"pool","run":".141-.180","note":""},
                   {"purpose":"dhcp","run":".10-.31","note":""}]}"""));
        lead.text(stage.url(), "/api/bring-ups/1/labels", Files.readString(Machines.labels()));
        lead.ask(
                stage.url(),
                "POST",
                "/api/bring-ups/1/units",
                Api.JSON
                        .createObjectNode()
                        .put("kind", "console-manager")
                        .put("count", 1)
                        .put("members", 0));
        ObjectNode taking = Api.JSON.createObjectNode();
        ArrayNode lines = taking.putArray("lines");
        lead.ask(stage.url(), "GET", "/api/bring-ups/1/proposal", null)
                .path("lines")
                .forEach(lines::add);
        lead.ask(stage.url(), "POST", "/api/bring-ups/1/allocations", taking);
        lead.ask(
                stage.url(),
                "POST",
                "/api/bring-ups/1/setups",
                Api.JSON.createObjectNode().put("width", 6));
        Stage.until(
                "all of them are set up, or one stopped",
                Duration.ofSeconds(120),
                () -> asked(lead, stage, "configure").path("lanes").findValuesAsText("state").stream()
                        .allMatch(state -> List.of("DONE", "STOPPED").contains(state)));
        JsonNode ready = asked(lead, stage, "handover").path("units");
        ObjectNode sign = Api.JSON.createObjectNode();
        for (JsonNode unit : ready) {
            if (unit.path("state").asText().equals("READY") && !sign.has("units")) {
                sign.putArray("units")
                        .addObject()
                        .put("unit", unit.path("unitId").asLong());
            }
        }
        lead.ask(stage.url(), "POST", "/api/bring-ups/1/signatures", sign);
        lead.ask(
                stage.url(),
                "POST",
                "/api/catalogue/server-controller/adjustments",
                Api.JSON
                        .createObjectNode()
                        .put("siteId", 1)
                        .put("what", "presence")
                        .put("value", "not checked")
                        .put("reason", "switched off in this hall"));
        lead.put(stage.url(), "/api/catalogue/console-manager/draft", "kind: console-manager\ntitle: 1\n");
    }

    private static JsonNode asked(Api lead, Stage stage, String what) {
        try {
            return lead.ask(stage.url(), "GET", "/api/bring-ups/1/" + what, null);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }
}
