package lychnos.wire.console;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;

class TelnetCodecTest {

    private final ByteArrayOutputStream sent = new ByteArrayOutputStream();
    private final List<String> notes = new ArrayList<>();
    private final List<Boolean> pauses = new ArrayList<>();

    private TelnetCodec codec(LineSettings settings) {
        return new TelnetCodec(settings, new TelnetCodec.Out() {
            @Override
            public void send(byte[] bytes) {
                sent.writeBytes(bytes);
            }

            @Override
            public void noted(String sentence) {
                notes.add(sentence);
            }

            @Override
            public void paused(boolean paused) {
                pauses.add(paused);
            }
        });
    }

    private static byte[] octets(int... values) {
        byte[] bytes = new byte[values.length];
        for (int i = 0; i < values.length; i++) {
            bytes[i] = (byte) values[i];
        }
        return bytes;
    }

    private byte[] sentSince() {
        byte[] bytes = sent.toByteArray();
        sent.reset();
        return bytes;
    }

    @Test
    void dataPassesAndCommandsDoNot() {
        byte[] data =
                codec(null).receive(octets('a', 255, 255, 255, 241, 'b', 255, 250, 24, 1, 255, 240, 'c', '\r', 0, 'd'));
        assertArrayEquals(octets('a', 255, 'b', 'c', '\r', 'd'), data);
    }

    @Test
    void anyPiecesGiveTheSame() {
        byte[] stream = octets(
                'a', 255, 253, 0, 'b', '\r', 0, 255, 250, 44, 101, 0, 0, 255, 255, 0, 255, 240, 'c', 255, 255, 'd');
        byte[] whole =
                codec(new LineSettings(57600, 8, LineSettings.Parity.NONE, 1)).receive(stream);
        for (int cut = 1; cut < stream.length; cut++) {
            TelnetCodec codec = codec(new LineSettings(57600, 8, LineSettings.Parity.NONE, 1));
            ByteArrayOutputStream data = new ByteArrayOutputStream();
            data.writeBytes(codec.receive(java.util.Arrays.copyOfRange(stream, 0, cut)));
            data.writeBytes(codec.receive(java.util.Arrays.copyOfRange(stream, cut, stream.length)));
            assertArrayEquals(whole, data.toByteArray(), "cut at " + cut);
        }
    }

    @Test
    void anUnknownOptionIsRefusedOnceAndNoMore() {
        TelnetCodec codec = codec(null);
        codec.receive(octets(255, 251, 5, 255, 251, 5, 255, 253, 6));
        assertArrayEquals(octets(255, 254, 5, 255, 252, 6), sentSince());
    }

    @Test
    void anAgreedOptionIsNotAnsweredAgain() {
        TelnetCodec codec = codec(null);
        codec.begin();
        sentSince();
        codec.receive(octets(255, 253, 0, 255, 251, 0, 255, 253, 3, 255, 251, 3, 255, 251, 1));
        codec.receive(octets(255, 253, 0, 255, 251, 0));
        assertEquals(0, sentSince().length);
    }

    @Test
    void weNeverEcho() {
        TelnetCodec codec = codec(null);
        codec.receive(octets(255, 253, 1));
        assertArrayEquals(octets(255, 252, 1), sentSince());
    }

    @Test
    void aReturnIsWholeInBothWays() {
        TelnetCodec codec = codec(null);
        assertArrayEquals(octets('x', '\r', 0), codec.data(octets('x', '\r')));
        codec.begin();
        codec.receive(octets(255, 253, 0));
        assertArrayEquals(octets('x', '\r', 255, 255), codec.data(octets('x', '\r', 255)));
    }

    @Test
    void thePortIsSetOnceTheServerAgrees() {
        TelnetCodec codec = codec(new LineSettings(115200, 7, LineSettings.Parity.EVEN, 2));
        codec.begin();
        sentSince();
        codec.receive(octets(255, 253, 44));
        assertArrayEquals(
                octets(
                        255, 250, 44, 1, 0, 1, 0xc2, 0, 255, 240, 255, 250, 44, 2, 7, 255, 240, 255, 250, 44, 3, 3, 255,
                        240, 255, 250, 44, 4, 2, 255, 240, 255, 250, 44, 5, 1, 255, 240),
                sentSince());
        codec.receive(octets(
                255, 250, 44, 101, 0, 0, 0x25, 0x80, 255, 240, 255, 250, 44, 103, 1, 255, 240, 255, 250, 44, 102, 7,
                255, 240));
        assertEquals(2, notes.size(), notes::toString);
        assertTrue(
                Texts.says(ConsoleText.SERVER_SETS_OTHERWISE, notes.get(0))
                        && notes.get(0).contains("9600"),
                notes::toString);
        assertTrue(
                Texts.says(ConsoleText.SERVER_SETS_OTHERWISE, notes.get(1))
                        && notes.get(1).contains("3"),
                notes::toString);
    }

    @Test
    void aServerThatDoesNotLetItsPortBeSetIsTold() {
        TelnetCodec codec = codec(LineSettings.USUAL);
        codec.begin();
        codec.receive(octets(255, 254, 44));
        assertTrue(notes.get(0).contains("9600 8N1"), notes::toString);
        sentSince();
        codec.breakOn();
        assertArrayEquals(octets(255, 243), sentSince());
    }

    @Test
    void theServerMayAskForSilence() {
        TelnetCodec codec = codec(LineSettings.USUAL);
        codec.receive(octets(255, 250, 44, 108, 255, 240, 255, 250, 44, 109, 255, 240));
        assertEquals(List.of(true, false), pauses);
    }

    @Test
    void noiseNeitherBreaksNorGrowsIt() {
        Random random = new Random(7);
        TelnetCodec codec = codec(LineSettings.USUAL);
        for (int round = 0; round < 2000; round++) {
            byte[] noise = new byte[500];
            random.nextBytes(noise);
            for (int i = 0; i < noise.length; i += 1 + random.nextInt(7)) {
                noise[i] = (byte) (240 + random.nextInt(16));
            }
            assertTrue(codec.receive(noise).length <= noise.length);
            // a far side that only shouts cannot make us shout back without end
            assertTrue(sentSince().length <= 40 * noise.length);
        }
    }
}
