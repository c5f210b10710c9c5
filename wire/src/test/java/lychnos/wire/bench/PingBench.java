package lychnos.wire.bench;

import static lychnos.wire.bench.Bench.AT_ONCE;
import static lychnos.wire.bench.Bench.address;
import static lychnos.wire.bench.Bench.dead;
import static lychnos.wire.bench.Bench.row;
import static lychnos.wire.bench.Bench.whole;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import lychnos.core.address.Address;
import lychnos.wire.icmp.Echo;
import lychnos.wire.icmp.PingSweep;
import lychnos.wire.icmp.Pinger;

/** Fifty thousand pings, and a dead /16 beside a thousand that answer, against a bare loop. */
final class PingBench {

    private PingBench() {}

    static Map<Address, Echo> sweep(List<Address> addresses, Duration patience, double[] millis) {
        long start = System.nanoTime();
        Map<Address, Echo> echoes = new PingSweep().ping(addresses, patience);
        millis[0] = (System.nanoTime() - start) / 1e6;
        return echoes;
    }

    static List<Address> from(String first, int count) {
        List<Address> addresses = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            addresses.add(Address.parse(first).plus(i));
        }
        return addresses;
    }

    static void pings() throws Exception {
        double[] millis = new double[1];
        List<Address> many = from("127.40.0.1", whole(50_000, 200));
        Map<Address, Echo> echoes = sweep(many, Duration.ofSeconds(1), millis);
        long answered = echoes.values().stream()
                .filter(echo -> echo.state() == Echo.State.ANSWERED)
                .count();
        double together = millis[0];
        Pinger pinger = new Pinger();
        ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE);
        long start = System.nanoTime();
        List<Callable<Echo>> each = many.stream()
                .map(address -> (Callable<Echo>) () -> pinger.ping(address, Duration.ofSeconds(1)))
                .toList();
        threads.invokeAll(each);
        row(
                String.format(
                        Locale.ROOT, "%,d pings together (%,d answered), against one by one", many.size(), answered),
                together,
                (System.nanoTime() - start) / 1e6);
        threads.shutdown();
        // behind a router that says nothing, as a dead network is
        new ProcessBuilder("ip", "route", "add", "10.43.0.0/16", "via", "10.40.8.1")
                .inheritIO()
                .start()
                .waitFor();
        List<Address> living = from("127.40.0.1", whole(1000, 10));
        sweep(living, Duration.ofMillis(700), millis);
        double alone = millis[0];
        int dead = 65 * living.size();
        List<Address> mixed = new ArrayList<>(from("10.43.0.1", dead));
        for (int i = 0; i < living.size(); i++) {
            mixed.add(i * 65, living.get(i));
        }
        Map<Address, Echo> heard = sweep(mixed, Duration.ofMillis(700), millis);
        long late = living.stream()
                .filter(address -> heard.get(address).state() != Echo.State.ANSWERED)
                .count();
        double slowest = living.stream()
                .map(heard::get)
                .filter(echo -> echo.roundTrip() != null)
                .mapToDouble(echo -> echo.roundTrip().toNanos() / 1e6)
                .max()
                .orElse(0);
        row(
                String.format(Locale.ROOT, "%,d that answer among %,d dead, against alone", living.size(), dead),
                millis[0],
                alone);
        System.out.printf(
                Locale.ROOT,
                "  of the living %d were missed, and the slowest took %.1f ms; the dead cost %.2f ms each%n",
                late,
                slowest,
                millis[0] / dead);
    }
}
