package lychnos.wire.http;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.http.HttpClient;
import io.vertx.core.http.HttpClientOptions;
import io.vertx.core.http.HttpClientRequest;
import io.vertx.core.http.HttpClientResponse;
import io.vertx.core.http.HttpConnection;
import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.RequestOptions;
import java.net.InetSocketAddress;
import java.security.cert.Certificate;
import java.time.Clock;
import java.time.Duration;
import java.util.Collections;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.WeakHashMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javax.net.ssl.SSLException;
import javax.net.ssl.SSLPeerUnverifiedException;
import javax.net.ssl.SSLSession;
import lychnos.wire.fault.Refused;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.time.Ticker;
import lychnos.wire.tls.Shown;
import lychnos.wire.tls.TlsProvider;
import lychnos.wire.tls.TlsSeen;

/**
 * HTTPS exchanges. The certificate is compared with the remembered one after the handshake and before the request
 * leaves, so that a secret never reaches another machine. Redirects are not followed. Connections are kept for a few
 * seconds.
 */
public final class HttpCaller implements AutoCloseable {

    /** A resource of a management controller is a few kilobytes; more is garbage or an attack. */
    static final int LARGEST_ANSWER = 1_000_000;

    private static final int CONNECT_SECONDS = 4;
    /** A small controller that is busy besides takes seconds for the arithmetic. */
    private static final int HANDSHAKE_SECONDS = 8;

    private static final Duration PATIENCE = Duration.ofSeconds(CONNECT_SECONDS + HANDSHAKE_SECONDS);
    private static final int FRESH_TRIES = 2;
    private static final long LOOKED_FOR_MILLIS = 3000;
    private static final int MOST_KEPT = 2;
    /** A peer that refuses says so at once; one that takes its time would take it once more. */
    private static final Duration REFUSED_WITHIN = Duration.ofSeconds(2);

    private static final int MOST_NEED_JAVA = 10_000;
    private static final long FORGET_NANOS = 200_000_000;
    private static final long OLD_ENDS_MILLIS = 60_000;

    private final Vertx vertx;
    private final Clock clock;
    private final Ticker ticker;
    /** By peer, a request that nothing of was sent yet: its connection was looked at and waits for what comes next. */
    private final Map<InetSocketAddress, HttpClientRequest> looked = new ConcurrentHashMap<>();

    /** Connections that served an exchange or a look before. */
    private final Set<HttpConnection> used = Collections.newSetFromMap(new WeakHashMap<>());
    /** Peers that speak only what the best provider refuses. */
    private final Set<InetSocketAddress> needJava = ConcurrentHashMap.newKeySet();

    private final TlsProvider best;
    private volatile Map<TlsProvider, HttpClient> clients;
    private long madeAt;

    /**
     * @param clock the one by which sessions of TLS are dated
     * @param ticker by which the client grows old
     */
    public HttpCaller(Vertx vertx, Clock clock, Ticker ticker) {
        this(vertx, clock, ticker, TlsProvider.best());
    }

    HttpCaller(Vertx vertx, Clock clock, Ticker ticker, TlsProvider best) {
        this.best = best;
        this.vertx = vertx;
        this.clock = clock;
        this.ticker = ticker;
        clients = clients();
        madeAt = ticker.nanos() - FORGET_NANOS;
    }

    private Map<TlsProvider, HttpClient> clients() {
        Map<TlsProvider, HttpClient> made = new EnumMap<>(TlsProvider.class);
        made.put(TlsProvider.JAVA, client(TlsProvider.JAVA));
        made.computeIfAbsent(best, this::client);
        return made;
    }

    private HttpClient client(TlsProvider provider) {
        return vertx.createHttpClient(new HttpClientOptions()
                .setSsl(true)
                .setSslEngineOptions(provider.options())
                .setTrustAll(true)
                .setVerifyHost(false)
                .setConnectTimeout(CONNECT_SECONDS * 1000)
                .setSslHandshakeTimeout(HANDSHAKE_SECONDS)
                .setMaxPoolSize(MOST_KEPT)
                .setKeepAliveTimeout(3)
                .setDecompressionSupported(false));
    }

