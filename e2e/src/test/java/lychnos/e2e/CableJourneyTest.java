package lychnos.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;

/**
 * A controller is set up over a serial adapter at the browser: pulled out during an answer, the page loaded again during
 * a restart, a second window for the same cable, and a port at another rate.
 */
class CableJourneyTest {

    private static final Duration LONG = Duration.ofSeconds(240);
    private static final String UNIT = "ben-fdc-1";
    private static final String SERIAL = "ES-1";
    private static final int LINE = 6103;

    @Test
    void aMachineIsSetUpOverTheCableOfTheBrowser() throws Exception {
        try (Stage stage = Stage.ofConsoles(Bench.HALL.formatted("-", "-"), 3000);
                SerialAdapter adapter = new SerialAdapter(LINE);
                Screen screen = new Screen(1280, 800, ColorScheme.LIGHT, adapter.script())) {
            Bench bench = new Bench(stage.url()).prepare(".32-.43");
            screen.signIn(stage.url());
            String address = stage.url() + "/b/1/configure?unit=" + bench.unit(UNIT);
            screen.page.navigate(address);
            screen.button("Use a serial port of this computer").click();
            assertThat(screen.text("a browser's serial port").first()).isVisible();
            screen.button("Start and run to the next decision").click();
            atAnotherRate(screen, adapter);
            thePortOfTheKind(screen, adapter, stage);
            aSecondWindow(screen, address);
            pulledOutDuringAnAnswer(screen, adapter, stage, bench);
            loadedAgainDuringARestart(screen, adapter, stage, bench);
            assertThat(screen.text("Set up and read back")).isVisible();
            assertEquals("10.45.0.0/16", stage.kept(SERIAL, "overlay"));
            for (JsonNode step : bench.bench(UNIT).path("members").path(0).path("steps")) {
                assertTrue(step.path("times").asInt() <= 2, step::toString);
            }
            assertEquals(List.of(), screen.complaints());
        }
    }

    private static void atAnotherRate(Screen screen, SerialAdapter adapter) {
        adapter.forceRate(9600);
        screen.button("Choose the port").click();
        assertThat(screen.text("probably uses another rate than 115200 8N1")).isVisible();
        screen.button("Disconnect").click();
        assertThat(screen.button("Choose the port")).isVisible();
        adapter.forceRate(0);
    }

    private static void thePortOfTheKind(Screen screen, SerialAdapter adapter, Stage stage) {
        screen.button("Choose the port").click();
        assertThat(screen.text("The cable is at this browser.")).isVisible();
        assertEquals(115_200, adapter.rate());
        // what was typed at the other rate is still in front of the first answer, as on a real machine
        assertThat(screen.text("The machine rejected the answer to “name”")).isVisible();
        screen.page.keyboard().press("Control+Shift+ArrowDown");
        screen.page.keyboard().type("ben-fdc-1-1");
        screen.page.keyboard().press("Enter");
        Stage.until("the machine has its name", LONG, () -> !kept(stage, "name").isEmpty());
    }

    /** Another window shows the same line and leaves the cable to the first. */
    private static void aSecondWindow(Screen screen, String address) {
        Page second = screen.page.context().newPage();
        second.navigate(address);
        assertThat(second.getByText("The cable is at another browser window.")).isVisible();
        second.close();
    }

    private static void pulledOutDuringAnAnswer(Screen screen, SerialAdapter adapter, Stage stage, Bench bench)
            throws IOException {
        int before = adapter.opened();
        adapter.pullOut();
        assertThat(screen.text("The port cannot be used.")).isVisible();
        assertThat(screen.text("no cable connected")).isVisible();
        adapter.plugIn();
        assertThat(screen.text("The cable is at this browser.")).isVisible();
        assertTrue(adapter.opened() > before);
        Stage.until("the machine is told everything", LONG, () -> {
            yes(bench);
            return !kept(stage, "committed").isEmpty();
        });
    }

    private static void loadedAgainDuringARestart(Screen screen, SerialAdapter adapter, Stage stage, Bench bench) {
        screen.page.reload();
        // the one port that this page may use is found again
        assertThat(screen.text("The cable is at this browser.")).isVisible();
        Stage.until("the controller is set up", LONG, () -> {
            yes(bench);
            return done(bench);
        });
    }

    private static String kept(Stage stage, String name) {
        try {
            return stage.kept(SERIAL, name);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static void yes(Bench bench) {
        try {
            bench.sayYes(UNIT);
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }

    private static boolean done(Bench bench) {
        try {
            return bench.bench(UNIT).path("runState").asText().equals("DONE");
        } catch (IOException e) {
            throw new AssertionError(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new AssertionError(e);
        }
    }
}
