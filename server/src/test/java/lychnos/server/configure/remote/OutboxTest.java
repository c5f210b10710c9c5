package lychnos.server.configure.remote;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import lychnos.server.configure.line.LineOrder;
import lychnos.wire.far.Codec;
import lychnos.wire.far.LinkMessage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Steps that a vantage hands in are numbered after what the server has, whatever the vantage's clock says. */
class OutboxTest {

    @TempDir
    Path directory;

    private final Codec codec = new Codec();
    private final List<Long> numbers = new ArrayList<>();

    private void add(Outbox outbox) {
        outbox.add(number -> {
            numbers.add(number);
            return LineOrder.HandedStep.recording(number, Instant.EPOCH, List.of());
        });
    }

    @Test
    void numbersGoOnWhereTheServerIs() throws IOException {
        // an earlier life had a clock that was far ahead
        long handedIn = 4_000_000_000_000_000L;
        Outbox outbox = new Outbox(7, directory, codec, handedIn);
        add(outbox);
        add(outbox);
        assertEquals(List.of(handedIn + 1, handedIn + 2), numbers);
    }

    @Test
    void aNewDialogueBeginsAtOne() throws IOException {
        add(new Outbox(8, directory, codec, 0));
        assertEquals(List.of(1L), numbers);
    }

    @Test
    void whatWasLeftIsHandedInUnderItsOwnNumbers() throws IOException {
        Outbox outbox = new Outbox(9, directory, codec, 41);
        add(outbox);
        List<Outbox> left = Outbox.left(directory, codec);
        assertEquals(1, left.size());
        List<LinkMessage> sent = new ArrayList<>();
        left.get(0).linked(sent::add);
        assertEquals(1, sent.size());
        assertTrue(codec.write(sent.get(0)).contains("\"number\":42"), codec.write(sent.get(0)));
    }
}
