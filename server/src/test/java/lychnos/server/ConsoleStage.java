package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import java.util.function.Supplier;
import lychnos.lab.Dhcp;
import lychnos.lab.Plug;
import lychnos.lab.console.ConsoleHall;
import lychnos.server.http.Json;
import lychnos.server.http.Request;
import lychnos.server.http.Response;

/** A bring-up with machines on a line server, prepared and placed, ready to be set up on their consoles. */
final class ConsoleStage extends ConsoleUnits implements AutoCloseable {

    private ConsoleHall hall;
    private Optional<Dhcp> dhcp = Optional.empty();

    ConsoleStage() {}

    ConsoleStage(Client client) {
        super(client);
    }

    ConsoleStage withDataNetwork() {
        dataNetwork();
        return this;
    }

    ConsoleStage with(Dhcp server) {
        dhcp = Optional.of(server);
        return this;
    }

    ConsoleStage ready() {
        return ready(Duration.ofMillis(300), null);
    }

    /** Facts in, addresses taken, machines on. */
    ConsoleStage ready(Duration restart, java.nio.file.Path state) {
        Response read = Request.given()
                .cookie("lychnos", client.cookie())
                .contentType("text/plain; charset=UTF-8")
                .body(csv())
                .post("/api/bring-ups/" + bringUp + "/facts.csv");
        // columns that none of these kinds has are left out with a word
        assertTrue(read.json().<Integer>getList("faults.line").stream().allMatch(line -> line == 1), read.asString());
        for (Map<String, Object> unit :
                client.get("/api/bring-ups/" + bringUp + "/prepare").<Map<String, Object>>getList("units")) {
            Json fits = client.get("/api/bring-ups/" + bringUp + "/fits?unit=" + unit.get("id"));
            Map<String, Object> taking = new HashMap<>(Map.of("lines", fits.getList("fits[0].lines")));
            taking.put("growth", fits.getList("fits[0].growth"));
            client.post("/api/bring-ups/" + bringUp + "/allocations", taking).statusCode(200);
        }
        power(restart, state);
        return this;
    }

    /** Switches everything on, with the memory that was left. */
    void power(Duration restart, java.nio.file.Path state) {
        hall = new ConsoleHall(specs, SERVER, Plug.loopback(), WEB, restart, state, dhcp);
    }

    ConsoleHall hall() {
        return hall;
    }

    /** The serial of the machine that was added at this place. */
    String serial(int index) {
        return specs.get(index).serial();
    }

    void begin(int unit, String mode) {
        Response begun = client.post("/api/units/" + unit + "/console", Map.of("mode", mode));
        assertTrue(begun.statusCode() == 204, begun::asString);
    }

    Json bench(int unit) {
        return client.get("/api/units/" + unit + "/bench");
    }

    /** What was found at the address that a unit has for something. */
    Json proof(int unit, String role) {
        int claim = client.get("/api/bring-ups/" + bringUp + "/prove")
                .getInt("endpoints.find { it.unitId == " + unit + " && it.role == '" + role + "' }.claimId");
        return client.get("/api/units/" + unit + "/proof?claim=" + claim);
    }

    /**
     * Waits until an endpoint is proven, and gives what was found there; the fault is shown where it never
     * is.
     */
    Json proven(int unit, String role) {
        AtomicReference<Json> last = new AtomicReference<>();
        until(
                role + " is proven",
                () -> {
                    last.set(proof(unit, role));
                    return last.get().getBoolean("endpoint.proven");
                },
                () -> last.get().prettify());
        return last.get();
    }

    long dialogue(int unit, int member) {
        return bench(unit).getLong("members[" + member + "].dialogueId");
    }

    Response decide(long dialogue, String what, Map<String, ?> body) {
        return client.post("/api/dialogues/" + dialogue + "/" + what, body);
    }

    /** Ticks what is done on the host of a virtual machine. */
    void tickFirst(int unit) {
        until("it is taken up", () -> bench(unit).getString("runState").equals("RUNNING"));
        for (int place :
                bench(unit).<Integer>getList("members[0].steps.findAll { it.marks.contains('FIRST') }.place")) {
            decide(dialogue(unit, 0), "tick", Map.of("place", place, "done", true))
                    .statusCode(204);
        }
    }

