package lychnos.lab.console;

import io.vertx.core.Handler;
import io.vertx.core.Vertx;
import io.vertx.core.http.HttpMethod;
import io.vertx.core.http.HttpServer;
import io.vertx.core.http.HttpServerOptions;
import io.vertx.core.http.HttpServerRequest;
import java.security.KeyPair;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.Supplier;
import lychnos.lab.KeyFile;
import lychnos.lab.MachineSpec;
import lychnos.lab.Plug;
import lychnos.lab.WebKey;

/**
 * What a machine shows the network at each address that it has: a sign-in page over HTTPS, and an SSH server that lets
 * nobody in unless the machine has a shell for it.
 */
final class Face {

    private static final int DAYS = 365;
    private static final String FORM =
            "<form method=post><input name=user><input name=phrase type=password>" + "<button>Sign in</button></form>";

    private final Vertx vertx;
    private final Plug plug;
    private final MachineSpec spec;
    private final int index;
    private final int port;
    private final String software;
    private final Supplier<String> title;
    private ServedPages interfaces;
    private SshDoors.Shell shell;
    private Predicate<String> allowed = address -> true;
    private boolean ssh = true;
    private final Map<String, HttpServer> pages = new LinkedHashMap<>();
    private final Set<String> quiet = new LinkedHashSet<>();
    private final Memory memory;
    private WebKey key;
    private KeyPair hostKey;

    Face(
            Vertx vertx,
            Plug plug,
            MachineSpec spec,
            int index,
            int port,
            String software,
            Supplier<String> title,
            Memory memory) {
        this.vertx = vertx;
        this.plug = plug;
        this.spec = spec;
        this.index = index;
        this.port = port;
        this.software = software;
        this.title = title;
        this.memory = memory;
        plug.connect(spec, index);
    }

    synchronized void show(String address) {
        if (pages.containsKey(address)) {
            return;
        }
        plug.addAddress(spec, index, address);
        HttpServer page =
                vertx.createHttpServer(new HttpServerOptions().setSsl(true).setKeyCertOptions(key().shown()));
        page.requestHandler(request -> {
            if (interfaces != null && request.path().startsWith(ServedPages.ROOT + "/")) {
                interfaces.handle(request);
                return;
            }
            if (request.method() == HttpMethod.POST && shell != null) {
                request.setExpectMultipart(true);
                request.body().onSuccess(body -> signIn(request));
                return;
            }
            page(request, FORM);
        });
        page.listen(port, address).toCompletionStage().toCompletableFuture().join();
        pages.put(address, page);
        openSsh(address);
    }

    private void page(HttpServerRequest request, String body) {
        request.response()
                .putHeader("Content-Type", "text/html; charset=utf-8")
                .end("<!doctype html><title>" + title.get() + "</title><h1>" + title.get() + "</h1>" + body);
    }

    /** Lets the same people in as over SSH. */
    private void signIn(HttpServerRequest request) {
        String user = request.getFormAttribute("user");
        String phrase = request.getFormAttribute("phrase");
        boolean admitted = user != null && phrase != null && shell.knows(user, phrase);
        memory.add(admitted ? "seen.pageLogins" : "seen.refusedPageLogins");
        page(request, admitted ? "<p>Signed in as " + user + "." : "<p role=alert>Wrong user or password.</p>" + FORM);
    }

    private void openSsh(String address) {
        if (port == 443 && ssh) {
            SshDoors.open(address, new SshDoors.Door(software, hostKey(), shell, allowed));
        }
    }

    /** Whether SSH answers, from now on. */
    synchronized void withSsh(boolean on) {
        if (ssh != on) {
            ssh = on;
            pages.keySet().forEach(on ? this::openSsh : SshDoors::close);
        }
    }

    /** Has an address that answers ping and serves nothing. */
    synchronized void showQuietly(String address) {
        if (quiet.add(address)) {
            plug.addAddress(spec, index, address);
        }
    }

    /** A machine keeps its certificate over a restart. */
    synchronized WebKey key() {
        if (key == null) {
            key = new WebKey(memory.beside("web"), spec.serial().toLowerCase(Locale.ROOT), DAYS);
        }
        return key;
    }

    private KeyPair hostKey() {
        if (hostKey == null) {
            hostKey = KeyFile.pair(memory.beside("ssh"));
        }
        return hostKey;
    }

    /** Has the machine's documented interface beside its sign-in page. */
    void serve(ServedPages.Pages pages) {
        interfaces = new ServedPages(vertx, pages);
    }

    /** Lets people sign in over SSH. */
    void overSsh(SshDoors.Shell to) {
        shell = to;
    }

    /** Lets people sign in over SSH from some addresses only. */
    void overSsh(SshDoors.Shell to, Predicate<String> from) {
        shell = to;
        allowed = from;
    }

    /** Serves pages in the clear at an address, as a service port does. */
    synchronized HttpServer plain(String address, int plainPort, Handler<HttpServerRequest> pages) {
        plug.addAddress(spec, index, address);
        HttpServer server = vertx.createHttpServer().requestHandler(pages);
        server.listen(plainPort, address)
                .toCompletionStage()
                .toCompletableFuture()
                .join();
        return server;
    }

    synchronized void endPlain(String address, HttpServer server) {
        server.close().toCompletionStage().toCompletableFuture().join();
        plug.removeAddress(spec, index, address);
    }

    /** The port for pages in the clear that goes with its own. */
    int plainPort() {
        return port == 443 ? 80 : port + 1;
    }

    synchronized void hide() {
        for (String address : pages.keySet()) {
            pages.get(address).close().toCompletionStage().toCompletableFuture().join();
            SshDoors.close(address);
            plug.removeAddress(spec, index, address);
        }
        pages.clear();
        quiet.forEach(address -> plug.removeAddress(spec, index, address));
        quiet.clear();
    }
}
