package lychnos.server.live;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.quarkus.runtime.ShutdownEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.ws.rs.core.EntityTag;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Stream;
import java.util.zip.Deflater;
import java.util.zip.GZIPOutputStream;
import lychnos.server.LychnosConfig;
import lychnos.server.database.Reading;
import lychnos.wire.time.Ticker;
import org.jboss.logging.Logger;

/**
 * Views of a bring-up that everybody sees alike. Every screen asks for them again whenever something is told; of
 * thousands of units they are worked out, written and compressed once for all who ask, as long as nothing else was
 * told. What is never told does not stay for longer than a moment either: for ten times as long as the view took, and
 * two seconds at most.
 *
 * <p>What takes long is worked out again behind what is shown: a person who asks meanwhile sees the one before at
 * once, and their screen is told when the new one is there. Only who has changed something since waits for it.
 */
@ApplicationScoped
public class SharedViews {

    private final Ticker ticker;
    /** A request waits for what takes less than this. */
    private final long lateNanos;

    private static final Logger LOG = Logger.getLogger(SharedViews.class);
    private static final int MOST = 24;
    private static final long LONGEST_NANOS = 2_000_000_000L;
    private static final int TIMES = 10;
    /** Nothing older than this is shown. */
    private static final long LATEST_NANOS = 15_000_000_000L;
    /**
     * So many times as long as a view took it is left alone before it is worked out behind again: who waits has the
     * processors.
     */
    private static final int APART = 5;
    /** Less is not worth the work. */
    private static final int LEAST_COMPRESSED = 2000;

    private final Live live;
    private final OwnWrites own;
    private final Screens screens;
    private final Reading reading;
    private final ObjectMapper json;
    /** One at a time: what is asked for besides has the other processors. */
    private final ScheduledExecutorService behind = Executors.newSingleThreadScheduledExecutor();
    /** Tells the tags of one server from those of another, and of the same before a restart. */
    private final String here = UUID.randomUUID().toString().substring(0, 13);

    private final AtomicLong tags = new AtomicLong();
    private final Set<String> awaited = ConcurrentHashMap.newKeySet();
    private final Cache<String, Kept> kept =
            Caffeine.newBuilder().maximumSize(MOST).build();
    private final List<Object> locks = Stream.generate(Object::new).limit(MOST).toList();

    SharedViews(
            Live live,
            OwnWrites own,
            Screens screens,
            Reading reading,
            ObjectMapper json,
            LychnosConfig config,
            Ticker ticker) {
        this.ticker = ticker;
        this.lateNanos = config.lateView().toNanos();
        this.live = live;
        this.own = own;
        this.screens = screens;
        this.reading = reading;
        this.json = json;
    }

    void stop(@Observes ShutdownEvent event) {
        behind.shutdownNow();
    }

    /** As it goes over the wire; compressed for the first who takes it so. */
    private static final class Rendered {
        final byte[] plain;
        final EntityTag tag;
        private byte[] packed;

        Rendered(byte[] plain, EntityTag tag) {
            this.plain = plain;
            this.tag = tag;
        }

        boolean worthPacking() {
            return plain.length >= LEAST_COMPRESSED;
        }

        synchronized byte[] packed() {
            if (packed == null) {
                packed = SharedViews.packed(plain);
            }
            return packed;
        }
    }

    /** A view, and those of its parts that were asked for; the whole is the part without a name. */
    private static final class Kept {
        final Object view;
        final long version;
        final long begun;
        final long took;
        final Map<String, Rendered> rendered = new ConcurrentHashMap<>();
        final Map<String, Function<Object, Object>> parts = new ConcurrentHashMap<>();
        /** By part, as it was rendered last. */
        final Map<String, Rendered> before = new HashMap<>();

        Kept(Object view, long version, long begun, long ended, Kept last) {
            this.view = view;
            if (last != null) {
                before.putAll(last.before);
                before.putAll(last.rendered);
            }
            this.version = version;
            this.begun = begun;
            took = ended - begun;
        }

        boolean holds(long version, long now) {
            return this.version == version && now - begun - took < Math.min(LONGEST_NANOS, TIMES * took);
        }

        boolean maySeemOld(long now, long late) {
            return took > late && now - begun < LATEST_NANOS;
        }
    }

    /**
     * Answers with a view.
     *
     * @param key tells it from others
     * @param bringUpId of which it is
     */
    public Response of(String key, long bringUpId, Request request, HttpHeaders headers, Supplier<?> view) {
        return of(key, bringUpId, request, headers, view, "", whole -> whole);
    }

