package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import lychnos.core.Rounds;
import lychnos.core.fact.Secret;
import lychnos.core.kind.KindReader;
import org.junit.jupiter.api.Test;

/**
 * Lines of machines, whole, torn, mixed and made of noise, in any order: the conversation neither breaks nor grows, and
 * no password leaves but to a line that asks for one. {@code -Dfuzz.lines=1000000} makes it long.
 */
class FuzzTest {

    private static final int LINES = Integer.getInteger("fuzz.lines", 40_000);
    private static final int PER_CONVERSATION = 400;
    private static final Secret PASSWORD = Secret.of("Hn4tRb7sLxVc");
    private static final Map<String, String> TEXTS = Map.ofEntries(
            Map.entry("serial", "OR-20117"),
            Map.entry("factory.user", "keeper"),
            Map.entry("password-policy", "2"),
            Map.entry("address", "10.40.8.40"),
            Map.entry("length", "24"),
            Map.entry("gateway", "10.40.8.1"),
            Map.entry("name-server-1", "10.40.8.3"),
            Map.entry("name-server-2", "10.40.8.4"),
            Map.entry("shared.address", "10.40.8.42"),
            Map.entry("fabric-name", "ardal-fabric"),
            Map.entry("active", "3"),
            Map.entry("member-number", "2"),
            Map.entry("tunnel-pool", "10.45.0.0/16"),
            Map.entry("control-vlan", "3900"),
            Map.entry("name", "ard-fdc-1-2"),
            Map.entry("domain", "ardal.example"),
            Map.entry("keyboard", "us"),
            Map.entry("links", "1"),
            Map.entry("vlan", "0"));

    @Test
    void noLineBreaksIt() throws IOException {
        Random random = new Random(20261123);
        List<String> corpus = corpus();
        List<Dialogue> dialogues = List.of("interconnect-pair", "fabric-controller", "hypervisor-host").stream()
                .map(kind -> KindReader.shipped(kind).dialogue().orElseThrow())
                .toList();
        Runtime memory = Runtime.getRuntime();
        int sentSecrets = 0;
        for (int fed = 0; fed < Rounds.of(LINES); fed += PER_CONVERSATION) {
            sentSecrets += one(dialogues.get(random.nextInt(dialogues.size())), corpus, random);
        }
        assertTrue(sentSecrets > 0, "some rounds must come as far as a password, or nothing was tried");
        assertTrue(memory.totalMemory() - memory.freeMemory() < 700L << 20, "what was fed does not stay");
    }

    private static int one(Dialogue dialogue, List<String> corpus, Random random) {
        Stage stage = new Stage(
                dialogue,
                Mode.values()[random.nextInt(3)],
                new Known(
                        TEXTS,
                        Map.of(
                                "factory.phrase",
                                PASSWORD,
                                "keeper-password",
                                PASSWORD,
                                "warden-password",
                                PASSWORD,
                                "root-password",
                                PASSWORD),
                        AgreedTerms::toTheFirst));
        int secrets = 0;
        for (int i = 0; i < PER_CONVERSATION; i++) {
            stage.says(mutated(corpus.get(random.nextInt(corpus.size())), random));
            stage.now = stage.now.plus(Duration.ofMillis(random.nextInt(1500)));
            stage.effects.addAll(stage.conversation.tick(stage.now));
            act(stage, random);
            secrets += secretsAskedFor(stage);
            stage.effects.clear();
        }
        assertTrue(stage.conversation.screen().window().size() <= 2 * Screen.ROWS);
        return secrets;
    }

    /** What a person may do in between. */
    private static void act(Stage stage, Random random) {
        switch (random.nextInt(40)) {
            case 0 -> stage.effects.addAll(stage.conversation.lineDown());
            case 1, 2 -> stage.effects.addAll(stage.conversation.lineUp(stage.now));
            case 3 -> stage.effects.addAll(stage.conversation.typed("x\r", stage.now));
            case 4, 5, 6, 7, 8 -> stage.conversation.hold().ifPresent(hold -> stage.goOn(hold.typed()));
            default -> {
                // looks on
            }
        }
    }

    /** Counts passwords that were sent; each must stand behind a line that speaks of one. */
    private static int secretsAskedFor(Stage stage) {
        int secrets = 0;
        for (Effect effect : stage.effects) {
            if (effect instanceof Effect.SendSecret) {
                String window =
                        String.join("\n", stage.conversation.screen().window()).toLowerCase(java.util.Locale.ROOT);
                assertTrue(
                        window.contains("phrase")
                                || window.contains("password")
                                || window.contains("once more")
                                || window.contains("and again"),
                        window);
                secrets++;
            } else if (effect instanceof Effect.Send send) {
                assertTrue(!PASSWORD.<Boolean>use(send.text()::contains), "no password is sent as plain text");
            }
        }
        return secrets;
    }

    private static String mutated(String line, Random random) {
        StringBuilder text = new StringBuilder(line);
        switch (random.nextInt(8)) {
            case 0 -> text.setLength(random.nextInt(text.length() + 1));
            case 1 -> {
                for (int i = 0; i < 5 && text.length() > 0; i++) {
                    text.setCharAt(random.nextInt(text.length()), (char) random.nextInt(256));
                }
            }
            case 2 ->
                text.insert(
                        random.nextInt(text.length() + 1),
                        "\033[" + random.nextInt(90) + ";" + random.nextInt(200) + "HJKmf".charAt(random.nextInt(5)));
            case 3 -> text.append("[".repeat(random.nextInt(200)));
            case 4 -> text.insert(0, "\033[2J");
            default -> {
                // as it is
            }
        }
        return text + (random.nextInt(3) == 0 ? "" : "\r\n");
    }

    private static List<String> corpus() throws IOException {
        List<String> corpus = new ArrayList<>();
        for (String recording : List.of("interconnect-left.txt", "controller-2.txt", "brook-switch.txt")) {
            for (String line : new String(
                            FuzzTest.class
                                    .getResourceAsStream("/recordings/" + recording)
                                    .readAllBytes(),
                            StandardCharsets.UTF_8)
                    .split("\n")) {
                if (line.startsWith("< ")) {
                    corpus.add(line.substring(2).replace("|", ""));
                }
            }
        }
        corpus.addAll(List.of(
                "Greenup host OR-20117   not set up",
                "User: ",
                "Phrase: ",
                "New phrase ",
                "Once more ",
                "\033[4;3H\033[7mHost\033[0m",
                "Sallow node OR-20117, unprepared",
                "no: ",
                "error> ",
                "ORREL fabric interconnect, serial OR-20117, blank",
                "keeper login "));
        return corpus;
    }
}
