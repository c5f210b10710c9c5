package lychnos.wire.console;

import io.vertx.core.Vertx;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.kind.KindReader;
import lychnos.lab.Plug;
import lychnos.lab.console.AnyName;
import lychnos.lab.console.ConsoleHall;
import lychnos.lab.console.ConsoleSpec;
import lychnos.lab.console.Directory;
import lychnos.lab.console.Habit;
import lychnos.wire.dial.Dialler;
import org.junit.jupiter.api.AfterEach;

/** Machines with consoles, and an engineer at each line. */
abstract class LinesStage {

    static final String SERVER = "127.40.8.41";

    final Vertx vertx = Vertx.vertx();
    final Lines lines = new Lines(vertx, new Dialler(() -> List.of(Prefix.parse("127.0.0.0/8")), true));
    final List<AutoCloseable> open = new ArrayList<>();
    ConsoleHall hall;

    @AfterEach
    void close() throws Exception {
        closeAll();
        lines.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    void closeAll() throws Exception {
        for (AutoCloseable each : open) {
            each.close();
        }
        open.clear();
    }

    ConsoleHall power(ConsoleSpec... specs) {
        hall = new ConsoleHall(List.of(specs), SERVER, Plug.loopback(), 8443, Duration.ofMillis(200), null);
        open.add(hall);
        open.add(new AnyName(vertx, Planned.NAME_SERVER));
        open.add(new Directory(
                vertx,
                Planned.DIRECTORY,
                Map.of(
                        Planned.JOINER,
                        Planned.OURS.use(word -> word),
                        Planned.VISITOR,
                        Planned.OURS.use(word -> word))));
        return hall;
    }

    static ConsoleSpec spec(String model, int number, String place, Habit... habits) {
        return new ConsoleSpec(
                model,
                "MB-" + number,
                String.format("02:4c:59:d2:00:%02x", number),
                4000 + number,
                "group " + number % 100,
                place,
                Planned.first(model, "127.40.10." + (1 + number % 250)),
                Set.copyOf(List.of(habits)));
    }

    /** The same with waits that are over within seconds, as the stand-ins' are. */
    static Dialogue hurried(Dialogue plain) {
        return new Dialogue(
                plain.line(),
                plain.nudge(),
                plain.chatter(),
                plain.paging(),
                plain.refused(),
                plain.identify(),
                plain.logIn(),
                hurried(plain.wipe()),
                hurried(plain.setup()),
                plain.oneByOne(),
                plain.pages(),
                plain.over(),
                plain.log());
    }

    static List<DialogueStep> hurried(List<DialogueStep> steps) {
        return steps.stream()
                .<DialogueStep>map(step -> step instanceof DialogueStep.Waits waits
                        ? new DialogueStep.Waits(
                                waits.title(),
                                waits.on(),
                                Duration.ofSeconds(1),
                                Duration.ofSeconds(6),
                                waits.until(),
                                waits.asks(),
                                waits.only())
                        : step)
                .toList();
    }

    Engineer engineer(ConsoleSpec spec, Why... ends) {
        Dialogue dialogue = hurried(
                KindReader.shipped(Planned.kind(spec.model())).dialogue().orElseThrow());
        Engineer engineer = new Engineer(
                lines,
                LineAddress.tcp(LineAddress.Protocol.RFC2217, Address.parse(SERVER), spec.port()),
                dialogue,
                Planned.member(spec),
                Planned.values(spec),
                Set.of(ends));
        open.add(0, engineer);
        return engineer;
    }
}
