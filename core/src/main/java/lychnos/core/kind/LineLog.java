package lychnos.core.kind;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DryRun;
import lychnos.core.dialogue.Look;

/** What other programs keep of a console, as pieces with their time: a plain log, or a log with its timing. */
final class LineLog {

    /** Between two pieces of a log that tells no time: long enough for a question to count as one. */
    private static final Duration APART = Duration.ofMillis(400);

    private static final int MOST_PIECES = 20_000;

    /** No question is longer; what is, is output. */
    private static final int LONGEST_LINE = 240;

    private static final int MOST_ENDS = 3;

    /** Where a question may end and what was typed begins. */
    private static final Pattern PROMPT_END = Pattern.compile("[:>?#$%] +");

    private static final Pattern TIMING = Pattern.compile("(\\d{1,6}(?:\\.\\d{1,9})?) (\\d{1,9})");

    private LineLog() {}

    /**
     * A plain log, line by line. Question and answer are on one line there: a line is divided where a question of the
     * description ends, so that the answer comes after it. A question that is asked twice since somebody pressed Enter
     * is asked once.
     *
     * @param values by name, what was answered
     */
    static List<DryRun.Heard> plain(String text, Dialogue dialogue, String member, Map<String, String> values) {
        List<Asked> questions = dialogue.steps(member, true).stream()
                .filter(Asked.class::isInstance)
                .map(Asked.class::cast)
                .toList();
        List<DryRun.Heard> heard = new ArrayList<>();
        Duration at = Duration.ZERO;
        String[] lines = text.replace("\r\n", "\n").split("\n", -1);
        for (int i = 0; i < lines.length && heard.size() < MOST_PIECES; i++) {
            int end = questionEnd(lines[i], questions, values);
            boolean again = end > 0
                    && i + 1 < lines.length
                    && lines[i].substring(end).isBlank()
                    && lines[i + 1].startsWith(lines[i].stripTrailing());
            if (again) {
                continue;
            }
            if (end > 0) {
                heard.add(new DryRun.Heard(at, true, lines[i].substring(0, end)));
                at = at.plus(APART);
            }
            heard.add(new DryRun.Heard(at, true, lines[i].substring(end) + (i + 1 < lines.length ? "\r\n" : "")));
            at = at.plus(APART);
        }
        return heard;
    }

    /** Where a question of the description ends in a line; 0 where there is none. */
    private static int questionEnd(String line, List<Asked> questions, Map<String, String> values) {
        if (line.length() > LONGEST_LINE) {
            return 0;
        }
        try {
            return questionIn(line, questions, values);
        } catch (Look.TooHard e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
    }

    private static int questionIn(String line, List<Asked> questions, Map<String, String> values) {
        for (Asked question : questions) {
            Optional<String> answer = question.answer().fill(name -> Optional.ofNullable(values.get(name)));
            if (answer.isPresent()
                    && !answer.get().isEmpty()
                    && line.endsWith(answer.get())
                    && question.look()
                            .in(line.substring(0, line.length() - answer.get().length()))) {
                return line.length() - answer.get().length();
            }
        }
        Matcher ends = PROMPT_END.matcher(line);
        for (int i = 0; i < MOST_ENDS && ends.find(); i++) {
            String before = line.substring(0, ends.end());
            if (questions.stream().anyMatch(question -> question.look().in(before))) {
                return ends.end();
            }
        }
        // a password is not shown, and an answer of Enter alone leaves nothing to see
        return questions.stream().anyMatch(question -> question.look().in(line)) ? line.length() : 0;
    }

    /**
     * A log with its timing: of each piece the seconds since the one before it, and its length in bytes.
     *
     * @throws IllegalArgumentException for a timing that is none, with the line
     */
    static List<DryRun.Heard> timed(String text, String timing) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        // the program that writes such logs begins them with a line of its own
        int from = text.startsWith("Script started") ? text.indexOf('\n') + 1 : 0;
        from = text.substring(0, from).getBytes(StandardCharsets.UTF_8).length;
        List<DryRun.Heard> heard = new ArrayList<>();
        Duration at = Duration.ZERO;
        List<String> lines = timing.lines().filter(line -> !line.isBlank()).toList();
        for (int i = 0; i < lines.size() && heard.size() < MOST_PIECES; i++) {
            Matcher piece = TIMING.matcher(lines.get(i).strip());
            if (!piece.matches()) {
                throw new IllegalArgumentException(KindFileText.TIMING_LINE.text(i + 1));
            }
            at = at.plus(Duration.ofMillis(Math.round(Double.parseDouble(piece.group(1)) * 1000)));
            int length = (int) Math.min(Long.parseLong(piece.group(2)), bytes.length - from);
            heard.add(new DryRun.Heard(at, true, new String(bytes, from, length, StandardCharsets.UTF_8)));
            from += length;
        }
        return heard;
    }
}
