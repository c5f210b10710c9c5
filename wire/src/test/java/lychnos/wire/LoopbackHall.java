package lychnos.wire;

import io.vertx.core.Vertx;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Settings;
import lychnos.lab.Controller;
import lychnos.lab.Machine;
import lychnos.lab.MachineSpec;
import lychnos.lab.Plug;
import lychnos.lab.Quirk;
import lychnos.lab.hall.Hall;
import lychnos.wire.dial.Dialler;
import lychnos.wire.ladder.Target;
import lychnos.wire.vantage.LocalVantage;

/** One stand-in on loopback and a vantage that reaches it. */
public final class LoopbackHall implements AutoCloseable {

    public static final int PORT = 18443;
    public static final String SERIAL = "BF-1";
    public static final Mac MAC = Mac.parse("02:4c:59:a1:00:01");
    public static final Address FIRST = Address.parse("127.40.8.10");
    public static final Address PLANNED = Address.parse("127.40.8.101");
    public static final Secret OURS = Secret.of("Kdf8RtB5nHs3LxVc7TpG");
    public static final Kind.Login FACTORY =
            new Kind.Login(Controller.FACTORY_USER, Secret.of(Controller.FACTORY_PHRASE));

    public final Vertx vertx = Vertx.vertx();
    public final LocalVantage vantage =
            new LocalVantage("test", false, new Dialler(() -> List.of(Prefix.parse("127.40.0.0/16")), true), vertx);
    public final Hall hall;

    public LoopbackHall(Quirk... quirks) {
        this(null, quirks);
    }

    /** @param state where the machine keeps what it must not forget without power */
    public LoopbackHall(Path state, Quirk... quirks) {
        hall = new Hall(
                List.of(MachineSpec.of(SERIAL, MAC.toString(), FIRST.toString(), quirks)),
                Plug.loopback(),
                PORT,
                Duration.ofMillis(20),
                state);
    }

    public Machine machine() {
        return hall.machine(SERIAL);
    }

    public static Settings plan() {
        return new Settings(
                PLANNED,
                Address.parse("255.255.255.0"),
                Address.parse("127.40.8.1"),
                false,
                "ard-srv-001-oob",
                "ard-srv-001-oob.ardal.example",
                List.of("127.40.8.3", "127.40.8.4"),
                List.of("127.40.8.6", "127.40.8.7"),
                true);
    }

    /** The endpoint at an address, judged with our password on it. */
    public Target target(Address address, String fingerprint) {
        return new Target(
                address,
                PORT,
                SERIAL,
                MAC,
                plan(),
                new Target.Login(Controller.FACTORY_USER, OURS),
                fingerprint,
                FACTORY,
                List.of(23));
    }

    /** Waits for a condition, at most so long. */
    public static void until(String what, java.util.function.BooleanSupplier holds) {
        long deadline = System.nanoTime() + Duration.ofSeconds(20).toNanos();
        while (!holds.getAsBoolean()) {
            if (System.nanoTime() > deadline) {
                throw new AssertionError("never: " + what);
            }
            java.util.concurrent.locks.LockSupport.parkNanos(2_000_000);
        }
    }

    @Override
    public void close() {
        hall.close();
        vantage.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }
}
