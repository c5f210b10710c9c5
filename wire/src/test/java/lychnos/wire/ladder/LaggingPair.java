package lychnos.wire.ladder;

import static org.junit.jupiter.api.Assertions.assertEquals;

import io.vertx.core.Vertx;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Secret;
import lychnos.wire.console.Peer;
import lychnos.wire.dial.Dialler;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.Pushed;
import lychnos.wire.dns.ZoneRecord;
import lychnos.wire.vantage.LocalVantage;

/** Two servers of BIND 9, of which the first one is told of a record and keeps it to itself. */
final class LaggingPair implements AutoCloseable {

    private static final String ZONE = "ardal.example";
    private static final String KEY = "bGFnZ2luZy1wYWlyLWtleS1vZi10aGUtbGl2ZS10ZXN0";

    final Address primary = Address.parse("127.40.43.53");
    final Address lagging = Address.parse("127.40.43.54");
    private final Peer first;
    private final Peer second;

    LaggingPair(Path directory) throws IOException, InterruptedException {
        // it listens at addresses that an interface has, and at no others of 127.0.0.0/8
        onLoopback("add");
        Path own = Files.createDirectory(directory.resolve("primary"));
        Files.writeString(
                own.resolve("zone"),
                "$TTL 3600\n@ IN SOA ns1.ardal.example. hall.ardal.example. ( 1 900 300 86400 300 )\n@ IN NS "
                        + "ns1.ardal.example.\nns1 IN A 10.40.8.3\n");
        first = named(
                own,
                primary,
                "type primary; file \"zone\"; update-policy { grant pair zonesub ANY; }; allow-transfer { any; };");
        Path copy = Files.createDirectory(directory.resolve("lagging"));
        second = named(copy, lagging, "type secondary; file \"copy\"; primaries { " + primary + "; };");
        second.await("Transfer status: success");
    }

    private void onLoopback(String what) throws IOException, InterruptedException {
        for (Address each : List.of(primary, lagging)) {
            assertEquals(
                    0,
                    new ProcessBuilder("ip", "addr", what, each + "/32", "dev", "lo")
                            .inheritIO()
                            .start()
                            .waitFor());
        }
    }

    private static Peer named(Path directory, Address address, String zone) throws IOException, InterruptedException {
        Path settings = Files.writeString(
                directory.resolve("named.conf"),
                """
                options { directory "%1$s"; pid-file "%1$s/pid"; session-keyfile "%1$s/session.key";
                 managed-keys-directory "%1$s";
                 listen-on { %2$s; }; listen-on-v6 { none; }; transfer-source %2$s;
                 recursion no; dnssec-validation no; empty-zones-enable no; notify no; };
                controls { };
                key "pair" { algorithm hmac-sha256; secret "%3$s"; };
                zone "%4$s" { %5$s };
                """
                        .formatted(directory, address, KEY, ZONE, zone));
        Peer named = Peer.start(List.of(Peer.program("named"), "-c", settings.toString(), "-n", "1", "-g", "-4"));
        named.await("running");
        return named;
    }

    /** Tells the first one of a record. */
    void put(ZoneRecord record) throws Exception {
        Vertx vertx = Vertx.vertx();
        try (LocalVantage here = new LocalVantage(
                "here", false, new Dialler(() -> List.of(Prefix.parse("127.40.43.0/24")), true), vertx)) {
            assertEquals(
                    Pushed.State.DONE,
                    here.makeRecords(
                                    primary,
                                    ZONE,
                                    new NameKey("pair", Secret.of(KEY)),
                                    List.of(record),
                                    Duration.ofSeconds(5))
                            .get(0)
                            .state());
        } finally {
            vertx.close().toCompletionStage().toCompletableFuture().join();
        }
    }

    @Override
    public void close() throws IOException, InterruptedException {
        second.close();
        first.close();
        onLoopback("del");
    }
}
