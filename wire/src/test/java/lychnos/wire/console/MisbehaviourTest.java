package lychnos.wire.console;

import static org.junit.jupiter.api.Assertions.assertAll;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Vertx;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Secret;
import lychnos.core.kind.KindReader;
import lychnos.lab.Plug;
import lychnos.lab.console.ConsoleHall;
import lychnos.lab.console.ConsoleSpec;
import lychnos.lab.console.Habit;
import lychnos.wire.dial.Dialler;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** The shipped dialogues against the stand-in machines, over RFC 2217: the plain path, and what is said when it is left. */
class MisbehaviourTest {

    private static final String SERVER = "127.40.8.41";
    private static final Secret OURS = Secret.of("Hn4tRb7sLxVc");

    private final Vertx vertx = Vertx.vertx();
    private final Lines lines = new Lines(vertx, new Dialler(() -> List.of(Prefix.parse("127.0.0.0/8")), true));
    private final List<AutoCloseable> open = new ArrayList<>();
    private ConsoleHall hall;

    @AfterEach
    void close() throws Exception {
        for (AutoCloseable each : open) {
            each.close();
        }
        lines.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    private ConsoleHall power(ConsoleSpec... specs) {
        hall = new ConsoleHall(List.of(specs), SERVER, Plug.loopback(), 8443, Duration.ofMillis(200), null);
        open.add(hall);
        return hall;
    }

    private static ConsoleSpec spec(String model, int number, String place, Habit... habits) {
        return new ConsoleSpec(model, "MB-" + number, String.format("02:4c:59:d2:00:%02x", number), 4000 + number, "group " + number % 30, place, model.equals("greenup") ? "127.40.10." + (200 + number % 50) : "-", Set.copyOf(List.of(habits)));
    }

    /** What the unit of these tests was prepared and placed with. */
    private record Prepared(Map<String, String> texts) implements Values {

        @Override
        public Optional<String> text(String name) {
            return Optional.ofNullable(texts.get(name));
        }

        @Override
        public Optional<Secret> secret(String name) {
            String factory = texts.get("factory.word");
            return name.equals("factory.phrase") ? Optional.of(Secret.of(factory)) : texts.containsKey(name) ? Optional.empty() : Optional.of(OURS);
        }

        @Override
        public Collection<Secret> secrets() {
            return List.of(OURS);
        }

        @Override
        public String unitName() {
            return "ard-one-1";
        }

        @Override
        public boolean termsAgreed() {
            return true;
        }
    }

    private Values values(ConsoleSpec spec) {
        int last = 100 + spec.port() % 200;
        Map<String, String> texts = new HashMap<>(Map.of(
                "serial", spec.serial(), "address", "127.40.9." + last, "length", "24", "gateway", "127.40.9.1", "name-server-1", "127.40.8.3", "name-server-2", "127.40.8.4", "name", "ard-one-" + last, "domain", "ardal.example", "member-number", spec.place()));
        texts.putAll(switch (spec.model()) {
            case "orrel" -> Map.of("factory.user", "keeper", "factory.word", "orrel", "strong-passwords", "yes", "central-manager", "no", "shared.address", "127.40.9.99");
            case "sallow" -> Map.of("factory.user", "warden", "factory.word", "highrigg", "fabric-name", "ardal-fabric", "active", "3", "tunnel-pool", "172.20.0.0/16", "control-vlan", "3900");
            case "brathay" -> Map.of("factory.user", "steward", "factory.word", "tarnbeck", "static", "yes", "mask", "255.255.255.0", "time-server-1", "127.40.8.6", "time-zone", "UTC", "subnet-manager", "standby", "diagnostics", "no");
            default -> Map.of("factory.user", "root", "factory.word", "greenup", "keyboard", "us", "links", "1", "vlan", "0");
        });
        return new Prepared(texts);
    }

    private static Dialogue dialogue(String model) {
        String kind = switch (model) {
            case "orrel" -> "interconnect-pair";
            case "sallow" -> "fabric-controller";
            case "brathay" -> "infiniband-gateway";
            default -> "hypervisor-host";
        };
        return hurried(KindReader.shipped(kind).dialogue().orElseThrow());
    }

    /** The same with waits that are over within seconds, as the stand-ins' are. */
    private static Dialogue hurried(Dialogue plain) {
        return new Dialogue(plain.line(), plain.nudge(), plain.chatter(), plain.paging(), plain.refused(), plain.identify(), plain.logIn(), hurried(plain.wipe()), hurried(plain.setup()), plain.oneByOne(), plain.pages());
    }

    private static List<DialogueStep> hurried(List<DialogueStep> steps) {
        return steps.stream().<DialogueStep>map(step -> step instanceof DialogueStep.Waits waits ? new DialogueStep.Waits(waits.title(), waits.on(), Duration.ofSeconds(1), Duration.ofSeconds(6), waits.until(), waits.asks()) : step).toList();
    }

    private Engineer engineer(ConsoleSpec spec, String member, Why... ends) {
        Engineer engineer = new Engineer(lines, LineAddress.tcp(LineAddress.Protocol.RFC2217, Address.parse(SERVER), spec.port()), dialogue(spec.model()), member, values(spec), Set.of(ends));
        open.add(0, engineer);
        return engineer;
    }

    @Test
    void aPairIsSetUpAndPairs() throws Exception {
        ConsoleSpec left = spec("orrel", 1, "left");
        ConsoleSpec right = spec("orrel", 31, "right");
        power(left, right);
        Engineer atRight = engineer(right, "right");
        Engineer atLeft = engineer(left, "left").with(atRight);
        atRight.begin();
        atLeft.begin();
        assertEquals(null, atLeft.end(40));
        assertEquals(null, atRight.end(40));
        assertEquals("127.40.9.101/24", hall.kept("MB-1", "oob"));
        assertEquals("yes", hall.kept("MB-31", "paired"));
        assertEquals("", hall.kept("MB-1", "seen.refusedLogins"));
    }

    @Test
    void aControllerIsSetUp() throws Exception {
        ConsoleSpec one = spec("sallow", 3, "1");
        power(one);
        assertEquals(null, engineer(one, "controller 1").begin().end(40));
        assertEquals("172.20.0.0/16", hall.kept("MB-3", "tunnel"));
        assertEquals("1", hall.kept("MB-3", "seen.restarts"));
    }

    @Test
    void aHostIsSetUpWithCursorKeys() throws Exception {
        ConsoleSpec host = spec("greenup", 4, "1");
        power(host);
        // its own check asks a name server that is not here; the tool waits, and says that this takes too long
        Hold hold = engineer(host, "", Why.OVERDUE).begin().end(60);
        assertNotNull(hold);
        assertTrue(hold.sentence().contains("checks its own reach"), hold::toString);
        assertEquals("127.40.9.104/24", hall.kept("MB-4", "Address"));
        assertEquals("ard-one-104.ardal.example", hall.kept("MB-4", "Own name"));
        assertEquals("2", hall.kept("MB-4", "seen.logins"));
    }

    @Test
    void aGatewayTakesNothingOfWhatItSuggestsAndTurnsItsPages() throws Exception {
        ConsoleSpec gateway = spec("brathay", 5, "1");
        power(gateway);
        assertNull(engineer(gateway, "").begin().end(40));
        assertEquals("127.40.9.105", hall.kept("MB-5", "address"));
        assertEquals("standby", hall.kept("MB-5", "manager"), "it suggests master");
        assertEquals("no", hall.kept("MB-5", "diagnostics"), "it suggests yes");
        assertEquals("1", hall.kept("MB-5", "seen.restarts"));
        assertEquals("", hall.kept("MB-5", "seen.refusedLogins"));
    }

    /**
     * What a machine does and what comes of it.
     *
     * @param why what the tool must hold for; null where it must get to its end all the same
     * @param part of what it must say
     */
    private record Row(String model, Habit habit, Why why, String part) {}

    private static final List<Row> TABLE = List.of(
            new Row("orrel", Habit.WRONG_DEFAULT, null, ""),
            new Row("orrel", Habit.ORDER_CHANGED, null, ""),
            new Row("orrel", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "not in the description"),
            new Row("orrel", Habit.REFUSED_ANSWER, Why.REFUSED, "that is not beside the address"),
            new Row("orrel", Habit.GARBAGE, null, ""),
            new Row("orrel", Habit.SLOW, null, ""),
            new Row("orrel", Habit.NEVER_RETURNS, Why.OVERDUE, "takes longer than"),
            new Row("orrel", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("orrel", Habit.PEER_NOT_SEEN, Why.OVERDUE, "both pair"),
            new Row("orrel", Habit.ECHO_OFF, null, ""),
            new Row("orrel", Habit.CHATTER, null, ""),
            new Row("orrel", Habit.LINE_CUT, null, ""),
            new Row("orrel", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, "Nothing was written to it"),
            new Row("orrel", Habit.USED, Why.USED, "set up before"),
            new Row("orrel", Habit.ASKS_AGAIN, Why.REFUSED, "asks again"),
            new Row("sallow", Habit.WRONG_DEFAULT, null, ""),
            new Row("sallow", Habit.ORDER_CHANGED, null, ""),
            new Row("sallow", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "not in the description"),
            new Row("sallow", Habit.REFUSED_ANSWER, Why.REFUSED, "that gateway lies outside"),
            new Row("sallow", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, "Nothing was written to it"),
            new Row("sallow", Habit.CHATTER, null, ""),
            new Row("greenup", Habit.WRONG_DEFAULT, Why.OVERDUE, "checks its own reach"),
            new Row("greenup", Habit.REFUSED_ANSWER, Why.REFUSED, "not beside the address"),
            new Row("greenup", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, "Nothing was written to it"),
            new Row("brathay", Habit.WRONG_DEFAULT, null, ""),
            new Row("brathay", Habit.ORDER_CHANGED, null, ""),
            new Row("brathay", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "Which end of the row is cold?"),
            new Row("brathay", Habit.REFUSED_ANSWER, Why.REFUSED, "nobody there on this cable"),
            new Row("brathay", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199"),
            new Row("brathay", Habit.NEVER_RETURNS, Why.OVERDUE, "takes longer than"),
            new Row("brathay", Habit.CHATTER, null, ""),
            new Row("brathay", Habit.ECHO_OFF, null, ""),
            new Row("brathay", Habit.USED, Why.USED, "set up before"),
            new Row("brathay", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, "Nothing was written to it"));

    /** Each with a machine and an engineer of its own, all at the same time. */
    @Test
    void everyMisbehaviourIsNoticedAndSaid() throws Exception {
        List<ConsoleSpec> specs = new ArrayList<>();
        for (int i = 0; i < TABLE.size(); i++) {
            Row row = TABLE.get(i);
            specs.add(spec(row.model, 10 + i, row.model.equals("orrel") ? "left" : "1", row.habit));
            specs.add(spec("orrel", 100 + i, "right"));
        }
        power(specs.toArray(ConsoleSpec[]::new));
        List<Engineer> engineers = new ArrayList<>();
        for (int i = 0; i < TABLE.size(); i++) {
            engineers.add(begin(TABLE.get(i), specs.get(2 * i), specs.get(2 * i + 1)));
        }
        List<org.junit.jupiter.api.function.Executable> verdicts = new ArrayList<>();
        for (int i = 0; i < TABLE.size(); i++) {
            Row row = TABLE.get(i);
            Engineer engineer = engineers.get(i);
            String serial = specs.get(2 * i).serial();
            verdicts.add(() -> judge(row, serial, engineer.end(90)));
        }
        assertAll(verdicts);
    }

    private Engineer begin(Row row, ConsoleSpec odd, ConsoleSpec right) {
        boolean stops = row.why == Why.USED || row.why == Why.OVERDUE;
        String member = switch (row.model) {
            case "orrel" -> "left";
            case "sallow" -> "controller 1";
            default -> "";
        };
        Engineer engineer = engineer(odd, member, stops ? new Why[] {row.why} : new Why[0]);
        if (row.model.equals("orrel") && row.why == null) {
            Engineer atRight = engineer(right, "right");
            engineer.with(atRight);
            atRight.begin();
        }
        return engineer.begin();
    }

    private void judge(Row row, String serial, Hold hold) {
        if (row.why == null) {
            assertNull(hold, row + ": " + hold);
            assertEquals("", hall.kept(serial, "seen.refusedLogins"), row::toString);
            assertEquals("1", hall.kept(serial, "seen.phraseChanges"), row::toString);
        } else {
            assertNotNull(hold, row + ": it went on to its end");
            assertEquals(row.why, hold.why(), row + ": " + hold);
            assertTrue((hold.sentence() + hold.shown()).contains(row.part), row + ": " + hold);
        }
    }
}
