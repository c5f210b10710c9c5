package lychnos.lab;

import io.vertx.core.Vertx;
import io.vertx.core.http.HttpServer;
import io.vertx.core.http.HttpServerOptions;
import io.vertx.core.http.HttpServerRequest;
import java.time.Duration;
import java.util.Set;

/**
 * A small machine without any interface but its pages: as delivered it shows one form over HTTP, and once that is
 * filled in, an HTTPS page to sign in at the address that was typed. Nothing on the network says which machine it is;
 * its serial stands on its form and on its plate.
 */
public final class OwnPages {

    private static final int FORM_PORT = 80;
    private static final int PAGE_PORT = 443;
    private static final int LARGEST_FORM = 2_000;
    private static final Duration RESTART = Duration.ofMillis(200);

    private final Vertx vertx;
    private final Plug plug;
    private final MachineSpec spec;
    private final int index;
    private final WebKey key;
    private HttpServer server;

    /** @param index which interface of the hall it is plugged into; no other machine has the same */
    public OwnPages(Vertx vertx, Plug plug, MachineSpec spec, int index) {
        this.vertx = vertx;
        this.plug = plug;
        this.spec = spec;
        this.index = index;
        key = new WebKey(null, spec.serial().toLowerCase(java.util.Locale.ROOT), 730);
    }

    /** Power comes for the first time. */
    public void powerOn() {
        plug.connect(spec, index);
        plug.addAddress(spec, index, spec.firstAddress());
        server = vertx.createHttpServer().requestHandler(this::form);
        server.listen(FORM_PORT, spec.firstAddress())
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    private void form(HttpServerRequest request) {
        request.setExpectMultipart(true).body().onSuccess(body -> {
            if (body.length() > LARGEST_FORM) {
                request.response().setStatusCode(413).end();
                return;
            }
            String address = request.getFormAttribute("address");
            String password = request.getFormAttribute("password");
            Set<String> wrong = wrong(address, password);
            if (wrong.isEmpty()) {
                request.response().end(page("Stored, and restarting"));
                vertx.setTimer(
                        RESTART.toMillis(),
                        moment -> vertx.executeBlocking(() -> {
                            moveTo(address);
                            return null;
                        }));
            } else {
                request.response()
                        .end(page("<form method=post><p>To correct: " + String.join(", ", wrong)
                                + "<p><label>Address <input name=address></label>"
                                + "<p><label>Password <input name=password type=password></label><button>Store"
                                + "</button></form>"));
            }
        });
    }

    private static Set<String> wrong(String address, String password) {
        Set<String> wrong = new java.util.TreeSet<>();
        if (address == null || !address.matches("[0-9.]{7,15}")) {
            wrong.add("address");
        }
        if (password == null || password.length() < 10) {
            wrong.add("password");
        }
        return wrong;
    }

    private String page(String body) {
        return "<!doctype html><html lang=en><title>Sleddale meter</title><p>Sleddale " + spec.serial() + "</p>" + body;
    }

    private synchronized void moveTo(String address) {
        server.close().toCompletionStage().toCompletableFuture().join();
        plug.removeAddress(spec, index, spec.firstAddress());
        plug.addAddress(spec, index, address);
        server = vertx.createHttpServer(new HttpServerOptions().setSsl(true).setKeyCertOptions(key.shown()));
        server.requestHandler(request -> request.response()
                .putHeader("Content-Type", "text/html")
                .end("<!doctype html><html lang=en><title>Sleddale meter</title><form method=post>"
                        + "<label>Password <input type=password name=password></label><button>Sign in</button>"
                        + "</form>"));
        server.listen(PAGE_PORT, address)
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }
}
