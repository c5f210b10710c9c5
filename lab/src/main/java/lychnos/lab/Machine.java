package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.vertx.core.Context;
import io.vertx.core.Vertx;
import io.vertx.core.http.HttpServer;
import io.vertx.core.http.HttpServerOptions;
import io.vertx.core.net.KeyCertOptions;
import io.vertx.core.net.NetServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.function.Consumer;

/**
 * One stand-in management controller: its power, its place on the wire and its web service. What the service says and
 * keeps is in {@link Controller}.
 */
public final class Machine {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final Vertx vertx;
    private final Plug plug;
    private final MachineSpec spec;
    private final int index;
    private final int port;
    private final Duration restart;
    private final Path kept;
    private final Consumer<Machine> changed;
    private final Controller controller;
    private final WebKey key;
    private HttpServer server;
    private HttpServer server6;
    private NetServer telnet;
    private PresencePort presence;
    private AgentPort agent;
    private volatile String address;
    private volatile String address6;
    private volatile String comesUpAt;
    private volatile int restarts;

    /**
     * @param kept where it keeps what it must not forget while it has no power, its key beside it; null where it need
     * not outlive the process
     * @param changed is told of each change
     */
    public Machine(
            Vertx vertx,
            Plug plug,
            MachineSpec spec,
            int index,
            int port,
            Duration restart,
            Path kept,
            Consumer<Machine> changed) {
        this.vertx = vertx;
        this.plug = plug;
        this.spec = spec;
        this.index = index;
        this.port = port;
        this.restart = restart;
        this.kept = kept;
        this.changed = changed;
        this.key = new WebKey(
                kept == null ? null : kept.resolveSibling(kept.getFileName() + ".pem"),
                spec.serial().toLowerCase(java.util.Locale.ROOT),
                730);
        this.controller = new Controller(spec, key, this::move, this::keep);
        this.comesUpAt = spec.firstAddress();
        if (kept != null && Files.exists(kept)) {
            recall();
        }
    }

    /** Power comes, for the first time or after it was cut. */
    public void powerOn() {
        plug.connect(spec, index);
        if (restarts == 0 || comesBack()) {
            comeUp(comesUpAt);
        }
    }

    private boolean comesBack() {
        return !spec.quirks().contains(Quirk.NEVER_BACK) && controller.carried();
    }

    private void recall() {
        try {
            JsonNode all = JSON.readTree(kept.toFile());
            restarts = all.path("restarts").asInt();
            comesUpAt = all.path("comesUpAt").asText();
            controller.recall(all.path("controller"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void keep() {
        if (kept != null) {
            ObjectNode all = JSON.createObjectNode().put("restarts", restarts).put("comesUpAt", comesUpAt);
            all.set("controller", controller.kept());
            WholeFile.write(kept, all.toString());
        }
        changed.accept(this);
    }

    public MachineSpec spec() {
        return spec;
    }

    public Controller controller() {
        return controller;
    }

    /** Where it answers now, or null while it restarts. */
    public String address() {
        return address;
    }

    /** Where it answers over IPv6 now, or null. */
    public String address6() {
        return address6;
    }

    public int restarts() {
        return restarts;
    }

    private synchronized void comeUp(String at) {
        plug.addAddress(spec, index, at);
        boolean moved = restarts > 0;
        boolean expired = moved && spec.quirks().contains(Quirk.WRONG_CERTIFICATE);
        KeyCertOptions shown = expired ? Certificates.selfSigned("old", -800, -70) : key.shown();
        boolean garbage = moved && spec.quirks().contains(Quirk.GARBAGE);
        server = serve(shown, garbage, at);
        String six = controller.address6();
        if (!six.isEmpty()) {
            plug.addAddress(spec, index, six);
            server6 = serve(shown, garbage, six);
            address6 = six;
        }
        if (spec.quirks().contains(Quirk.TELNET_OPEN)) {
            telnet = vertx.createNetServer().connectHandler(socket -> socket.write("login: "));
            await(telnet.listen(23, at));
        }
        if (port == 443 && !spec.quirks().contains(Quirk.NO_PRESENCE)) {
            presence = new PresencePort(vertx, at);
        }
        if (spec.quirks().contains(Quirk.ANSWERS_SNMP)) {
            agent = new AgentPort(vertx, at);
        }
        address = at;
        comesUpAt = at;
        keep();
    }

    private HttpServer serve(KeyCertOptions shown, boolean garbage, String at) {
        HttpServer web = vertx.createHttpServer(
                new HttpServerOptions().setSsl(true).setKeyCertOptions(shown).setIdleTimeout(30));
        web.requestHandler(request -> {
            if (garbage) {
                request.response().putHeader("Content-Type", "text/html").end("<h1>It works?");
            } else {
                controller.handle(request);
            }
        });
        await(web.listen(port, at));
        return web;
    }

    private static void await(io.vertx.core.Future<?> future) {
        if (!Context.isOnEventLoopThread()) {
            future.toCompletionStage().toCompletableFuture().join();
        }
    }

    private synchronized void goDown() {
        await(server.close());
        if (server6 != null) {
            await(server6.close());
            plug.removeAddress(spec, index, address6);
            server6 = null;
            address6 = null;
        }
        if (telnet != null) {
            await(telnet.close());
        }
        if (presence != null) {
            presence.close();
        }
        if (agent != null) {
            agent.close();
        }
        plug.removeAddress(spec, index, address);
        address = null;
        keep();
    }

    /** Shows a certificate of somebody's own making from now on, as after an update that nobody announced. */
    public void showOther(KeyCertOptions other) {
        key.show(other);
    }

    /** Restarts at another address, as an address change makes it do. */
    private void move(String to) {
        String old = address();
        if (old == null) {
            return;
        }
        // a moment, so that the answer to the request that asked for it can leave
        String next = spec.quirks().contains(Quirk.BACK_AT_OLD) ? old : to;
        vertx.setTimer(150, moment -> vertx.executeBlocking(() -> {
                    comesUpAt = next;
                    restarts++;
                    goDown();
                    return null;
                })
                .onSuccess(down -> {
                    if (comesBack()) {
                        vertx.setTimer(
                                Math.max(1, restart.toMillis()),
                                up -> vertx.executeBlocking(() -> {
                                    comeUp(next);
                                    return null;
                                }));
                    }
                }));
    }

    /** Switches it off for good. */
    public synchronized void powerOff() {
        if (address != null) {
            goDown();
        }
    }
}