    /**
     * Shakes hands again and looks at what the peer shows. The connection serves the next exchange with it, if one
     * comes soon: a handshake is what costs a small controller most.
     *
     * @throws WireFault as an exchange does before anything is sent
     */
    public TlsSeen look(InetSocketAddress peer, Duration timeout) throws WireFault {
        let(looked.remove(peer));
        for (int i = 0; i < FRESH_TRIES; i++) {
            long begun = clock.millis();
            HttpClientRequest request = open(i == 0 ? clients : once(), "GET", "/", peer, timeout);
            request.exceptionHandler(fault -> {});
            request.connection().closeHandler(closed -> looked.remove(peer, request));
            SSLSession session = request.connection().sslSession();
            if (session == null) {
                drop(request); // the peer has closed it meanwhile
                continue;
            }
            // a connection that was kept, or a session that was resumed, shows what was shown before
            if (first(request) && (provider(peer) == TlsProvider.NATIVE || session.getCreationTime() >= begun)) {
                HttpClientRequest other = looked.put(peer, request);
                let(other);
                vertx.setTimer(LOOKED_FOR_MILLIS, timer -> {
                    if (looked.remove(peer, request)) {
                        let(request);
                    }
                });
                return seen(session, provider(peer));
            }
            drop(request);
        }
        throw new WireFault(Kind.NO_TLS, WireText.NO_HANDSHAKE.text());
    }

    /** Clients that keep no connection and remember no session, for a single look. */
    private Map<TlsProvider, HttpClient> once() {
        Map<TlsProvider, HttpClient> made = clients();
        vertx.setTimer(OLD_ENDS_MILLIS, timer -> made.values().forEach(HttpClient::close));
        return made;
    }

    private TlsProvider provider(InetSocketAddress peer) {
        return needJava.contains(peer) ? TlsProvider.JAVA : best;
    }

    /** Whether its connection serves for the first time. */
    private boolean first(HttpClientRequest request) {
        synchronized (used) {
            return used.add(request.connection());
        }
    }

    private static TlsSeen seen(SSLSession session, TlsProvider provider) throws WireFault {
        try {
            return Shown.of(session.getProtocol(), session.getPeerCertificates(), provider);
        } catch (SSLPeerUnverifiedException e) {
            throw new WireFault(Kind.NO_TLS, WireText.NO_CERTIFICATE.text(), e);
        }
    }

    private static void let(HttpClientRequest request) {
        if (request != null) {
            drop(request);
        }
    }

