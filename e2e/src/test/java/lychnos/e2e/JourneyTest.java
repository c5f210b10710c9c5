package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.nio.file.Files;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * From a label list to lit and signed endpoints, in the browser and by keyboard alone, over the real wire of the lab.
 */
class JourneyTest {

    private static final LocatorAssertions.ContainsTextOptions LONG =
            new LocatorAssertions.ContainsTextOptions().setTimeout(180_000);

    @Test
    void byKeyboardAloneFromALabelListToSignedEndpoints() throws Exception {
        try (Stage stage = new Stage(Machines.hallFile(Machines.rowB()), 800);
                Screen screen = new Screen()) {
            screen.signInByKeyboard(stage.url(), "hall-lead", "lead-of-the-hall");
            begin(screen);
            clean(screen, "Board, dark");
            prepare(screen);
            allocate(screen);
            configure(screen);
            prove(screen, stage);
            handOver(screen);
            for (String serial : Machines.serials()) {
                String machine = stage.machine(serial);
                assertTrue(
                        machine.contains("\"passwordChanges\":1") && machine.contains("\"factoryPhraseWorks\":false"),
                        machine);
            }
            assertEquals(List.of(), screen.complaints());
        }
    }

    private static void clean(Screen screen, String where) throws IOException {
        assertEquals(List.of(), screen.axe(), where);
    }

    /** The keys of the stages, which the page tells with "?". */
    private static void stage(Screen screen, int number) {
        screen.page.keyboard().press("g");
        screen.page.keyboard().press(number == 0 ? "b" : String.valueOf(number));
    }

    private static void begin(Screen screen) {
        screen.press(screen.button("New bring-up"));
        screen.type(screen.field("Name"), "Ardal Hall 2, row B");
        screen.type(screen.field("Site"), "Ardal");
        screen.type(screen.page.getByLabel("Site prefix in host names"), "ard");
        StringBuilder positions = new StringBuilder();
        for (int i = 0; i < 6; i++) {
            positions
                    .append("R3 u")
                    .append(5 + 2 * i)
                    .append("\nR1 u")
                    .append(17 + 2 * i)
                    .append('\n');
        }
        screen.type(screen.page.getByLabel("Expected rack positions"), positions.toString());
        screen.press(screen.button("Create bring-up").last());
        assertThat(screen.text("Rack R3 · 6 units, 0 proven")).isVisible();
        assertThat(screen.text("2 facts to find out")).hasCount(12);
    }

    private static void prepare(Screen screen) throws IOException {
        stage(screen, 1);
        screen.press(screen.button("Define network"));
        screen.type(screen.field("Name"), "Management, row B");
        screen.type(screen.field("Prefix"), "10.40.9.7/24");
        screen.type(screen.field("Gateway"), "10.40.9.1");
        screen.type(screen.field("VLAN"), "409");
        screen.type(screen.field("Domain"), "ardal.example");
        screen.type(screen.field("Name servers"), "10.40.8.3, 10.40.8.4");
        screen.type(screen.field("Time servers"), "10.40.8.6 10.40.8.7 10.40.8.8");
        screen.type(screen.page.getByLabel("Pools and reserved ranges 1"), ".101-.180");
        screen.type(screen.page.getByLabel("Pools and reserved ranges 2"), ".10-.31");
        screen.press(screen.button("Save network"));
        // host bits: the field says which network is meant, and nothing typed is lost
        assertThat(screen.field("Prefix")).isFocused();
        assertThat(screen.text("the network is 10.40.9.0/24")).isVisible();
        clean(screen, "the network form with a fault");
        screen.type(screen.field("Prefix"), "10.40.9.0/24");
        screen.page.keyboard().press("Enter");
        assertThat(screen.text("80 addresses free")).isVisible();

        screen.press(screen.button("Import labels"));
        String labels = Files.readString(Machines.labels());
        screen.type(screen.page.getByLabel("or paste here"), labels.replace("R1 u27", "somewhere"));
        screen.press(screen.button("Preview"));
        assertThat(screen.text("“somewhere” is not a rack position")).isVisible();
        assertThat(screen.page.getByRole(AriaRole.DIALOG).getByText("filled in"))
                .hasCount(11);
        screen.press(screen.button("Import 11 valid lines"));
        assertThat(screen.text("11 of 12 known").last()).isVisible();
        screen.press(screen.button("Undo").last());
        assertThat(screen.text("0 of 12 known").last()).isVisible();
        screen.press(screen.button("Import labels"));
        // the one thing that is the browser's own: its dialog for files
        screen.page.getByLabel("Choose file").setInputFiles(Machines.labels());
        screen.press(screen.button("Import 12 valid lines"));
        assertThat(screen.text("12 of 12 known").last()).isVisible();
        clean(screen, "Prepare");
    }

