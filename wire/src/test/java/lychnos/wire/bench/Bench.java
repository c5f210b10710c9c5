package lychnos.wire.bench;

import io.vertx.core.Vertx;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Verdict;
import lychnos.lab.Controller;
import lychnos.lab.Machine;
import lychnos.lab.MachineSpec;
import lychnos.lab.Plug;
import lychnos.lab.hall.Hall;
import lychnos.wire.dial.Dialler;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.ladder.Climb;
import lychnos.wire.ladder.Target;
import lychnos.wire.vantage.LocalVantage;

/**
 * Measures speed as ratios within one run: what the program does, against the plainest thing that could be done with
 * the same machines and the same data. Absolute times are shown, but only the ratios mean something on another machine.
 */
public final class Bench {

    static final int PORT = 19443;
    static final int AT_ONCE = 32;
    static final int ROUNDS = whole(7, 1);
    static final Secret OURS = Secret.of("Kdf8RtB5nHs3LxVc7TpG");
    static final Kind.Login FACTORY = new Kind.Login(Controller.FACTORY_USER, Secret.of(Controller.FACTORY_PHRASE));

    private Bench() {}

    /**
     * A size as it is measured, or a small one that shows that the row can be measured at all ({@code
     * -Dlychnos.bench.small=true}).
     */
    static int whole(int whole, int small) {
        return Boolean.getBoolean("lychnos.bench.small") ? small : whole;
    }

    public static void main(String[] args) throws Exception {
        System.out.println();
        System.out.println("what                                                   lychnos      plain    ratio");
        if (args[0].equals("placing")) {
            PlacingBench.placing();
        } else if (args[0].equals("pings")) {
            PingBench.pings();
        } else {
            // behind a router that says nothing, as a dead network is
            new ProcessBuilder("ip", "route", "add", "10.43.0.0/16", "via", "10.40.8.1")
                    .inheritIO()
                    .start()
                    .waitFor();
            // in the order in which a server comes to be warm: its first checks are few
            proving(whole(12, 2));
            proving(whole(1000, 4));
            sameQuestions();
            fewLiving();
            proving(whole(5000, 6));
        }
    }

    static void row(String what, double ours, double plain) {
        System.out.printf(Locale.ROOT, "%-57s %8.1f ms %8.1f ms %7.2f×%n", what, ours, plain, ours / plain);
    }

    static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    // --- proving endpoints, against a bare loop of TLS handshakes with as many threads ---

