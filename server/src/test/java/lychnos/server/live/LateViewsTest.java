package lychnos.server.live;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoMoreInteractions;
import static org.mockito.Mockito.when;

import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import java.util.zip.GZIPInputStream;
import lychnos.server.LychnosConfig;
import lychnos.server.database.Reading;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Views that take long: who sees the one before, who waits, and that everybody is told of the new one. */
class LateViewsTest {

    private static final long BRING_UP = 7;
    /** Longer than anybody is let wait. */
    private static final long LONG_NANOS = 200_000_000L;

    private final Live live = mock(Live.class);
    private final OwnWrites own = mock(OwnWrites.class);
    private final Screens screens = mock(Screens.class);
    private final Reading reading = mock(Reading.class);
    private final AtomicInteger workedOut = new AtomicInteger();
    private final ExecutorService people = Executors.newCachedThreadPool();
    private final AtomicLong nanos = new AtomicLong();
    private final LychnosConfig config = mock(LychnosConfig.class);
    private SharedViews views;

    @BeforeEach
    void nobodyHasChangedAnything() {
        when(config.lateView()).thenReturn(Duration.ofNanos(LONG_NANOS / 2));
        views = new SharedViews(live, own, screens, reading, new ObjectMapper(), config, nanos::get);
        when(reading.of(any()))
                .thenAnswer(call -> call.<Supplier<?>>getArgument(0).get());
        when(own.noneSince(anyLong())).thenReturn(true);
    }

    @AfterEach
    void end() {
        people.shutdownNow();
        views.stop(null);
    }

    /** Tells how often it was worked out. */
    private String view() {
        int number = workedOut.incrementAndGet();
        nanos.addAndGet(LONG_NANOS);
        return "view " + number;
    }

    private String asked(Supplier<?> view) {
        return asked("board", view);
    }

    private String asked(String key, Supplier<?> view) {
        return new String((byte[]) answer(key, view, null).getEntity(), StandardCharsets.UTF_8).replace("\"", "");
    }

    private Response answer(String key, Supplier<?> view, String accepts) {
        HttpHeaders headers = mock(HttpHeaders.class);
        when(headers.getHeaderString(HttpHeaders.ACCEPT_ENCODING)).thenReturn(accepts);
        return views.of(key, BRING_UP, mock(Request.class), headers, view);
    }

    private void somethingIsTold() {
        long version = live.version(BRING_UP) + 1;
        when(live.version(BRING_UP)).thenReturn(version);
    }

    @Test
    void othersSeeTheOneBeforeAndAreToldOfTheNewOne() {
        assertEquals("view 1", asked(this::view));
        somethingIsTold();
        assertEquals("view 1", asked(this::view));
        verify(screens, timeout(10_000)).tell(BRING_UP, "view");
        assertEquals("view 2", asked(this::view));
    }

    @Test
    void nobodyIsToldWhereItIsTheSame() {
        Supplier<String> same = () -> view().substring(0, 4);
        asked(same);
        asked("another", this::view);
        somethingIsTold();
        asked(same);
        // worked out behind the one that is the same, so that this one is through when the other is told
        asked("another", this::view);
        verify(screens, timeout(10_000)).tell(BRING_UP, "view");
        verify(reading, times(2)).of(any());
        verifyNoMoreInteractions(screens);
    }

    @Test
    void whoHasChangedSomethingWaitsForIt() {
        asked(this::view);
        somethingIsTold();
        when(own.noneSince(anyLong())).thenReturn(false);
        assertEquals("view 2", asked(this::view));
        verify(reading, never()).of(any());
    }

    @Test
    void whoComesWhileItIsWorkedOutAfterTheirChangeTakesThatOne() throws Exception {
        asked(this::view);
        somethingIsTold();
        long changed = nanos.getAndIncrement();
        when(own.noneSince(anyLong())).thenAnswer(call -> changed - call.<Long>getArgument(0) < 0);
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch others = new CountDownLatch(1);
        Supplier<String> slow = () -> {
            begun.countDown();
            await(others);
            return view();
        };
        Callable<String> asking = () -> asked(slow);
        Future<String> first = people.submit(asking);
        await(begun);
        Future<String> second = people.submit(asking);
        somethingIsTold();
        others.countDown();
        assertEquals("view 2", first.get(10, TimeUnit.SECONDS));
        assertEquals("view 2", second.get(10, TimeUnit.SECONDS), "what others have changed since is not waited for");
    }

    @Test
    void aFaultBehindIsNotShownToWhoSeesTheOneBefore() {
        asked(this::view);
        somethingIsTold();
        assertEquals("view 1", asked(() -> {
            throw new IllegalStateException("the database is away");
        }));
        verify(reading, timeout(10_000)).of(any());
        assertEquals("view 1", asked(this::view));
    }

    @Test
    void whatIsCompressedIsTheSame() throws IOException {
        String text = "one of thousands of units. ".repeat(500);
        byte[] plain = (byte[]) answer("text", () -> text, null).getEntity();
        Response packed = answer("text", () -> text, "br, gzip");
        assertEquals("gzip", packed.getHeaderString(HttpHeaders.CONTENT_ENCODING));
        assertArrayEquals(
                plain, new GZIPInputStream(new ByteArrayInputStream((byte[]) packed.getEntity())).readAllBytes());
    }

    private static void await(CountDownLatch latch) {
        try {
            if (!latch.await(10, TimeUnit.SECONDS)) {
                throw new IllegalStateException("nobody came");
            }
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }
}
