package lychnos.server.api;

import io.vertx.core.buffer.Buffer;
import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.HttpServerRequest;
import io.vertx.core.json.JsonObject;
import io.vertx.ext.web.Router;
import io.vertx.ext.web.RoutingContext;
import io.vertx.ext.web.handler.BodyHandler;
import io.vertx.ext.web.impl.RoutingContextInternal;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.net.URI;
import java.util.Set;
import lychnos.core.kind.KindPackage;
import lychnos.server.LychnosConfig;
import lychnos.server.text.ApiText;

/**
 * What every request passes before anybody asks who sends it.
 *
 * <ul>
 *   <li>Something is changed, or a socket opened, from pages of this server alone: a page of another origin, which may
 * be a machine
 *       in the same domain, is refused (Fetch Metadata, and Origin of RFC 6454). Programs send neither header and are
 * let through:
 *       a browser always sends one.
 *   <li>A body is read before a worker takes the request, within a time and a size, so that slow senders hold
 * connections and
 *       nothing else.
 *   <li>Answers of the interface are stored nowhere, and missing files of the page are not cached.
 * </ul>
 */
@ApplicationScoped
public class Door {

    private static final int HEADERS = -990;
    private static final int ORIGIN = -980;
    private static final int BODY = -970;
    private static final int HAS_BODY = -969;
    private static final String READING = "lychnos.body.timer";
    /** Routes that anybody may call take a login and a password, and nothing longer. */
    private static final Set<String> OPEN =
            Set.of("/api/session", "/api/first-lead", "/api/invitation", "/api/invitation/password");

    private static final long OPEN_BYTES = 4096;
    private static final long OPEN_MILLIS = 10_000;
    /** Without a session or a token nothing longer is read either: it would be refused anyway. */
    private static final long UNKNOWN_BYTES = 16 * 1024;

    private static final long MOST_BYTES = 5 * 1024 * 1024;
    /** A kind with its recordings may be larger than anything else that is sent. */
    private static final Set<String> PACKAGES = Set.of("/api/kinds/packages", "/api/kinds/packages/check");

    private static final long MOST_BYTES_OF_A_PACKAGE = KindPackage.MOST_BYTES + 1024;
    private static final long BODY_MILLIS = 30_000;
    private static final Set<HttpMethod> SAFE = Set.of(HttpMethod.GET, HttpMethod.HEAD, HttpMethod.OPTIONS);

    private final LychnosConfig config;

    Door(LychnosConfig config) {
        this.config = config;
    }

    void install(@Observes Router router) {
        router.route().order(HEADERS).handler(this::headers);
        router.route("/api/*").order(ORIGIN).handler(Door::origin);
        BodyHandler open = BodyHandler.create(false).setBodyLimit(OPEN_BYTES);
        BodyHandler unknown = BodyHandler.create(false).setBodyLimit(UNKNOWN_BYTES);
        BodyHandler known = BodyHandler.create(false).setBodyLimit(MOST_BYTES);
        BodyHandler packages = BodyHandler.create(false).setBodyLimit(MOST_BYTES_OF_A_PACKAGE);
        router.route("/api/*")
                .order(BODY)
                .handler(context -> read(
                        context,
                        open,
                        unknown,
                        PACKAGES.contains(context.request().path()) ? packages : known))
                .failureHandler(Door::failed);
        router.route("/api/*").order(HAS_BODY).handler(Door::bodyIsRead);
    }

    private void headers(RoutingContext context) {
        if (config.cookieSecure()) {
            context.response().putHeader("Strict-Transport-Security", "max-age=31536000");
        }
        boolean api = context.request().path().startsWith("/api/");
        boolean asset = context.request().path().startsWith("/assets/");
        if (api || asset) {
            context.addHeadersEndHandler(done -> {
                if (api && !context.response().headers().contains("Cache-Control")) {
                    context.response().putHeader("Cache-Control", "no-store");
                } else if (asset) {
                    boolean found = context.response().getStatusCode() == 200
                            || context.response().getStatusCode() == 304;
                    context.response()
                            .putHeader("Cache-Control", found ? "public, max-age=31536000, immutable" : "no-store");
                }
            });
        }
        context.next();
    }

