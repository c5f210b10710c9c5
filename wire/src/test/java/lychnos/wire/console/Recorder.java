package lychnos.wire.console;

import com.fasterxml.jackson.databind.ObjectMapper;
import io.vertx.core.Vertx;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.kind.KindPage;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.LanguagePage;
import lychnos.lab.Plug;
import lychnos.lab.console.AnyName;
import lychnos.lab.console.ConsoleHall;
import lychnos.lab.console.ConsoleSpec;
import lychnos.lab.console.Directory;
import lychnos.wire.dial.Dialler;

/**
 * Makes the recordings that are shipped with the kinds: sets each stand-in up on its line, and writes what the line
 * showed.
 */
public final class Recorder {

    private static final String SERVER = "127.40.8.41";
    private static final int TOGETHER_MILLIS = 40;
    private static final int PATIENCE_SECONDS = 90;
    private static final Map<String, String> PAIRED = Map.of("orrel", "right", "wythop", "2", "bannisdale", "2");
    private static final ObjectMapper JSON = new ObjectMapper();

    private Recorder() {}

    /**
     * Writes one file for each kind with a console into a directory, or for the kinds that are named behind, and the
     * references of kinds and language.
     */
    public static void main(String[] args) throws Exception {
        Path directory = Files.createDirectories(Path.of(args[0]));
        Files.writeString(Path.of(args[1]), KindPage.reference(KindReader.allShipped()));
        Files.writeString(Path.of(args[2]), LanguagePage.reference());
        Files.writeString(Path.of(args[3]), KindPage.coverage(KindReader.allShipped()));
        Vertx vertx = Vertx.vertx();
        int number = 0;
        List<String> only = List.of(args).subList(4, args.length);
        for (String model : Planned.models()) {
            number++;
            if (!only.isEmpty() && !only.contains(Planned.kind(model))) {
                continue;
            }
            ConsoleSpec spec = spec(model, number, Planned.firstPlace(model));
            List<ConsoleSpec> specs = new ArrayList<>(List.of(spec));
            if (PAIRED.containsKey(model)) {
                specs.add(spec(model, 100 + number, PAIRED.get(model)));
            }
            try (ConsoleHall hall = new ConsoleHall(specs, SERVER, Plug.loopback(), 8443, Duration.ofSeconds(2), null);
                    AnyName names = new AnyName(vertx, Planned.NAME_SERVER);
                    Directory accounts = new Directory(
                            vertx,
                            Planned.DIRECTORY,
                            Map.of(
                                    Planned.JOINER,
                                    Planned.OURS.use(word -> word),
                                    Planned.VISITOR,
                                    Planned.OURS.use(word -> word)))) {
                record(vertx, specs, directory.resolve(Planned.kind(model) + ".cast"));
            }
        }
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    private static ConsoleSpec spec(String model, int number, String place) {
        return new ConsoleSpec(
                model,
                model.substring(0, 2).toUpperCase(Locale.ROOT) + "-" + (7000 + number),
                String.format("02:4c:59:d8:00:%02x", number),
                4000 + number,
                model,
                place,
                Planned.first(model, "127.40.10.2"),
                Set.of());
    }

    private static void record(Vertx vertx, List<ConsoleSpec> specs, Path file) throws Exception {
        Lines lines = new Lines(vertx, new Dialler(() -> List.of(Prefix.parse("127.0.0.0/8")), true));
        Dialogue dialogue = KindReader.shipped(Planned.kind(specs.get(0).model()))
                .dialogue()
                .orElseThrow();
        Tape tape = new Tape();
        try (Engineer first = engineer(lines, dialogue, specs.get(0)).heardBy(tape::heard, keys -> tape.sent())) {
            if (specs.size() > 1) {
                try (Engineer second = engineer(lines, dialogue, specs.get(1)).with(first)) {
                    first.with(second);
                    second.begin();
                    first.begin();
                    first.end(PATIENCE_SECONDS);
                }
            } else {
                first.begin().end(PATIENCE_SECONDS);
            }
        }
        lines.close();
        Files.writeString(file, header(dialogue, specs.get(0)) + tape.written());
        System.out.println(file.getFileName());
    }

    private static Engineer engineer(Lines lines, Dialogue dialogue, ConsoleSpec spec) {
        return new Engineer(
                lines,
                LineAddress.tcp(LineAddress.Protocol.RFC2217, Address.parse(SERVER), spec.port()),
                dialogue,
                Planned.member(spec),
                Planned.values(spec),
                Set.of());
    }

    private static String header(Dialogue dialogue, ConsoleSpec spec) throws IOException {
        Set<String> secrets = dialogue.steps(Planned.member(spec), true).stream()
                .filter(step -> step instanceof Asked asked && asked.is(Mark.SECRET))
                .flatMap(step -> ((Asked) step).answer().names().stream())
                .collect(Collectors.toCollection(TreeSet::new));
        Map<String, String> values = new TreeMap<>(Planned.answered(spec));
        values.put("unit", "ard-one-1");
        values.replaceAll((name, value) -> inTheHall(value));
        Map<String, Object> ours = new TreeMap<>(Map.of(
                "kind",
                Planned.kind(spec.model()),
                "member",
                Planned.member(spec),
                "values",
                values,
                "secrets",
                secrets));
        return JSON.writeValueAsString(new TreeMap<>(Map.of("version", 2, "width", 80, "height", 25, "lychnos", ours)))
                + "\n";
    }

    /** The stand-ins run on loopback; in the hall they would have the same addresses a net further down. */
    private static String inTheHall(String text) {
        return text.replaceAll("\\b127\\.4", "10.4");
    }

    /** What a line shows; what comes right behind each other is one piece, so that an address is never cut in two. */
    private static final class Tape {
        private final List<Long> at = new ArrayList<>();
        private final List<StringBuilder> pieces = new ArrayList<>();
        private long began;
        private long last;

        synchronized void heard(String text) {
            long now = System.nanoTime() / 1_000_000;
            began = pieces.isEmpty() ? now : began;
            if (pieces.isEmpty() || pieces.get(pieces.size() - 1).length() == 0 || now - last > TOGETHER_MILLIS) {
                at.add(now - began);
                pieces.add(new StringBuilder());
            }
            pieces.get(pieces.size() - 1).append(text);
            last = now;
        }

        /** A mark: an empty piece. */
        synchronized void sent() {
            long now = System.nanoTime() / 1_000_000;
            began = pieces.isEmpty() ? now : began;
            at.add(now - began);
            pieces.add(new StringBuilder());
        }

        synchronized String written() throws IOException {
            StringBuilder lines = new StringBuilder();
            for (int i = 0; i < pieces.size(); i++) {
                lines.append(JSON.writeValueAsString(List.of(
                                at.get(i) / 1000.0,
                                pieces.get(i).length() == 0 ? "m" : "o",
                                inTheHall(pieces.get(i).toString()))))
                        .append('\n');
            }
            return lines.toString();
        }
    }
}