    /**
     * Answers with a part of a view that is worked out for others too.
     *
     * @param part tells it from other parts
     */
    @SuppressWarnings("unchecked")
    public <V> Response of(
            String key,
            long bringUpId,
            Request request,
            HttpHeaders headers,
            Supplier<V> view,
            String part,
            Function<V, ?> partOf) {
        Rendered shown = rendered(kept(key, bringUpId, view), part, (Function<Object, Object>) partOf);
        Response.ResponseBuilder answer = request.evaluatePreconditions(shown.tag);
        if (answer == null) {
            boolean packed = shown.worthPacking()
                    && String.valueOf(headers.getHeaderString(HttpHeaders.ACCEPT_ENCODING))
                            .contains("gzip");
            answer = Response.ok(packed ? shown.packed() : shown.plain, MediaType.APPLICATION_JSON_TYPE);
            if (packed) {
                answer.header(HttpHeaders.CONTENT_ENCODING, "gzip");
            }
        }
        return answer.tag(shown.tag)
                .header(HttpHeaders.CACHE_CONTROL, "private, no-cache")
                .header(HttpHeaders.VARY, HttpHeaders.ACCEPT_ENCODING)
                .build();
    }

    private Rendered rendered(Kept kept, String part, Function<Object, Object> partOf) {
        kept.parts.putIfAbsent(part, partOf);
        return kept.rendered.computeIfAbsent(part, none -> {
            byte[] plain = written(partOf.apply(kept.view));
            Rendered before = kept.before.get(part);
            boolean same = before != null && Arrays.equals(before.plain, plain);
            return new Rendered(plain, same ? before.tag : new EntityTag(here + "-" + tags.incrementAndGet()));
        });
    }

    private Kept kept(String key, long bringUpId, Supplier<?> view) {
        Kept last = kept.getIfPresent(key);
        if (!serves(last, bringUpId)) {
            // requests that come meanwhile wait for the same result
            synchronized (lock(key)) {
                last = kept.getIfPresent(key);
                // what was begun after their own change is good enough for them, even where others have changed
                // something since
                if (!serves(last, bringUpId)) {
                    return renewed(key, bringUpId, view);
                }
            }
        }
        if (!last.holds(live.version(bringUpId), ticker.nanos())) {
            renewBehind(key, bringUpId, view, last);
        }
        return last;
    }

    /** Whether the person who asks now may be shown it. */
    private boolean serves(Kept last, long bringUpId) {
        return last != null
                && (last.holds(live.version(bringUpId), ticker.nanos())
                        || last.maySeemOld(ticker.nanos(), lateNanos) && own.noneSince(last.begun));
    }

    private void renewBehind(String key, long bringUpId, Supplier<?> view, Kept last) {
        if (awaited.add(key)) {
            behind.schedule(
                    () -> {
                        awaited.remove(key);
                        try {
                            Kept now;
                            synchronized (lock(key)) {
                                Kept newest = kept.getIfPresent(key);
                                now = newest != null && newest.holds(live.version(bringUpId), ticker.nanos())
                                        ? newest
                                        : renewed(key, bringUpId, () -> reading.of(view));
                            }
                            // what was shown before is made ready now, and looked at whether it is another
                            last.parts.forEach((part, partOf) -> rendered(now, part, partOf));
                            if (last.rendered.entrySet().stream()
                                    .anyMatch(part ->
                                            !now.rendered.get(part.getKey()).tag.equals(part.getValue().tag))) {
                                screens.tell(bringUpId, "view");
                            }
                        } catch (RuntimeException e) {
                            // the next request finds it too old
                            LOG.warnf("%s cannot be worked out behind (%s).", key, e.getMessage());
                        }
                    },
                    last.begun + APART * last.took - ticker.nanos(),
                    TimeUnit.NANOSECONDS);
        }
    }

    private Object lock(String key) {
        return locks.get(Math.floorMod(key.hashCode(), MOST));
    }

    private Kept renewed(String key, long bringUpId, Supplier<?> view) {
        long version = live.version(bringUpId);
        long begun = ticker.nanos();
        Kept made = new Kept(view.get(), version, begun, ticker.nanos(), kept.getIfPresent(key));
        kept.put(key, made);
        return made;
    }

    private byte[] written(Object view) {
        try {
            return json.writeValueAsBytes(view);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a view can be written", e);
        }
    }

    private static byte[] packed(byte[] plain) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream(plain.length / 5);
        try (GZIPOutputStream out = new GZIPOutputStream(bytes) {
            {
                // a third of the time for a fifth more bytes
                def.setLevel(Deflater.BEST_SPEED);
            }
        }) {
            out.write(plain);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }
}