    private static void origin(RoutingContext context) {
        HttpServerRequest request = context.request();
        boolean upgrade = "websocket".equalsIgnoreCase(request.getHeader("Upgrade"));
        if (SAFE.contains(request.method()) && !upgrade) {
            context.next();
        } else if (isForeign(request)) {
            refuse(context, 403, ApiText.NOT_ALLOWED.text(), ApiText.REQUEST_COMES_FROM_ANOTHER_ORIGIN.text());
        } else {
            context.next();
        }
    }

    private static boolean isForeign(HttpServerRequest request) {
        String site = request.getHeader("Sec-Fetch-Site");
        if (site != null && !site.equals("same-origin")) {
            return true;
        }
        String origin = request.getHeader("Origin");
        if (origin == null) {
            return false;
        }
        try {
            URI uri = URI.create(origin);
            int port = uri.getPort() >= 0 ? uri.getPort() : "https".equals(uri.getScheme()) ? 443 : 80;
            int own = request.authority() == null
                    ? -1
                    : request.authority().port() > 0
                            ? request.authority().port()
                            : port == 443 || port == 80 ? port : -1;
            return uri.getHost() == null
                    || request.authority() == null
                    || !uri.getHost().equalsIgnoreCase(request.authority().host())
                    || port != own;
        } catch (IllegalArgumentException e) {
            return true;
        }
    }

    private static void read(RoutingContext context, BodyHandler open, BodyHandler unknown, BodyHandler known) {
        HttpServerRequest request = context.request();
        if (SAFE.contains(request.method()) || "websocket".equalsIgnoreCase(request.getHeader("Upgrade"))) {
            context.next();
            return;
        }
        boolean isOpen = OPEN.contains(request.path());
        boolean isKnown = request.getHeader("Authorization") != null || request.getHeader("Cookie") != null;
        context.put(
                READING,
                context.vertx().setTimer(isOpen || !isKnown ? OPEN_MILLIS : BODY_MILLIS, late -> request.connection()
                        .close()));
        (isOpen ? open : isKnown ? known : unknown).handle(context);
    }

    private static void bodyIsRead(RoutingContext context) {
        stopTimer(context);
        if (context.body().buffer() == null && !SAFE.contains(context.request().method())) {
            // an empty one too is read: else it would be waited for
            ((RoutingContextInternal) context).setBody(Buffer.buffer());
        }
        context.next();
    }

    private static void stopTimer(RoutingContext context) {
        Long timer = context.remove(READING);
        if (timer != null) {
            context.vertx().cancelTimer(timer);
        }
    }

    /** A failure of what comes later is not ours. */
    private static void failed(RoutingContext context) {
        if (context.get(READING) == null) {
            context.next();
            return;
        }
        stopTimer(context);
        int status = context.statusCode() >= 400 ? context.statusCode() : 400;
        refuse(
                context,
                status,
                status == 413 ? ApiText.TOO_LARGE.text() : ApiText.NOT_UNDERSTOOD.text(),
                status == 413
                        ? ApiText.BODY_IS_TOO_LARGE_FOR_THIS_ROUTE.text()
                        : ApiText.BODY_OF_THE_REQUEST_COULD_NOT_BE_READ.text());
    }

    private static void refuse(RoutingContext context, int status, String title, String detail) {
        JsonObject problem = new JsonObject()
                .put("type", "about:blank")
                .put("title", title)
                .put("status", status)
                .put("detail", detail);
        context.response()
                .setStatusCode(status)
                .putHeader("Content-Type", "application/problem+json")
                .putHeader("Connection", "close")
                .end(problem.encode());
    }
}
