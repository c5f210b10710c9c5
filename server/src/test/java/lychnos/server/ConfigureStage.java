package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import jakarta.inject.Inject;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import lychnos.core.text.Texts;
import lychnos.lab.Machine;
import lychnos.lab.MachineSpec;
import lychnos.lab.Plug;
import lychnos.lab.Quirk;
import lychnos.lab.hall.Hall;
import lychnos.server.http.Json;
import lychnos.server.secrets.SealedStore;
import org.hibernate.Session;
import org.junit.jupiter.api.BeforeEach;

/** Rounds over controllers, each with its misbehaviour. */
abstract class ConfigureStage {

    static final int PORT = 18444;

    Client client;

    @BeforeEach
    void signIn() {
        client = Client.engineer();
    }

    @Inject
    Session db;

    @Inject
    SealedStore sealed;

    /** A bring-up with one machine for each list of quirks, placed and ready, at addresses of its own. */
    final class Row implements AutoCloseable {

        final long id;
        final int net;
        final Hall hall;
        final int count;

        Row(int net, Quirk... quirks) {
            this.net = net;
            this.count = Math.max(1, quirks.length);
            List<MachineSpec> specs = IntStream.range(0, count)
                    .mapToObj(i -> MachineSpec.of(
                            serial(i),
                            mac(i),
                            first(i),
                            quirks.length == 0 || quirks[i] == null ? new Quirk[0] : new Quirk[] {quirks[i]}))
                    .toList();
            hall = new Hall(specs, Plug.loopback(), PORT, Duration.ofMillis(50), null);
            id = client.bringUp();
            prepare();
        }

        /** Machines as another maker ships them: each with the account “admin” and a password on its own tag. */
        Row(int net, int count) {
            this.net = net;
            this.count = count;
            List<MachineSpec> specs = IntStream.range(0, count)
                    .mapToObj(i -> new MachineSpec(serial(i), mac(i), first(i), "admin", tag(i), Set.of()))
                    .toList();
            hall = new Hall(specs, Plug.loopback(), PORT, Duration.ofMillis(50), null);
            id = client.bringUp();
        }

        static String tag(int i) {
            return "tag-password-" + i;
        }

        void prepare() {
            StringBuilder csv = new StringBuilder("serial,mac,rack position,model,first address\n");
            IntStream.range(0, count)
                    .forEach(i -> csv.append("%s,%s,R1 u%d,C4,%s\n".formatted(serial(i), mac(i), i + 1, first(i))));
            assertEquals(
                    List.of(), client.labels(id, csv.toString(), false).json().getList("faults"));
            client.network(id, Client.network("127.40." + net + ".0/24", "127.40." + net + ".1", "pool .101-.180"));
            client.take(id).statusCode(200);
        }

        String serial(int i) {
            return "CF-" + net + "-" + i;
        }

        String mac(int i) {
            return "02:4c:59:c0:%02x:%02x".formatted(net, i);
        }

        String first(int i) {
            return "127.40." + net + "." + (10 + i);
        }

        Machine machine(int i) {
            return hall.machine(serial(i));
        }

        int unit(int i) {
            return client.get("/api/bring-ups/" + id + "/prepare").getInt("units[" + i + "].id");
        }

        void start(int width) {
            client.post("/api/bring-ups/" + id + "/setups", Map.of("width", width))
                    .statusCode(204);
        }

        Json await(String what, Predicate<List<String>> states) {
            AtomicReference<Json> view = new AtomicReference<>();
            ConsoleStage.until(
                    what,
                    () -> {
                        view.set(client.get("/api/bring-ups/" + id + "/configure"));
                        return states.test(view.get().getList("lanes.state"));
                    },
                    () -> view.get().prettify());
            return view.get();
        }

        @Override
        public void close() {
            hall.close();
        }
    }

    /** @param why a message of a catalogue, as {@link Texts} takes it */
    void stopsWith(int net, Quirk quirk, String why) {
        try (Row row = new Row(net, quirk)) {
            row.start(1);
            Json view = row.await("a stop", states -> states.contains("STOPPED"));
            assertTrue(Texts.says(why, view.getString("lanes[0].note")), view.getString("lanes[0].note"));
            assertFalse(view.getString("lanes[0].advice").isBlank());
        }
    }
}