    /** Carries out one exchange and waits for it. */
    public HttpAnswer call(HttpCall call, InetSocketAddress peer) throws WireFault {
        HttpClientRequest request = openPinned(call, peer);
        // a fault reaches the caller through the answer's future; the request's own handler has nothing to add
        request.exceptionHandler(fault -> {});
        String shown = fingerprint(request);
        call.headers().forEach(request::putHeader);
        // the reader is attached before anything is sent: an answer that is quicker than this thread would pass unread
        CompletableFuture<HttpAnswer> future = request.response()
                .compose(response -> read(response, shown))
                .toCompletionStage()
                .toCompletableFuture();
        if (call.body() == null) {
            request.end();
        } else {
            request.end(Buffer.buffer(call.body()));
        }
        try {
            return future.get(call.timeout().toMillis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException e) {
            request.connection().close();
            throw new WireFault(
                    Kind.UNKNOWN_OUTCOME,
                    WireText.NO_ANSWER_TO_REQUEST.text(call.timeout().toSeconds()),
                    e);
        } catch (ExecutionException e) {
            request.connection().close();
            if (e.getCause() instanceof WireFault fault) {
                throw fault;
            }
            throw new WireFault(
                    Kind.UNKNOWN_OUTCOME,
                    WireText.ENDED_BEFORE_ANSWER.text(e.getCause().getMessage()),
                    e.getCause());
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
        // a connection that was kept, or a session that was resumed (RFC 8446, section 2.2), shows what it was made
        // with
        forget();
        request = open(call, peer);
        String shown = fingerprint(request);
        if (!pinned.equals(shown)) {
            drop(request);
            throw new WireFault(
                    Kind.OTHER_CERTIFICATE, WireText.OTHER_CERTIFICATE.text(shorten(shown), shorten(pinned)));
        }
        return request;
    }

    private static void drop(HttpClientRequest request) {
        request.reset();
        request.connection().close();
    }

    /**
     * Goes on with a client that remembers no session; a running exchange ends with the old
     * one.
     */
    private synchronized void forget() {
        if (ticker.nanos() - madeAt < FORGET_NANOS) {
            return; // somebody else has just done so
        }
        Map<TlsProvider, HttpClient> old = clients;
        clients = clients();
        madeAt = ticker.nanos();
        vertx.setTimer(OLD_ENDS_MILLIS, timer -> old.values().forEach(HttpClient::close));
    }

    private HttpClientRequest open(HttpCall call, InetSocketAddress peer) throws WireFault {
        HttpClientRequest waiting = looked.remove(peer);
        if (waiting != null && !ended(waiting)) {
            return waiting.setMethod(HttpMethod.valueOf(call.method())).setURI(call.path());
        }
        let(waiting);
        for (int i = 0; i < FRESH_TRIES; i++) {
            HttpClientRequest request = open(clients, call.method(), call.path(), peer, PATIENCE);
            first(request);
            if (!ended(request)) {
                return request;
            }
            drop(request);
        }
        throw new WireFault(Kind.SILENT, WireText.CONNECTION_ENDED.text());
    }

    /** Whether the peer has ended the connection before anything was sent: it then has no certificate any more. */
    private static boolean ended(HttpClientRequest request) {
        return request.connection().sslSession() == null;
    }

    /** Opens with the best provider; with Java's own where the peer and the best one do not agree on TLS. */
    private HttpClientRequest open(
            Map<TlsProvider, HttpClient> through, String method, String path, InetSocketAddress peer, Duration timeout)
            throws WireFault {
        TlsProvider provider = provider(peer);
        long begun = ticker.nanos();
        try {
            return open(through.get(provider), method, path, peer, timeout);
        } catch (WireFault e) {
            Duration took = Duration.ofNanos(ticker.nanos() - begun);
            boolean refused = e.kind() == Kind.NO_TLS && took.compareTo(REFUSED_WITHIN) < 0;
            if (provider == TlsProvider.JAVA || !refused || took.compareTo(timeout) >= 0) {
                throw e;
            }
            HttpClientRequest request = open(through.get(TlsProvider.JAVA), method, path, peer, timeout.minus(took));
            if (needJava.size() >= MOST_NEED_JAVA) {
                needJava.clear(); // they are found again
            }
            needJava.add(peer);
            return request;
        }
    }

    private HttpClientRequest open(
            HttpClient client, String method, String path, InetSocketAddress peer, Duration timeout) throws WireFault {
        RequestOptions options = new RequestOptions()
                .setHost(peer.getAddress().getHostAddress())
                .setPort(peer.getPort())
                .setURI(path)
                .setMethod(HttpMethod.valueOf(method))
                .setFollowRedirects(false);
        CompletableFuture<HttpClientRequest> opening =
                client.request(options).toCompletionStage().toCompletableFuture();
        try {
            return opening.get(timeout.toMillis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException e) {
            opening.thenAccept(HttpClientRequest::reset);
            throw new WireFault(Kind.SILENT, WireText.NO_CONNECTION_IN.text(timeout.toSeconds()), e);
        } catch (ExecutionException e) {
            Throwable cause = e.getCause();
            if (cause instanceof SSLException) {
                throw new WireFault(Kind.NO_TLS, WireText.TLS_FAILED.text(), cause);
            }
            throw Refused.orNone(cause);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new WireFault(Kind.SILENT, "interrupted", e);
        }
    }

    private static String fingerprint(HttpClientRequest request) throws WireFault {
        try {
            List<Certificate> shown = request.connection().peerCertificates();
            if (shown == null) { // the peer has ended it just now
                throw new WireFault(Kind.SILENT, WireText.CONNECTION_ENDED.text());
            }
            return Shown.fingerprint(shown.get(0));
        } catch (SSLException e) {
            throw new WireFault(Kind.NO_TLS, WireText.NO_CERTIFICATE.text(), e);
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
                promise.tryFail(new WireFault(Kind.GARBAGE, WireText.ANSWER_TOO_LARGE.text(LARGEST_ANSWER)));
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
        clients.values().forEach(HttpClient::close);
    }
}
