package lychnos.server.configure.line;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import lychnos.core.dialogue.LineSettings;
import lychnos.server.text.ConfigureText;
import lychnos.server.time.FakeClockwork;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineEvents;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A cable at a browser: a page that is played by hand, and what its line reports. */
class CableLineTest {

    private static final long DIALOGUE = 7;
    private static final LineSettings SETTINGS = new LineSettings(57600, 8, LineSettings.Parity.NONE, 1);

    private final FakeClockwork clockwork = new FakeClockwork();
    private final Cables cables = new Cables(clockwork.clock(), null);
    private final List<String> events = new ArrayList<>();
    private ConsoleLine line;

    private final LineEvents ears = new LineEvents() {
        @Override
        public void up() {
            events.add("up");
        }

        @Override
        public void received(byte[] bytes) {
            events.add(new String(bytes, StandardCharsets.ISO_8859_1));
        }

        @Override
        public void down(String why) {
            events.add("down: " + why);
        }

        @Override
        public void noted(String sentence) {
            events.add("noted: " + sentence);
        }

        @Override
        public boolean hostKey(String fingerprint) {
            throw new AssertionError("a serial port has no key");
        }
    };

    /** What a page is told. */
    private static final class FakePage implements CablePage {
        private final List<String> told = new ArrayList<>();

        @Override
        public void open(LineSettings settings) {
            told.add("open " + settings);
        }

        @Override
        public void write(long number, String text) {
            told.add(number + " " + text);
        }

        @Override
        public void sendBreak() {
            told.add("break");
        }

        @Override
        public void ask() {
            told.add("alive?");
        }

        @Override
        public void end() {
            told.add("end");
        }
    }

    private final FakePage page = new FakePage();

    @BeforeEach
    void open() {
        line = cables.open(DIALOGUE, SETTINGS, ears);
    }

    private CableLine cable() {
        return cables.line(DIALOGUE).orElseThrow();
    }

    private void plugged() {
        assertTrue(cable().plug(page));
        cable().opened(page);
    }

    private void goBy(int seconds) {
        for (int i = 0; i < seconds; i++) {
            clockwork.advance(Duration.ofSeconds(1));
            cables.look();
        }
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.ISO_8859_1);
    }

    @Test
    void theLineIsUpOnceThePageHasOpenedItsPort() {
        assertTrue(cable().plug(page));
        line.send(bytes("lost"));
        assertEquals(List.of(), events, "the port is not open yet");
        cable().opened(page);
        cable().received(page, 1, bytes("name: \u00fe"));
        line.send(bytes("a\r"));
        line.sendBreak();
        line.send(bytes("b\r"));
        assertEquals(List.of("up", "name: \u00fe"), events);
        assertEquals(List.of("open " + SETTINGS, "1 a\r", "break", "2 b\r"), page.told);
    }

    @Test
    void onePageHasTheCable() {
        plugged();
        FakePage second = new FakePage();
        assertFalse(cable().plug(second));
        cable().received(second, 1, bytes("from elsewhere"));
        cable().gone(second);
        assertEquals(List.of("up"), events);
        assertEquals(List.of(), second.told);
    }

    @Test
    void aPageThatGoesTakesTheLineDownAndSaysWhetherItHadConfirmed() {
        plugged();
        line.send(bytes("a\r"));
        cable().gone(page);
        assertEquals(List.of("up", "down: " + ConfigureText.CABLE_GONE_UNCONFIRMED.text()), events);

        events.clear();
        line = cables.open(DIALOGUE, SETTINGS, ears);
        FakePage again = new FakePage();
        assertTrue(cable().plug(again), "after a reload the same port is found again");
        cable().opened(again);
        assertEquals(List.of("open " + SETTINGS), again.told, "what was sent before is not sent again");
        line.send(bytes("b\r"));
        cable().confirmed(again, 1);
        cable().gone(again);
        assertEquals(List.of("up", "down: " + ConfigureText.CABLE_GONE.text()), events);
    }

    @Test
    void aMissingPieceOfOutputIsAnInterruption() {
        plugged();
        cable().received(page, 1, bytes("na"));
        cable().received(page, 3, bytes(": "));
        assertEquals(List.of("up", "na", "down: " + ConfigureText.CABLE_LOST_BYTES.text()), events);
        assertEquals("end", page.told.get(page.told.size() - 1));
    }

    @Test
    void aLaptopThatSleepsIsNoticed() {
        plugged();
        goBy(12);
        cable().isAlive(page);
        goBy(12);
        assertEquals(List.of("up"), events);
        assertTrue(page.told.contains("alive?"));
        goBy(12);
        assertEquals(List.of("up", "down: " + ConfigureText.CABLE_SILENT.text(15)), events);
    }

    @Test
    void whatThePortReportsIsSaidBesideTheLine() {
        plugged();
        cable().reports(page, PortFault.named("framing").orElseThrow());
        cable().reports(page, PortFault.named("overrun").orElseThrow());
        assertEquals(
                List.of(
                        "up",
                        "noted: " + ConfigureText.LINE_PROBABLY_OTHER_RATE.text(SETTINGS),
                        "noted: " + ConfigureText.CABLE_TOO_SLOW.text()),
                events);
    }

    @Test
    void aLineThatIsClosedEndsThePageAndIsForgotten() {
        plugged();
        line.close();
        assertEquals(List.of("up"), events, "nobody is told of what was closed on purpose");
        assertEquals("end", page.told.get(page.told.size() - 1));
        assertTrue(cables.line(DIALOGUE).isEmpty());
    }
}
