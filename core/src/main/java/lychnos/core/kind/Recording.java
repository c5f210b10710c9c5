package lychnos.core.kind;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DryRun;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Secret;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.schema.JsonSchema;

/**
 * A recording of a console line, as asciicast version 2 writes it: a header, then one line for each piece of output.
 * The header has an entry {@code lychnos} of ours with the kind, the member, and what the line was answered with, so
 * that a description can be tried on it without a machine.
 *
 * @param values by name, what was answered
 * @param secrets names of passwords, whose values no recording has
 */
public record Recording(
        String kind, String member, Map<String, String> values, Set<String> secrets, List<DryRun.Heard> heard) {

    private static final int LONGEST = 2_000_000;
    private static final int MOST_PIECES = 20_000;
    /** Every moment of it is played: a longer one would keep a processor for minutes. */
    private static final Duration LONGEST_TIME = Duration.ofHours(12);
    /** The mark that stands where the machine had told which one it is. */
    private static final String NOTHING_SENT = "identified";

    private static final Secret BLANKED = Secret.of("blanked-in-recordings");

    public Recording {
        values = Map.copyOf(values);
        secrets = Set.copyOf(secrets);
        heard = List.copyOf(heard);
    }

    /** Reads the recording that is shipped with a kind; nothing where it has no console. */
    public static Optional<Recording> shipped(String kind) {
        return shippedText(kind).map(Recording::read);
    }

    /** The same as it is written. */
    public static Optional<String> shippedText(String kind) {
        return KindReader.shippedText("/kinds/recordings/" + kind + ".cast");
    }

    /**
     * Reads a recording.
     *
     * @throws IllegalArgumentException for a text that is none, with the line
     */
    public static Recording read(String text) {
        if (text.length() > LONGEST) {
            throw new IllegalArgumentException(KindFileText.RECORDING_TOO_LONG.text(LONGEST));
        }
        List<String> lines = text.lines().filter(line -> !line.isBlank()).toList();
        if (lines.isEmpty()
                || !(json(lines.get(0), 1) instanceof Map<?, ?> header)
                || !Integer.valueOf(2).equals(header.get("version"))) {
            throw new IllegalArgumentException(KindFileText.NO_HEADER.text());
        }
        if (!(header.get("lychnos") instanceof Map<?, ?> ours)) {
            throw new IllegalArgumentException(KindFileText.NO_HEADER_ENTRY.text());
        }
        Map<String, String> values = new LinkedHashMap<>();
        if (ours.get("values") instanceof Map<?, ?> given) {
            given.forEach((name, value) -> values.put(String.valueOf(name), String.valueOf(value)));
        }
        Set<String> secrets = new LinkedHashSet<>();
        if (ours.get("secrets") instanceof List<?> named) {
            named.forEach(name -> secrets.add(String.valueOf(name)));
        }
        return new Recording(word(ours, "kind"), word(ours, "member"), values, secrets, heard(lines));
    }

    /** Whether a text says itself what the line was answered with. */
    public static boolean hasValues(String text) {
        return text.lines().findFirst().orElse("").contains("\"lychnos\"");
    }

    /**
     * Reads what another program has kept of a line: asciicast version 2, a log with its timing, or a plain log.
     *
     * @param timing of a log, or an empty text
     * @param dialogue whose questions divide a plain log
     * @param values by name, what the line was answered with
     * @param secrets names of passwords
     * @throws IllegalArgumentException for a text that is none, with the line
     */
    public static Recording imported(
            String text,
            String timing,
            Dialogue dialogue,
            String member,
            Map<String, String> values,
            Set<String> secrets) {
        if (text.length() > LONGEST || timing.length() > LONGEST) {
            throw new IllegalArgumentException(KindFileText.RECORDING_TOO_LONG.text(LONGEST));
        }
        if (text.isBlank()) {
            throw new IllegalArgumentException(KindFileText.RECORDING_EMPTY.text());
        }
        List<DryRun.Heard> heard = text.startsWith("{")
                ? heard(text.lines().filter(line -> !line.isBlank()).toList())
                : timing.isBlank() ? LineLog.plain(text, dialogue, member, values) : LineLog.timed(text, timing);
        return new Recording("", member, values, secrets, heard);
    }

    private static String word(Map<?, ?> ours, String name) {
        return ours.get(name) == null ? "" : String.valueOf(ours.get(name));
    }

    private static List<DryRun.Heard> heard(List<String> lines) {
        List<DryRun.Heard> heard = new ArrayList<>();
        for (int i = 1; i < lines.size() && heard.size() < MOST_PIECES; i++) {
            if (!(json(lines.get(i), i + 1) instanceof List<?> each
                    && each.size() == 3
                    && each.get(0) instanceof Number
                    && each.get(2) instanceof String)) {
                throw new IllegalArgumentException(KindFileText.NOT_A_PIECE.text(i + 1));
            }
            Duration at = Duration.ofMillis(Math.round(((Number) each.get(0)).doubleValue() * 1000));
            if (at.isNegative() || at.compareTo(LONGEST_TIME) > 0) {
                throw new IllegalArgumentException(KindFileText.PIECE_TIME.text(i + 1, LONGEST_TIME.toSeconds()));
            }
            // a mark stands where something was sent, and says nothing of what it was
            if ("o".equals(each.get(1))
                    || "i".equals(each.get(1))
                    || "m".equals(each.get(1)) && !NOTHING_SENT.equals(each.get(2))) {
                heard.add(new DryRun.Heard(
                        at, "o".equals(each.get(1)), "m".equals(each.get(1)) ? "" : (String) each.get(2)));
            }
        }
        return heard;
    }

    /** JSON is what YAML 1.2 calls its flow style; it gives maps, lists, texts and numbers only. */
    private static Object json(String line, int number) {
        try {
            return new Load(LoadSettings.builder()
                            .setSchema(new JsonSchema())
                            .setAllowDuplicateKeys(false)
                            .build())
                    .loadFromString(line);
        } catch (YamlEngineException e) {
            throw new IllegalArgumentException(KindFileText.NOT_JSON.text(number));
        }
    }

    /** Tries a description on it. */
    public DryRun.Report tryOn(Dialogue dialogue) {
        return DryRun.play(dialogue, member, answers(), heard);
    }

    /** What the line was answered with; a password is one that no machine has. */
    public Values answers() {
        return new Answered();
    }

    private final class Answered implements Values {

        @Override
        public Optional<String> text(String name) {
            return Optional.ofNullable(values.get(name));
        }

        @Override
        public Optional<Secret> secret(String name) {
            return secrets.contains(name) ? Optional.of(BLANKED) : Optional.empty();
        }

        @Override
        public Collection<Secret> secrets() {
            return List.of(BLANKED);
        }

        @Override
        public String unitName() {
            return values.getOrDefault("unit", "");
        }

        @Override
        public AgreedTerms terms() {
            return AgreedTerms.toTheFirst();
        }
    }
}
