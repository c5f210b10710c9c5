package lychnos.core.dialogue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/**
 * Recordings as people write them for a test: a line that begins with {@code <} was said by the machine, one with
 * {@code >} was typed, and {@code +} lets so many seconds go by. {@code |} ends a line that the machine left open.
 */
final class Recorded {

    private Recorded() {}

    static List<DryRun.Heard> read(String name) throws IOException {
        List<DryRun.Heard> heard = new ArrayList<>();
        double at = 0;
        String text = new String(
                Recorded.class.getResourceAsStream("/recordings/" + name).readAllBytes(), StandardCharsets.UTF_8);
        for (String line : text.split("\n")) {
            String rest = line.length() > 1 ? line.substring(2) : "";
            switch (line.isEmpty() ? '#' : line.charAt(0)) {
                case '<' ->
                    heard.add(new DryRun.Heard(
                            seconds(at += 0.1),
                            true,
                            rest.endsWith("|") ? rest.substring(0, rest.length() - 1) : rest + "\r\n"));
                case '>' -> {
                    heard.add(new DryRun.Heard(seconds(at += 1.5), false, rest + "\r"));
                    heard.add(new DryRun.Heard(seconds(at += 0.1), true, (rest.matches("•+") ? "" : rest) + "\r\n"));
                }
                case '+' -> at += Double.parseDouble(rest);
                default -> {
                    // a remark
                }
            }
        }
        return heard;
    }

    private static Duration seconds(double seconds) {
        return Duration.ofMillis((long) (seconds * 1000));
    }
}
