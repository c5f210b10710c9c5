package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.http.HttpServer;
import io.vertx.core.http.HttpServerOptions;
import io.vertx.core.http.HttpServerRequest;
import io.vertx.core.net.KeyCertOptions;
import java.util.Objects;

/** The web services of a Seathwaite node: its own pages, and the console of the cluster that it has made. */
final class StoreWeb {

    private static final int PAGES_PORT = 4443;

    private final Vertx vertx;
    private final ServedPages served;
    private final String serial;
    private final KeyCertOptions certificate;
    private HttpServer pages;
    private HttpServer console;
    private String pagesAt;

    StoreWeb(Vertx vertx, ServedPages served, String serial, KeyCertOptions certificate) {
        this.vertx = vertx;
        this.served = served;
        this.serial = serial;
        this.certificate = certificate;
    }

    /** Shows the node's pages at an address, and no longer at the one before; null for nowhere. */
    synchronized void showPages(String at) {
        if (Objects.equals(at, pagesAt)) {
            return;
        }
        pagesAt = at;
        if (pages != null) {
            pages.close().toCompletionStage().toCompletableFuture().join();
            pages = null;
        }
        if (at != null) {
            pages = secure(at, PAGES_PORT);
            pages.requestHandler(this::answer)
                    .listen()
                    .toCompletionStage()
                    .toCompletableFuture()
                    .join();
        }
    }

    private void answer(HttpServerRequest request) {
        if (request.path().startsWith(ServedPages.ROOT + "/")) {
            served.handle(request);
        } else {
            request.response()
                    .putHeader("Content-Type", "text/html; charset=utf-8")
                    .end("<!doctype html><title>Seathwaite node</title><h1>Seathwaite node " + serial
                            + "</h1><p>Its setup is at " + ServedPages.ROOT + ".");
        }
    }

    private HttpServer secure(String at, int port) {
        return vertx.createHttpServer(new HttpServerOptions()
                .setSsl(true)
                .setKeyCertOptions(certificate)
                .setHost(at)
                .setPort(port));
    }

    void showConsole(String at, int port, String cluster) {
        console = secure(at, port);
        console.requestHandler(request -> request.response()
                .putHeader("Content-Type", "text/html; charset=utf-8")
                .end("<!doctype html><title>Seathwaite console</title><h1>Seathwaite console, "
                        + cluster
                        + "</h1><form method=post><input name=user><input name=phrase "
                        + "type=password><button>Sign in</button></form>"));
        console.listen().toCompletionStage().toCompletableFuture().join();
    }

    void close() {
        showPages(null);
        if (console != null) {
            console.close().toCompletionStage().toCompletableFuture().join();
        }
    }
}
