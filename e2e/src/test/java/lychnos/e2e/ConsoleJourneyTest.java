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
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Three machines set up through the browser and by keyboard alone, each in one of the three ways to work. */
class ConsoleJourneyTest {

    private static final Duration LONG = Duration.ofSeconds(240);

    @Test
    void eachWayToWorkLeadsToTheEnd() throws Exception {
        try (Stage stage = Stage.ofConsoles(Bench.HALL.formatted("-", "-"), 800);
                Screen screen = new Screen(1280, 800, ColorScheme.LIGHT)) {
            Bench bench = new Bench(stage.url()).prepare(".232-.247");
            screen.signInByKeyboard(stage.url(), "rack-one", "engineer-at-rack-one");
            askedAtEach(stage, screen, bench);
            typedByThePerson(stage, screen, bench);
            runToTheNextStop(stage, screen, bench);
            assertEquals(List.of(), screen.complaints());
        }
    }

    private static void open(Stage stage, Screen screen, long unit) {
        screen.page.navigate(stage.url() + "/b/1/configure?unit=" + unit);
        assertThat(screen.button("Start, ask me each time")).isVisible();
    }

    private static boolean done(Bench bench, String unit) {
        try {
            return bench.bench(unit).path("runState").asText().equals("DONE");
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    /** A pair, answer by answer with the keys of the bench. */
    private static void askedAtEach(Stage stage, Screen screen, Bench bench) throws Exception {
        open(stage, screen, bench.unit("ben-fic-1"));
        screen.press(screen.button("Start, ask me each time"));
        assertThat(screen.text("reported serial matches the label")).isVisible();
        assertThat(screen.button("Send this")).isEnabled();
        assertEquals(List.of(), screen.axe(), "the bench");
        Locator tabs = screen.page.getByRole(AriaRole.TAB);
        Locator restart = screen.button("Continue and let it restart");
        Stage.until("the pair is set up", LONG, () -> {
            for (int side = 0; side < 2 && !done(bench, "ben-fic-1"); side++) {
                if (tabs.nth(side).isVisible()) {
                    screen.press(tabs.nth(side));
                    if (restart.isVisible()) {
                        screen.press(restart);
                    } else if (screen.button("Send this")
                            .and(screen.page.locator(":enabled"))
                            .isVisible()) {
                        screen.page.keyboard().press("Control+Shift+Enter");
                    }
                }
            }
            return done(bench, "ben-fic-1");
        });
        assertEquals("yes", stage.kept("EO-2", "paired"));
        screen.press(tabs.nth(2));
        assertThat(screen.text("All shared answers match")).isVisible();
        assertEquals(List.of(), screen.axe(), "compare");
    }

    /** A controller, typed at the terminal; a wrong answer is kept back before it does harm. */
    private static void typedByThePerson(Stage stage, Screen screen, Bench bench) throws Exception {
        open(stage, screen, bench.unit("ben-fdc-1"));
        screen.press(screen.button("Start, I type"));
        Locator terminal = screen.page.locator(".xterm textarea");
        terminal.waitFor(
                new Locator.WaitForOptions().setState(com.microsoft.playwright.options.WaitForSelectorState.ATTACHED));
        // nobody falls into it by Tab, which would be the machine's then: a chord leads in and out
        screen.page.keyboard().press("Control+Shift+ArrowDown");
        assertThat(terminal).isFocused();
        screen.page.keyboard().press("Control+Shift+ArrowUp");
        assertThat(terminal).not().isFocused();
        screen.page.keyboard().press("Control+Shift+ArrowDown");
        assertThat(terminal).isFocused();
        screen.page.keyboard().press("Control+L");
        shows(screen, "name of this node");
        screen.page.keyboard().type("ben-fdc-1-1");
        screen.page.keyboard().press("Enter");
        shows(screen, "place of this node");
        screen.page.keyboard().type("7");
        screen.page.keyboard().press("Enter");
        assertThat(screen.text("Your input differs from the plan")).isVisible();
        assertEquals("", stage.kept("ES-1", "place"), "Enter was kept back");
        screen.page.keyboard().press("Backspace");
        screen.page.keyboard().type("1");
        screen.page.keyboard().press("Enter");
        shows(screen, "duty of this node");
        assertEquals("1", stage.kept("ES-1", "place"));
        // the rest may run; it stops before what is permanent
        screen.page.keyboard().press("Control+Shift+ArrowRight");
        Stage.until("the controller is set up", LONG, () -> yes(bench, "ben-fdc-1"));
        for (JsonNode step : bench.bench("ben-fdc-1").path("members").path(0).path("steps")) {
            assertTrue(step.path("times").asInt() <= 1, step::toString);
        }
        assertEquals("10.45.0.0/16", stage.kept("ES-1", "overlay"));
    }

    private static void shows(Screen screen, String text) {
        assertThat(screen.page.locator(".xterm-rows")).containsText(text);
    }

    private static boolean yes(Bench bench, String unit) {
        try {
            assertEquals(List.of(), bench.sayYes(unit), unit);
            return done(bench, unit);
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    /**
     * A host, by the tool, up to the one stop that it has; then its recording is played and its addresses are asked.
     */
    private static void runToTheNextStop(Stage stage, Screen screen, Bench bench) throws Exception {
        open(stage, screen, bench.unit("ben-hv-01"));
        screen.press(screen.button("Start and run to the next decision"));
        Locator restart = screen.button("Continue and let it restart");
        screen.press(restart);
        try {
            Stage.until("the host is set up", LONG, () -> {
                // a person who sees that it still waits presses again
                screen.pressIfThere(restart);
                return done(bench, "ben-hv-01");
            });
        } catch (AssertionError e) {
            throw new AssertionError(
                    e.getMessage()
                            + bench.bench("ben-hv-01").path("members")
                            + screen.page.locator("body").innerText(),
                    e);
        }
        assertThat(screen.text("Set up and read back"))
                .isVisible(new com.microsoft.playwright.assertions.LocatorAssertions.IsVisibleOptions()
                        .setTimeout(LONG.toMillis()));
        screen.press(screen.button("Probe its addresses"));
        assertThat(screen.text("answers ping, port 443 is open, port 22 is refused")
                        .first())
                .isVisible();
        screen.press(screen.button("Play recording"));
        assertThat(screen.page.getByRole(AriaRole.DIALOG, new Page.GetByRoleOptions().setName("Recording of")))
                .isVisible();
        assertThat(screen.page.locator(".ap-player").first()).isVisible();
        assertEquals("Test passed", lastWords(stage, screen, bench));
    }

    private static String lastWords(Stage stage, Screen screen, Bench bench) throws Exception {
        long dialogue = bench.bench("ben-hv-01")
                .path("members")
                .path(0)
                .path("dialogueId")
                .asLong();
        String cast = screen.page
                .request()
                .get(stage.url() + "/api/dialogues/" + dialogue + "/recording.cast")
                .text();
        return cast.contains("Test passed") ? "Test passed" : cast.substring(Math.max(0, cast.length() - 400));
    }
}