    private static void allocate(Screen screen) throws IOException {
        stage(screen, 2);
        assertThat(screen.text(".101 – .112")).isVisible();
        assertThat(screen.page.getByRole(AriaRole.CELL).getByText("ard-srv-001-oob"))
                .isVisible();
        assertThat(screen.text("101.9.40.10.in-addr.arpa. IN PTR ard-srv-001-oob.ardal.example."))
                .isVisible();
        clean(screen, "Allocate with a fit");
        screen.page.keyboard().press("t");
        assertThat(screen.text("All units have their addresses.")).isVisible();
    }

    private static void configure(Screen screen) throws IOException {
        stage(screen, 3);
        assertThat(screen.button("Set up 12 units")).isVisible();
        screen.page.keyboard().press("s");
        assertThat(screen.text("ard-srv-001-oob … ard-srv-012-oob").last()).isVisible();
        screen.press(screen.button("Start setup").last());
        assertThat(screen.text("The first unit is set up alone until it is proven"))
                .isVisible();
        Locator course = screen.page.getByRole(AriaRole.NAVIGATION);
        assertThat(course).containsText("12 set", LONG);
        assertThat(course).not().containsText("stopped");
        clean(screen, "Configure");
    }

    private static void prove(Screen screen, Stage stage) throws Exception {
        Api api = new Api(stage.url());
        stage(screen, 4);
        screen.text("Endpoint checks").waitFor();
        screen.page.locator("tr[id^=endpoint-]").first().waitFor();
        Locator on = screen.page.locator("tr.on");
        for (int i = 0; i < 12 && (on.count() == 0 || !on.textContent().contains("ard-srv-009-oob")); i++) {
            String before = on.count() == 0 ? "" : on.getAttribute("id");
            screen.page.keyboard().press("j");
            screen.page
                    .locator("tr.on:not(#" + (before.isEmpty() ? "none" : before) + ")")
                    .waitFor();
        }
        assertThat(screen.text("All seven rungs pass.").first()).isVisible();
        assertThat(screen.text("BF-01225 and 02:4c:59:b2:03:6f as on the label").first())
                .isVisible();
        // its answer says that the checks are asked for: what the page shows before may still be the last checks
        screen.page.waitForResponse(
                answer -> answer.url().endsWith("/checks")
                        && answer.request().method().equals("POST"),
                () -> screen.page.keyboard().press("c"));
        Stage.until("all units are checked again", Duration.ofSeconds(60), () -> checking(api, stage) == 0);
        assertThat(screen.page.getByRole(
                        AriaRole.IMG,
                        new com.microsoft.playwright.Page.GetByRoleOptions().setName("7 of 7 rungs pass")))
                .hasCount(12);
        clean(screen, "Prove");
        stage(screen, 0);
        assertThat(screen.text("Rack R3 · 6 units, 6 proven")).isVisible();
        clean(screen, "Board, lit");
    }

    private static int checking(Api api, Stage stage) {
        try {
            return api.ask(stage.url(), "GET", "/api/bring-ups/1/prove", null)
                    .path("checking")
                    .asInt(-1);
        } catch (IOException | InterruptedException e) {
            throw new AssertionError(e);
        }
    }

    private static void handOver(Screen screen) throws IOException {
        stage(screen, 5);
        clean(screen, "Hand over");
        Download download =
                screen.page.waitForDownload(() -> screen.page.keyboard().press("d"));
        assertEquals("ardal-hall-2-row-b-endpoints.csv", download.suggestedFilename());
        List<String> lines = Files.readAllLines(download.path());
        assertEquals(13, lines.size());
        assertTrue(
                lines.get(1)
                        .matches("ard-srv-001-oob\\.ardal\\.example,10\\.40\\.9\\.101/24,management,.*,"
                                + "BF-01253,02:4c:59:b2:07:08,.*,[0-9a-f]{64},20.*Z,.*"),
                lines.get(1));
        assertThat(screen.button("Sign 12 units")).isEnabled();
        screen.page.keyboard().press("s");
        screen.press(screen.page
                .getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Sign 12 units")));
        assertThat(screen.page.getByRole(AriaRole.NAVIGATION)).containsText("12 signed");
    }

    /** The same pages in the dark theme and on a phone at the rack. */
    @Test
    void darkAndNarrow() throws Exception {
        try (Stage stage = new Stage(Machines.hallFile(Machines.rowB()), 500);
                Screen screen = new Screen(390, 780, ColorScheme.DARK)) {
            screen.page.navigate(stage.url());
            assertThat(screen.button("Sign in")).isVisible();
            clean(screen, "sign-in, dark");
            screen.signIn(stage.url());
            begin(screen);
            for (String view : new String[] {"", "/prepare", "/allocate", "/configure", "/prove", "/handover"}) {
                screen.page.navigate(stage.url() + "/b/1" + view);
                screen.page.getByRole(AriaRole.NAVIGATION).waitFor();
                assertThat(screen.page.getByRole(AriaRole.NAVIGATION)).containsText("0 of 12 known");
                clean(screen, view + ", dark and narrow");
                int overflow =
                        ((Number) screen.page.evaluate("document.documentElement.scrollWidth - innerWidth")).intValue();
                assertTrue(overflow <= 0, view + " is " + overflow + " px too wide");
            }
            assertEquals(List.of(), screen.complaints());
        }
    }
}
