package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * Machines that need more than one address: announced, found out, placed and named, by keyboard where it is quicker.
 */
class CoreJourneyTest {

    @Test
    void fromNothingToNamesAtTheNameServer() throws Exception {
        try (Stage stage = new Stage(Machines.hallFile(Machines.rowB()), 500);
                Screen screen = new Screen(1280, 800, ColorScheme.LIGHT)) {
            screen.page.navigate(stage.url());
            screen.signIn(stage.url(), "hall-lead", "lead-of-the-hall"); // an entry with a key is a lead's
            begin(screen);
            ground(screen);
            units(screen);
            sheet(screen);
            place(screen);
            names(screen);
            assertEquals(List.of(), screen.complaints());
        }
    }

    private static void clean(Screen screen, String where) throws IOException {
        assertEquals(List.of(), screen.axe(), where);
    }

    private static void begin(Screen screen) {
        screen.button("New bring-up").click();
        screen.field("Name").fill("Ardal Hall 2, core");
        screen.field("Site").fill("Ardal");
        screen.page.getByLabel("Site prefix in host names").fill("jny");
        screen.button("Create bring-up").last().click();
        assertThat(screen.text("Add the expected units")).isVisible();
    }

    private static void network(Screen screen, String name, String prefix, String pool) {
        screen.field("Name").fill(name);
        screen.field("Prefix").fill(prefix);
        screen.field("Domain").fill("ardal.example");
        screen.field("Name servers").fill("10.40.8.3 10.40.8.4");
        screen.field("Time servers").fill("10.40.8.6 10.40.8.7 10.40.8.8");
        screen.page.getByLabel("Pools and reserved ranges 1").fill(pool);
    }

