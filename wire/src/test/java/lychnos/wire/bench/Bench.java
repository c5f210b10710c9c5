package lychnos.wire.bench;

import io.vertx.core.Vertx;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.place.Ground;
import lychnos.core.place.Placer;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Verdict;
import lychnos.lab.Controller;
import lychnos.lab.Hall;
import lychnos.lab.Machine;
import lychnos.lab.MachineSpec;
import lychnos.lab.Plug;
import lychnos.wire.LocalVantage;
import lychnos.wire.WireFault;
import lychnos.wire.dial.Dialler;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Target;

/**
 * Measures speed as ratios within one run: what the program does, against the plainest thing that could be done with the
 * same machines and the same data. Absolute times are shown, but only the ratios mean something on another machine.
 */
public final class Bench {

    private static final int PORT = 19443;
    private static final int AT_ONCE = 32;
    private static final int ROUNDS = 7;
    private static final Secret OURS = Secret.of("Kdf8RtB5nHs3LxVc7TpG");
    private static final Kind.Login FACTORY = new Kind.Login(Controller.FACTORY_USER, Secret.of(Controller.FACTORY_PHRASE));

    private Bench() {}

    public static void main(String[] args) throws Exception {
        System.out.println();
        System.out.println("what                                                   lychnos      plain    ratio");
        placing();
        for (int count : new int[] {12, 1000}) {
            proving(count);
        }
    }

    private static void row(String what, double ours, double plain) {
        System.out.printf(Locale.ROOT, "%-50s %8.1f ms %8.1f ms %7.1f×%n", what, ours, plain, ours / plain);
    }

    private static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    // --- placing 4,000 needs in a /16 that is 60 % used, against one pass over a bit set of the same size ---

    private static void placing() {
        Prefix network = Prefix.parse("10.40.0.0/16");
        Random random = new Random(7);
        List<Address> taken = new ArrayList<>();
        BitSet twin = new BitSet(65536);
        for (int i = 0; i < 65536; i++) {
            if (random.nextInt(100) < 60) {
                taken.add(network.network().plus(i));
                twin.set(i);
            }
        }
        Ground ground = new Ground(network, Address.parse("10.40.0.1"), List.of(network.run()), List.of(), taken);
        double[] whole = new double[ROUNDS];
        double[] alone = new double[ROUNDS];
        double[] pass = new double[ROUNDS];
        for (int round = -5; round < ROUNDS; round++) {
            long start = System.nanoTime();
            Placer placer = new Placer(ground);
            long built = System.nanoTime();
            int placed = placer.placeEach(4000, network.network()).size();
            long end = System.nanoTime();
            if (placed != 4000) {
                throw new IllegalStateException("only " + placed + " were placed");
            }
            long passStart = System.nanoTime();
            int free = 0;
            for (int i = twin.nextClearBit(0); i < 65536; i = twin.nextClearBit(i + 1)) {
                free++;
            }
            long passEnd = System.nanoTime();
            if (free != 65536 - taken.size()) {
                throw new IllegalStateException("the twin has miscounted");
            }
            if (round >= 0) {
                whole[round] = (end - start) / 1e6;
                alone[round] = (end - built) / 1e6;
                pass[round] = (passEnd - passStart) / 1e6;
            }
        }
        row("4,000 placed in a /16, 60 % used (free set there)", median(alone), median(pass));
        row("  with building the free set from 39,000 claims", median(whole), median(pass));
    }

    // --- proving endpoints, against a bare loop of TLS handshakes with as many threads ---

    private static void proving(int count) throws Exception {
        String user = Controller.FACTORY_USER;
        List<MachineSpec> specs = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            specs.add(MachineSpec.of("BN-" + i, new Mac(0x024c59000000L + i).toString(), address(i).toString()));
        }
        Vertx vertx = Vertx.vertx();
        try (Hall hall = new Hall(specs, Plug.loopback(), PORT, Duration.ofSeconds(1), null);
                LocalVantage vantage = new LocalVantage("bench", false, new Dialler(() -> List.of(Prefix.parse("127.40.0.0/13")), true), vertx)) {
            List<Target> targets = new ArrayList<>();
            for (int i = 0; i < count; i++) {
                targets.add(target(hall.machines().get(i), i, user));
            }
            int rounds = count > 100 ? 3 : ROUNDS;
            double[] ours = new double[rounds];
            double[] plain = new double[rounds];
            for (int round = -1; round < rounds; round++) {
                double proof = timed(targets, target -> {
                    Verdict verdict = Verdict.of(new Climb(vantage, target, Clock.systemUTC()).climb().outcomes());
                    if (!verdict.proven()) {
                        throw new IllegalStateException(target.serial() + ": " + verdict.sentence());
                    }
                });
                double shakes = timed(targets, target -> vantage.tls(target.address(), PORT, Duration.ofSeconds(10)));
                if (round >= 0) {
                    ours[round] = proof;
                    plain[round] = shakes;
                }
            }
            row(String.format(Locale.ROOT, "%,d endpoints proven, against bare handshakes", count), median(ours), median(plain));
            System.out.printf(Locale.ROOT, "  stand-ins and prover in one process: %d MB resident%n", residentMegabytes());
        } finally {
            vertx.close().toCompletionStage().toCompletableFuture().join();
        }
    }

    private static Address address(int i) {
        return Address.parse("127.40.0.0").plus(256L * (1 + i / 200) + 10 + i % 200);
    }

    private static Target target(Machine machine, int i, String user) {
        String name = "ard-srv-" + i;
        List<String> servers = List.of("127.40.8.3", "127.40.8.4");
        machine.controller().preset(OURS.use(text -> text), "127.40.8.1", name, "ardal.example", servers, servers);
        Settings plan = new Settings(
                address(i), Address.parse("255.255.255.0"), Address.parse("127.40.8.1"), false, name, name + ".ardal.example", servers, servers, true);
        return new Target(address(i), PORT, machine.spec().serial(), Mac.parse(machine.spec().mac()), plan, new Target.Login(user, OURS), null, FACTORY, List.of(23));
    }

    @FunctionalInterface
    private interface Job {
        void run(Target target) throws WireFault;
    }

    private static double timed(List<Target> targets, Job job) throws Exception {
        ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE);
        List<Callable<Void>> work = new ArrayList<>();
        for (Target target : targets) {
            work.add(() -> {
                job.run(target);
                return null;
            });
        }
        long start = System.nanoTime();
        for (Future<Void> future : threads.invokeAll(work)) {
            future.get();
        }
        double millis = (System.nanoTime() - start) / 1e6;
        threads.shutdown();
        return millis;
    }

    private static long residentMegabytes() throws Exception {
        String line = Files.readAllLines(Path.of("/proc/self/status")).stream().filter(text -> text.startsWith("VmRSS")).findFirst().orElse("VmRSS: 0 kB");
        return Long.parseLong(line.replaceAll("\\D", "")) / 1024;
    }
}
