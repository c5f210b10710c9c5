package lychnos.wire.http;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.http.HttpClient;
import io.vertx.core.http.HttpClientOptions;
import io.vertx.core.http.HttpClientRequest;
import io.vertx.core.http.HttpClientResponse;
import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.RequestOptions;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javax.net.ssl.SSLException;
import lychnos.wire.WireFault;
import lychnos.wire.WireFault.Kind;
import lychnos.wire.tls.Shown;

/**
 * HTTPS exchanges. The certificate is compared with the remembered one after the handshake and before the request leaves,
 * so that a secret never reaches another machine. Redirects are not followed. Connections are kept for a few seconds.
 */
public final class HttpCaller implements AutoCloseable {

    /** A resource of a management controller is a few kilobytes; more is garbage or an attack. */
    static final int LARGEST_ANSWER = 1_000_000;

    private static final int CONNECT_SECONDS = 4;
    private static final int MOST_KEPT = 2;
    private static final long FORGET_NANOS = 200_000_000;
    private static final long OLD_ENDS_MILLIS = 60_000;

    private final Vertx vertx;
    private volatile HttpClient client;
    private long madeAt;

    public HttpCaller(Vertx vertx) {
        this.vertx = vertx;
        client = client();
        madeAt = System.nanoTime() - FORGET_NANOS;
    }

    private HttpClient client() {
        return vertx.createHttpClient(new HttpClientOptions()
                .setSsl(true)
                .setTrustAll(true)
                .setVerifyHost(false)
                .setConnectTimeout(CONNECT_SECONDS * 1000)
                .setSslHandshakeTimeout(CONNECT_SECONDS)
                .setMaxPoolSize(MOST_KEPT)
                .setKeepAliveTimeout(3)
                .setDecompressionSupported(false));
    }

    /** Carries out one exchange and waits for it. */
    public HttpAnswer call(HttpCall call, InetSocketAddress peer) throws WireFault {
        HttpClientRequest request = openPinned(call, peer);
        // a fault reaches the caller through the answer's future; the request's own handler has nothing to add
        request.exceptionHandler(fault -> {});
        String shown = fingerprint(request);
        call.headers().forEach(request::putHeader);
        // the reader is attached before anything is sent: an answer that is quicker than this thread would pass unread
        CompletableFuture<HttpAnswer> future = request.response().compose(response -> read(response, shown)).toCompletionStage().toCompletableFuture();
        if (call.body() == null) {
            request.end();
        } else {
            request.end(Buffer.buffer(call.body()));
        }
        try {
            return future.get(call.timeout().toMillis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException e) {
            request.connection().close();
            throw new WireFault(Kind.UNKNOWN_OUTCOME, "no answer to the request in " + call.timeout().toSeconds() + " s", e);
        } catch (ExecutionException e) {
            request.connection().close();
            if (e.getCause() instanceof WireFault fault) {
                throw fault;
            }
            throw new WireFault(Kind.UNKNOWN_OUTCOME, "the connection ended before the answer (" + e.getCause().getMessage() + ")", e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new WireFault(Kind.UNKNOWN_OUTCOME, "interrupted", e);
        }
    }

    /** A request on a connection that shows the certificate. */
    private HttpClientRequest openPinned(HttpCall call, InetSocketAddress peer) throws WireFault {
        HttpClientRequest request = open(call, peer);
        String pinned = call.pinnedFingerprint();
        if (pinned == null || pinned.equals(fingerprint(request))) {
            return request;
        }
        drop(request);
        // a connection that was kept, or a session that was resumed (RFC 8446, section 2.2), shows what it was made with
        forget();
        request = open(call, peer);
        String shown = fingerprint(request);
        if (!pinned.equals(shown)) {
            drop(request);
            throw new WireFault(Kind.OTHER_CERTIFICATE, "certificate " + shorten(shown) + " instead of " + shorten(pinned));
        }
        return request;
    }

    private static void drop(HttpClientRequest request) {
        request.reset();
        request.connection().close();
    }

    /** Goes on with a client that remembers no session; whoever is in the middle of an exchange ends it with the old one. */
    private synchronized void forget() {
        if (System.nanoTime() - madeAt < FORGET_NANOS) {
            return; // somebody else has just done so
        }
        HttpClient old = client;
        client = client();
        madeAt = System.nanoTime();
        vertx.setTimer(OLD_ENDS_MILLIS, timer -> old.close());
    }

    private HttpClientRequest open(HttpCall call, InetSocketAddress peer) throws WireFault {
        RequestOptions options = new RequestOptions()
                .setHost(peer.getAddress().getHostAddress())
                .setPort(peer.getPort())
                .setURI(call.path())
                .setMethod(HttpMethod.valueOf(call.method()))
                .setFollowRedirects(false);
        CompletableFuture<HttpClientRequest> opening = client.request(options).toCompletionStage().toCompletableFuture();
        try {
            return opening.get(CONNECT_SECONDS * 2L, TimeUnit.SECONDS);
        } catch (TimeoutException e) {
            opening.thenAccept(HttpClientRequest::reset);
            throw new WireFault(Kind.SILENT, "no connection in " + CONNECT_SECONDS * 2 + " s", e);
        } catch (ExecutionException e) {
            Throwable cause = e.getCause();
            if (cause instanceof SSLException) {
                throw new WireFault(Kind.NO_TLS, "the TLS handshake failed", cause);
            }
            boolean refused = cause instanceof ConnectException && String.valueOf(cause.getMessage()).contains("refused");
            throw new WireFault(refused ? Kind.REFUSED : Kind.SILENT, refused ? "the connection was refused" : "no connection", cause);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new WireFault(Kind.SILENT, "interrupted", e);
        }
    }

    private static String fingerprint(HttpClientRequest request) throws WireFault {
        try {
            return Shown.fingerprint(request.connection().peerCertificates().get(0));
        } catch (SSLException e) {
            throw new WireFault(Kind.NO_TLS, "the peer showed no certificate", e);
        }
    }

    private static String shorten(String fingerprint) {
        return fingerprint.substring(0, 8) + "…";
    }

    private static io.vertx.core.Future<HttpAnswer> read(HttpClientResponse response, String fingerprint) {
        Buffer body = Buffer.buffer();
        io.vertx.core.Promise<HttpAnswer> promise = io.vertx.core.Promise.promise();
        response.handler(chunk -> {
            if (body.length() + chunk.length() > LARGEST_ANSWER) {
                promise.tryFail(new WireFault(Kind.GARBAGE, "the answer is larger than " + LARGEST_ANSWER + " bytes"));
                response.request().connection().close();
            } else {
                body.appendBuffer(chunk);
            }
        });
        response.exceptionHandler(promise::tryFail);
        response.endHandler(end -> {
            Map<String, String> headers = new HashMap<>();
            response.headers().forEach((name, value) -> headers.put(name.toLowerCase(Locale.ROOT), value));
            promise.tryComplete(new HttpAnswer(response.statusCode(), headers, body.getBytes(), fingerprint));
        });
        return promise.future();
    }

    @Override
    public void close() {
        client.close();
    }
}
