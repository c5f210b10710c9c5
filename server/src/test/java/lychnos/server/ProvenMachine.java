package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import lychnos.lab.Machine;
import lychnos.lab.MachineSpec;
import lychnos.lab.Plug;
import lychnos.lab.hall.Hall;
import lychnos.server.http.Json;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;

/** A machine of its own for each test, set up and proven by the running server. */
abstract class ProvenMachine {

    private static final int PORT = 18444;
    /** Of each test its own machine: a serial belongs to one bring-up. */
    private static int next = 70;

    final int net = next++;

    final Vertx vertx = Vertx.vertx();
    Client client;
    Hall hall;
    long id;
    int unit;
    int claim;

    /** One machine, set up and proven. */
    @BeforeEach
    void prove() {
        client = Client.engineer();
        hall = new Hall(machines(), Plug.loopback(), PORT, Duration.ofMillis(50), null);
        id = client.bringUp();
        client.labels(
                        id,
                        "serial,mac,rack position,model,first address\n%s,%s,R1 u1,C4,%s\n"
                                .formatted(serial(), mac(), at(10)),
                        false)
                .statusCode(200);
        client.network(id, Client.network(at(0) + "/24", at(1), "pool .101-.180"));
        client.take(id).statusCode(200);
        client.post("/api/bring-ups/" + id + "/setups", Map.of("width", 1)).statusCode(204);
        ConsoleStage.until("it is set up", () -> client.get("/api/bring-ups/" + id + "/configure")
                .getString("lanes[0].state")
                .equals("DONE"));
        Json view = view();
        unit = view.getInt("endpoints[0].unitId");
        claim = view.getInt("endpoints[0].claimId");
        check(null);
        assertTrue(view().getBoolean("endpoints[0].proven"), view()::prettify);
    }

    /** What stands in the hall. */
    List<MachineSpec> machines() {
        return List.of(MachineSpec.of(serial(), mac(), at(10)));
    }

    @AfterEach
    void close() {
        hall.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    String serial() {
        return "PV-" + net;
    }

    String mac() {
        return "02:4c:59:c1:00:%02x".formatted(net);
    }

    String at(int number) {
        return "127.40." + net + "." + number;
    }

    Machine machine() {
        return hall.machine(serial());
    }

    Json view() {
        return client.get("/api/bring-ups/" + id + "/prove");
    }

    Json detail() {
        return client.get("/api/units/" + unit + "/proof");
    }

    /** Checks it, and waits until that is over. */
    void check(String rung) {
        String before = detail().getString("endpoint.at");
        client.post("/api/bring-ups/" + id + "/checks", rung == null ? Map.of() : Map.of("rung", rung))
                .statusCode(200);
        ConsoleStage.until(
                "it is checked",
                () -> view().getInt("checking") == 0
                        && !String.valueOf(detail().getString("endpoint.at")).equals(before));
    }
}
