package lychnos.server.live;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.ws.rs.core.EntityTag;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.Stream;
import java.util.zip.GZIPOutputStream;
import lychnos.core.record.CanonicalJson;

/**
 * Views of a bring-up that everybody sees alike. Every screen asks for them again whenever something is told; of thousands of units they
 * are worked out, written and compressed once for all who ask, as long as nothing else was told. What is never told does not stay
 * for longer than a moment either: for ten times as long as the view took, and two seconds at most.
 */
@ApplicationScoped
public class SharedViews {

    private static final int MOST = 24;
    private static final long LONGEST_NANOS = 2_000_000_000L;
    private static final int TIMES = 10;
    /** Less is not worth the work. */
    private static final int LEAST_COMPRESSED = 2000;

    private final Live live;
    private final ObjectMapper json;
    private final Map<String, Kept> kept = new ConcurrentHashMap<>();
    private final List<Object> locks = Stream.generate(Object::new).limit(MOST).toList();

    SharedViews(Live live, ObjectMapper json) {
        this.live = live;
        this.json = json;
    }

    private record Kept(byte[] plain, byte[] packed, EntityTag tag, long version, long at, long took) {

        boolean holds(long version) {
            return this.version == version && System.nanoTime() - at < Math.min(LONGEST_NANOS, TIMES * took);
        }
    }

    /**
     * Answers with a view.
     *
     * @param key tells it from others
     * @param bringUpId of which it is
     */
    public Response of(String key, long bringUpId, Request request, HttpHeaders headers, Supplier<?> view) {
        Kept shown = kept(key, bringUpId, view);
        Response.ResponseBuilder answer = request.evaluatePreconditions(shown.tag);
        if (answer == null) {
            boolean packed = shown.packed != null && String.valueOf(headers.getHeaderString(HttpHeaders.ACCEPT_ENCODING)).contains("gzip");
            answer = Response.ok(packed ? shown.packed : shown.plain, MediaType.APPLICATION_JSON_TYPE);
            if (packed) {
                answer.header(HttpHeaders.CONTENT_ENCODING, "gzip");
            }
        }
        return answer.tag(shown.tag).header(HttpHeaders.CACHE_CONTROL, "private, no-cache").header(HttpHeaders.VARY, HttpHeaders.ACCEPT_ENCODING).build();
    }

    private Kept kept(String key, long bringUpId, Supplier<?> view) {
        Kept last = kept.get(key);
        if (last != null && last.holds(live.version(bringUpId))) {
            return last;
        }
        // whoever comes while it is being worked out waits for that instead of doing the same
        synchronized (locks.get(Math.floorMod(key.hashCode(), MOST))) {
            long version = live.version(bringUpId);
            last = kept.get(key);
            if (last != null && last.holds(version)) {
                return last;
            }
            long begun = System.nanoTime();
            byte[] plain = written(view.get());
            Kept made = new Kept(plain, plain.length < LEAST_COMPRESSED ? null : packed(plain), new EntityTag(CanonicalJson.sha256(plain).substring(0, 16)), version, System.nanoTime(), System.nanoTime() - begun);
            if (kept.size() >= MOST) {
                kept.clear();
            }
            kept.put(key, made);
            return made;
        }
    }

    private byte[] written(Object view) {
        try {
            return json.writeValueAsBytes(view);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a view can be written", e);
        }
    }

    private static byte[] packed(byte[] plain) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream(plain.length / 6);
        try (GZIPOutputStream out = new GZIPOutputStream(bytes)) {
            out.write(plain);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toByteArray();
    }
}
