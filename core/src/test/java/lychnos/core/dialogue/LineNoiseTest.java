package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Test;

class LineNoiseTest {

    private static final String PAGE =
            "\u001b[2J\u001b[1;1H\u001b[7mHost\u001b[0m\r\n\tname of this node ?> \u0007\b \b";

    private final LineNoise noise = new LineNoise();

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void textIsNoNoise() {
        for (int i = 0; i < 50; i++) {
            assertFalse(noise.heard(utf8(PAGE)));
            assertFalse(
                    noise.heard(utf8("┌───────┐\r\n│ Värme │\r\n└───────┘\r\n")),
                    "nor are frames and letters of Europe");
        }
    }

    @Test
    void textInPiecesIsNoNoiseEvenWhereALetterIsCut() {
        byte[] frames = utf8("┌─ Värme ─┐ and a line of plain text between each of them\r\n");
        for (int i = 0; i < 40; i++) {
            for (int at = 0; at < frames.length; at += 5) {
                assertFalse(noise.heard(java.util.Arrays.copyOfRange(frames, at, Math.min(at + 5, frames.length))));
            }
        }
    }

    @Test
    void whatArrivesAtAnotherRateIsReportedOnce() {
        Random random = new Random(5);
        byte[] garbage = new byte[64];
        int told = 0;
        for (int i = 0; i < 20; i++) {
            random.nextBytes(garbage);
            for (int at = 0; at < garbage.length; at++) {
                garbage[at] |= (byte) 0x80;
            }
            told += noise.heard(garbage) ? 1 : 0;
        }
        assertEquals(1, told);
        for (int i = 0; i < 60; i++) {
            noise.heard(utf8(PAGE));
        }
        assertFalse(noise.isMost(), "what comes later counts too");
        noise.restart();
        assertFalse(noise.heard(utf8(PAGE)));
    }

    @Test
    void aDisturbanceWhenThePlugGoesInIsNotEnough() {
        assertFalse(noise.isMost(), "nothing came");
        assertFalse(noise.heard(new byte[] {(byte) 0xff, (byte) 0xfe, (byte) 0x80, 3, 2}));
        assertTrue(noise.isMost(), "but it is all that came");
        assertFalse(noise.heard(utf8(PAGE)));
        assertFalse(noise.isMost());
    }

    @Test
    void garbageAfterALongTalkIsReportedToo() {
        for (int i = 0; i < 100; i++) {
            noise.heard(utf8(PAGE));
        }
        byte[] garbage = new byte[400];
        java.util.Arrays.fill(garbage, (byte) 0x9b);
        assertTrue(noise.heard(garbage) | noise.heard(garbage));
    }
}