    private static void ground(Screen screen) throws IOException {
        screen.stage("1 Prepare");
        screen.button("Define network").click();
        network(screen, "Management", "10.40.8.0/24", ".200-.239");
        screen.field("Gateway").fill("10.40.8.1");
        screen.button("Save network").click();
        assertThat(screen.text("40 addresses free")).isVisible();
        // services were asked by looking
        assertThat(screen.text("stratum 3").first()).isVisible();
        screen.page.keyboard().press("e");
        screen.button("Add network").click();
        network(screen, "Storage data", "10.40.16.0/24", ".10-.99");
        screen.page.getByLabel("MTU").fill("9000");
        screen.button("Save network").click();
        assertThat(screen.text("2 networks")).isVisible();
        screen.page.keyboard().press("e");
        screen.page
                .getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON)
                .filter(new Locator.FilterOptions().setHasText("Domain"))
                .click();
        screen.button("Add: domain").click();
        Locator dialog = screen.page.getByRole(AriaRole.DIALOG);
        dialog.getByLabel("Name", new Locator.GetByLabelOptions().setExact(true))
                .fill("ardal.example");
        dialog.getByLabel("primary").fill("ns1");
        dialog.getByLabel("reverse zones").fill("8.40.10.in-addr.arpa 16.40.10.in-addr.arpa");
        dialog.getByLabel("key name").fill(System.getenv("LYCHNOS_TEST_NAME_KEY_NAME"));
        dialog.getByLabel("key (optional)", new Locator.GetByLabelOptions().setExact(true))
                .fill(System.getenv("LYCHNOS_TEST_NAME_KEY"));
        screen.button("Save entry").click();
        // a name where an address is wanted: told at its field, nothing lost
        assertThat(dialog.getByLabel("primary")).isFocused();
        clean(screen, "networks and services with a fault");
        dialog.getByLabel("primary").fill("10.40.8.3");
        screen.button("Save entry").click();
        assertThat(dialog.getByText("(sealed)")).isVisible();
        screen.page.keyboard().press("Escape");
        assertThat(screen.text("updates allowed")).isVisible();
    }

    private static void units(Screen screen) {
        for (String kind : new String[] {"Block storage array", "Clustered fabric interconnect"}) {
            screen.page.keyboard().press("a");
            screen.page
                    .getByLabel("Kind")
                    .selectOption(new com.microsoft.playwright.options.SelectOption().setLabel(kind));
            screen.page.getByLabel("How many").fill("2");
            screen.button("Add units", true).click();
            assertThat(screen.text("2 units added").last()).isVisible();
        }
        assertThat(screen.text("4 of 4 units are missing facts").first()).isVisible();
    }

    private static Locator cell(Screen screen, int row, int column) {
        return screen.page.locator("#fact-block-array-" + row + "-" + column);
    }

    /** The grid of the arrays, above that of the interconnects: kinds are in the order in which they were added. */
    private static Locator arrays(Screen screen) {
        return screen.page.getByRole(
                AriaRole.GRID, new com.microsoft.playwright.Page.GetByRoleOptions().setName("Block storage array"));
    }

    private static void sheet(Screen screen) throws IOException {
        // the grid of the arrays: its first column is the serial; its rows are blk-1 a, b, blk-2 a, b
        cell(screen, 0, 0).click();
        arrays(screen).focus();
        screen.page.keyboard().type("BK-9001");
        screen.page.keyboard().press("Enter");
        assertThat(cell(screen, 0, 0)).hasText("BK-9001");
        // a block pasted from a spreadsheet: MAC addresses in any notation
        cell(screen, 1, 1).click();
        arrays(screen).focus();
        screen.page.evaluate(
                "text => { const data = new DataTransfer(); data.setData('text', text);"
                        + " document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, "
                        + "bubbles: true, cancelable: true })); }",
                "02-4C-59-B9-00-01\tR7 u1\n024c.59b9.0002\tR7 u2\n02:4c:59:b9:00:zz\tR7 u3\n");
        assertThat(cell(screen, 1, 1)).hasText("02:4c:59:b9:00:01");
        assertThat(cell(screen, 2, 1)).hasText("02:4c:59:b9:00:02");
        assertThat(cell(screen, 3, 1)).hasText("02:4c:59:b9:00:zz");
        assertThat(cell(screen, 3, 1)).hasAttribute("aria-invalid", "true");
        clean(screen, "Prepare with a wrong cell");
        // taken back in one, as it was pasted in one; what was typed before stays
        screen.page.keyboard().press("Control+z");
        assertThat(cell(screen, 1, 1)).not().containsText("02:4c");
        assertThat(cell(screen, 0, 0)).hasText("BK-9001");
        // an arrow key leads on to the grid of the kind behind it
        cell(screen, 3, 0).click();
        arrays(screen).focus();
        screen.page.keyboard().press("ArrowDown");
        assertThat(screen.page.getByRole(AriaRole.GRID).last()).isFocused();
    }

    private static void place(Screen screen) throws IOException {
        screen.stage("2 Allocate");
        // the unit that was last walked over in the sheet is the one in hand
        assertThat(screen.text("Allocate jny-fic-")).isVisible();
        screen.button("Allocate all units instead").click();
        screen.button("jny-blk-1").click();
        assertThat(screen.text("starts on a ten").first()).isVisible();
        assertThat(screen.text(".200 – .202").first()).isVisible();
        screen.page.keyboard().press("l");
        assertThat(screen.text("All 8 silent to ping and TCP just now")).isVisible();
        clean(screen, "Allocate with fits");
        screen.page.keyboard().press("t");
        assertThat(screen.text("8 addresses allocated").last()).isVisible();
        assertThat(screen.text("Allocate addresses to 3 units")).isVisible();
        screen.page.keyboard().press("t");
        assertThat(screen.text("All units have their addresses.")).isVisible();
    }

    private static void names(Screen screen) throws IOException {
        screen.page.keyboard().press("p");
        assertThat(screen.text("46 of 46 records on the name server")).isVisible();
        clean(screen, "Allocate, named");
        screen.stage("Board");
        assertThat(screen.text(".200 – .202 + 5")).isVisible();
        clean(screen, "Board with several kinds");
    }
}