    /**
     * Says yes to everything that a person can pass, as it comes, until the unit is done or something stands that
     * cannot be passed; what must be typed is typed.
     */
    Json toTheEnd(int unit) {
        return toTheEnd(unit, hold -> true);
    }

    /** The same, but stops before a hold that is not to be passed. */
    Json toTheEnd(int unit, Predicate<Map<String, Object>> pass) {
        long end = System.nanoTime() + PATIENCE.toNanos();
        Map<Integer, String> passed = new HashMap<>();
        Map<Integer, Long> since = new HashMap<>();
        while (System.nanoTime() < end && !Thread.currentThread().isInterrupted()) {
            Json bench = bench(unit);
            if (bench.getString("runState").equals("DONE")) {
                return bench;
            }
            List<Map<String, Object>> members = bench.getList("members");
            for (int i = 0; i < members.size(); i++) {
                @SuppressWarnings("unchecked")
                Map<String, Object> hold = (Map<String, Object>) members.get(i).get("hold");
                if (hold != null
                        && members.get(i).get("state").equals("HELD")
                        && !List.of("PREREQUISITE", "PEER", "DATE", "STANDBY").contains(hold.get("why"))) {
                    if (!Boolean.TRUE.equals(hold.get("passable")) || !pass.test(hold)) {
                        return bench;
                    }
                    // said once; again only where nobody was there to hear it, or who heard it has lost the unit since
                    boolean heard =
                            hold.toString().equals(passed.get(i)) && System.nanoTime() - since.get(i) < AGAIN.toNanos();
                    if (!heard
                            && decide(
                                                    ((Number) members.get(i).get("dialogueId")).longValue(),
                                                    "decision",
                                                    Map.of("typed", typed(hold)))
                                            .statusCode()
                                    < 300) {
                        passed.put(i, hold.toString());
                        since.put(i, System.nanoTime());
                    }
                } else {
                    passed.remove(i);
                }
            }
            pause();
        }
        throw new AssertionError("not at its end: " + bench(unit).prettify());
    }

    /** Says yes wherever one can be said now. */
    void yes(int unit) {
        for (Map<String, Object> member : bench(unit).<Map<String, Object>>getList("members")) {
            @SuppressWarnings("unchecked")
            Map<String, Object> hold = (Map<String, Object>) member.get("hold");
            if (hold != null && Boolean.TRUE.equals(hold.get("passable"))) {
                decide(((Number) member.get("dialogueId")).longValue(), "decision", Map.of("typed", typed(hold)));
            }
        }
    }

    /** What a person types at a hold. */
    private static Object typed(Map<String, Object> hold) {
        return hold.get("why").equals("CONSENT") ? "agreed with the buyer of the licences" : hold.get("typed");
    }

    private static void pause() {
        java.util.concurrent.locks.LockSupport.parkNanos(100_000_000);
    }

    static void until(String what, BooleanSupplier holds) {
        until(what, holds, () -> "");
    }

    /** @param shown what is said of it where it never holds */
    static void until(String what, BooleanSupplier holds, Supplier<String> shown) {
        long end = System.nanoTime() + PATIENCE.toNanos();
        long pause = 20_000_000;
        while (!holds.getAsBoolean()) {
            assertTrue(System.nanoTime() < end, () -> what + " " + shown.get());
            java.util.concurrent.locks.LockSupport.parkNanos(pause);
            pause = Math.min(pause * 5 / 4, 160_000_000);
        }
    }

    /** Waits until a member is held for a reason. */
    Map<String, Object> held(int unit, int member, String why) {
        until(
                "member " + member + " is held for " + why,
                () -> why.equals(bench(unit).getString("members[" + member + "].hold.why")));
        return bench(unit).getMap("members[" + member + "].hold");
    }

    @Override
    public void close() {
        for (Map<String, Object> unit :
                client.get("/api/bring-ups/" + bringUp + "/prepare").<Map<String, Object>>getList("units")) {
            client.post("/api/units/" + unit.get("id") + "/console/close", Map.of());
        }
        if (hall != null) {
            hall.close();
        }
    }
}