    static void proving(int count) throws Exception {
        String user = Controller.FACTORY_USER;
        List<MachineSpec> specs = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            specs.add(MachineSpec.of(
                    "BN-" + i,
                    new Mac(0x024c59000000L + i).toString(),
                    address(i).toString()));
        }
        Vertx vertx = Vertx.vertx();
        try (Hall hall = new Hall(specs, Plug.loopback(), PORT, Duration.ofSeconds(1), null);
                LocalVantage vantage = new LocalVantage(
                        "bench", false, new Dialler(() -> List.of(Prefix.parse("127.40.0.0/13")), true), vertx)) {
            List<Target> targets = new ArrayList<>();
            for (int i = 0; i < count; i++) {
                targets.add(target(hall.machines().get(i), i, user));
            }
            int rounds = count > 1000 ? 1 : count > 100 ? 3 : ROUNDS;
            double[] ours = new double[rounds];
            double[] plain = new double[rounds];
            for (int round = count > 1000 ? 0 : -1; round < rounds; round++) {
                double proof = timed(targets, target -> {
                    Verdict verdict = Verdict.of(new Climb(vantage, target, Clock.systemUTC())
                            .climb()
                            .outcomes());
                    if (!verdict.proven()) {
                        throw new IllegalStateException(target.address() + ": " + verdict.sentence());
                    }
                });
                // as many handshakes as a whole ladder takes: one to look, one to ask
                double shakes = timed(targets, target -> {
                    vantage.tls(target.address(), PORT, Duration.ofSeconds(10));
                    vantage.tls(target.address(), PORT, Duration.ofSeconds(10));
                });
                if (round >= 0) {
                    ours[round] = proof;
                    plain[round] = shakes;
                }
            }
            row(
                    String.format(Locale.ROOT, "%,d endpoints proven, against the same handshakes alone", count),
                    median(ours),
                    median(plain));
            if (count >= whole(1000, 4)) {
                row(
                        String.format(Locale.ROOT, "%,d endpoints proven, against a shell loop", count),
                        median(ours),
                        shellLoop(targets));
            }
            System.out.printf(
                    Locale.ROOT,
                    "  stand-ins and prover in one process: %d MB resident, %d open files%n",
                    residentMegabytes(),
                    Files.list(Path.of("/proc/self/fd")).count());
        } finally {
            vertx.close().toCompletionStage().toCompletableFuture().join();
        }
    }

    /**
     * A hall as it is while it is brought up: of 5,000 endpoints one in ten answers, all through the ladder, and the
     * loop over the same.
     */
    static void fewLiving() throws Exception {
        int all = whole(5000, 50);
        List<MachineSpec> specs = new ArrayList<>();
        for (int i = 0; i < all / 10; i++) {
            specs.add(MachineSpec.of(
                    "BN-" + i,
                    new Mac(0x024c59000000L + i).toString(),
                    address(i).toString()));
        }
        Vertx vertx = Vertx.vertx();
        try (Hall hall = new Hall(specs, Plug.loopback(), PORT, Duration.ofSeconds(1), null);
                LocalVantage vantage = new LocalVantage(
                        "bench",
                        true,
                        new Dialler(() -> List.of(Prefix.parse("127.40.0.0/13"), Prefix.parse("10.43.0.0/16")), true),
                        vertx)) {
            List<Target> targets = new ArrayList<>();
            for (int i = 0; i < all; i++) {
                targets.add(
                        i % 10 == 0 ? target(hall.machines().get(i / 10), i / 10, Controller.FACTORY_USER) : dead(i));
            }
            double[] ours = new double[3];
            for (int round = -1; round < ours.length; round++) {
                long start = System.nanoTime();
                Map<Address, Echo> echoes =
                        vantage.sweep(targets.stream().map(Target::address).toList(), Duration.ofMillis(700));
                AtomicInteger proven = new AtomicInteger();
                timed(targets, target -> {
                    if (Verdict.of(new Climb(vantage, target, Clock.systemUTC())
                                    .climb(Rung.SAFE, echoes.get(target.address()))
                                    .outcomes())
                            .proven()) {
                        proven.incrementAndGet();
                    }
                });
                if (proven.get() != all / 10) {
                    throw new IllegalStateException(proven + " are proven");
                }
                ours[Math.max(0, round)] = (System.nanoTime() - start) / 1e6;
            }
            row(
                    String.format(Locale.ROOT, "%,d endpoints, %,d of them there, against a shell loop", all, all / 10),
                    median(ours),
                    shellLoop(targets));
        } finally {
            vertx.close().toCompletionStage().toCompletableFuture().join();
        }
    }

    static Target dead(int i) {
        Address at = Address.parse("10.43.0.0").plus(256L * (1 + i / 200) + 10 + i % 200);
        Settings plan = new Settings(
                at,
                Address.parse("255.255.255.0"),
                Address.parse("10.43.0.1"),
                false,
                "x",
                "x.ardal.example",
                List.of(),
                List.of(),
                true);
        return new Target(
                at,
                PORT,
                "BN-X",
                null,
                plan,
                new Target.Login(Controller.FACTORY_USER, OURS),
                null,
                FACTORY,
                List.of(23));
    }

    /** What an engineer would write: a ping, and where that is heard a look at the service root, sixty-four at once. */
    static double shellLoop(List<Target> targets) throws Exception {
        return shellLoop(
                targets,
                "ping -c1 -W1 $1 >/dev/null || exit 0; curl -ks -m 10 -o /dev/null https://$1:" + PORT
                        + "/redfish/v1/");
    }

    /**
     * Two hundred endpoints, and a shell loop that asks each of them what the ladder asks, as far as ping and curl can.
     */
    static void sameQuestions() throws Exception {
        int count = whole(200, 4);
        List<MachineSpec> specs = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            specs.add(MachineSpec.of(
                    "BN-" + i,
                    new Mac(0x024c59000000L + i).toString(),
                    address(i).toString()));
        }
        Vertx vertx = Vertx.vertx();
        try (Hall hall = new Hall(specs, Plug.loopback(), PORT, Duration.ofSeconds(1), null);
                LocalVantage vantage = new LocalVantage(
                        "bench", true, new Dialler(() -> List.of(Prefix.parse("127.40.0.0/13")), true), vertx)) {
            List<Target> targets = new ArrayList<>();
            for (int i = 0; i < count; i++) {
                targets.add(target(hall.machines().get(i), i, Controller.FACTORY_USER));
            }
            double[] ours = new double[3];
            for (int round = -2; round < ours.length; round++) {
                ours[Math.max(0, round)] =
                        timed(targets, target -> new Climb(vantage, target, Clock.systemUTC()).climb());
            }
            row(
                    count + " endpoints proven, against a loop that asks the same",
                    median(ours),
                    shellLoop(targets, QUESTIONS));
        } finally {
            vertx.close().toCompletionStage().toCompletableFuture().join();
        }
    }

    /**
     * A ping; certificate and service root; a log-in, and the five resources that hold serial, MAC address and
     * settings; the factory's password.
     */
    static final String QUESTIONS =
            """
            ping -c1 -W1 $1 >/dev/null || exit 0
            at=https://$1:%1$d
            get() { curl -ksf -m 10 -o /dev/null -H "X-Auth-Token: $token" $at$1 || exit 1; }
            login() { curl -ks -m 10 -D- -o /dev/null -H 'Content-Type: application/json' \\
              -d "{\\"UserName\\":\\"%2$s\\",\\"Password\\":\\"$1\\"}" $at/redfish/v1/SessionService/Sessions; }
            curl -ksf -m 10 -o /dev/null -w '%%{certs}' $at/redfish/v1/ >/dev/null || exit 1
            token=$(login %3$s | tr -d '\\r' | sed -n 's/^[Xx]-[Aa]uth-[Tt]oken: *//p')
            [ -n "$token" ] || exit 1
            get /redfish/v1/Managers/lc
            get /redfish/v1/Systems/node
            get /redfish/v1/Managers/lc/EthernetInterfaces
            get /redfish/v1/Managers/lc/EthernetInterfaces/oob
            get /redfish/v1/Managers/lc/NetworkProtocol
            login %4$s | grep -q ' 401 ' || exit 1
            """
                    .formatted(PORT, Controller.FACTORY_USER, OURS.use(text -> text), Controller.FACTORY_PHRASE);

    static double shellLoop(List<Target> targets, String script) throws Exception {
        Path list = Files.createTempFile("endpoints", ".txt");
        Path each = Files.writeString(Files.createTempFile("endpoint", ".sh"), script);
        Files.write(
                list,
                targets.stream().map(target -> target.address().toString()).toList());
        long start = System.nanoTime();
        Process process = new ProcessBuilder("sh", "-c", "xargs -P64 -n1 sh " + each + " <" + list)
                .inheritIO()
                .start();
        if (process.waitFor() != 0) {
            throw new IllegalStateException("the loop does not run");
        }
        double millis = (System.nanoTime() - start) / 1e6;
        Files.delete(list);
        Files.delete(each);
        return millis;
    }

    static Address address(int i) {
        return Address.parse("127.40.0.0").plus(256L * (1 + i / 200) + 10 + i % 200);
    }

    static Target target(Machine machine, int i, String user) {
        String name = "ard-srv-" + i;
        List<String> servers = List.of("127.40.8.3", "127.40.8.4");
        machine.controller().preset(OURS.use(text -> text), "127.40.8.1", name, "ardal.example", servers, servers);
        Settings plan = new Settings(
                address(i),
                Address.parse("255.255.255.0"),
                Address.parse("127.40.8.1"),
                false,
                name,
                name + ".ardal.example",
                servers,
                servers,
                true);
        return new Target(
                address(i),
                PORT,
                machine.spec().serial(),
                Mac.parse(machine.spec().mac()),
                plan,
                new Target.Login(user, OURS),
                null,
                FACTORY,
                List.of(23));
    }

    @FunctionalInterface
    private interface Job {
        void run(Target target) throws WireFault;
    }

    static double timed(List<Target> targets, Job job) throws Exception {
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

    static long residentMegabytes() throws Exception {
        String line = Files.readAllLines(Path.of("/proc/self/status")).stream()
                .filter(text -> text.startsWith("VmRSS"))
                .findFirst()
                .orElse("VmRSS: 0 kB");
        return Long.parseLong(line.replaceAll("\\D", "")) / 1024;
    }
}
