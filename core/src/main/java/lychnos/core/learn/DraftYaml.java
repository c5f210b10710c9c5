package lychnos.core.learn;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.DialogueStep.Mark;

/** Writes a draft into the description of its kind. */
public final class DraftYaml {

    private static final int MOST_TIMES = 4;
    private static final Duration LEAST = Duration.ofMinutes(2);

    private DraftYaml() {}

    /**
     * The description with what was learnt: the new facts behind its own, the setup on the console, and its dialogue in
     * place of one that is there.
     *
     * @param kind a description as it is written, with its keys at the beginning of lines
     * @param line the settings of the line: {@code 9600 8N1}
     * @throws IllegalStateException for a draft that is not settled
     */
    public static String into(String kind, Draft draft, String line) {
        if (!draft.settled()) {
            throw new IllegalStateException("a person has to answer first");
        }
        StringBuilder text = new StringBuilder();
        boolean skipping = false;
        boolean hasFacts = false;
        for (String each : kind.lines().toList()) {
            boolean top = !each.isEmpty() && Character.isLetter(each.charAt(0));
            skipping = top ? each.startsWith("dialogue:") || each.startsWith("setup:") : skipping;
            if (!skipping) {
                text.append(each).append('\n');
            }
            if (each.startsWith("facts:")) {
                hasFacts = true;
                text.append(facts(draft));
            }
        }
        if (!hasFacts && !draft.facts().isEmpty()) {
            text.append("\nfacts:\n").append(facts(draft));
        }
        return text.append("\nsetup: { by: console }\n\n")
                .append(dialogue(draft, line))
                .toString();
    }

    private static String facts(Draft draft) {
        return draft.facts().stream().map(DraftYaml::fact).collect(Collectors.joining());
    }

    private static String fact(LearntFact fact) {
        String of = "  " + fact.name() + ": { of: unit, is: ";
        String title = ", title: " + quoted(fact.title());
        String find = ", find: " + (fact.find().isEmpty() ? "typed at the first setup" : quoted(fact.find())) + " }\n";
        return switch (fact.sort()) {
            case TEXT -> of + "text" + title + find;
            case SAME_TEXT -> of + "text" + title + ", same: true" + find;
            case MADE_SECRET -> of + "secret" + title + ", made: true }\n";
            case GIVEN_SECRET -> of + "secret" + title + find;
        };
    }

    /** The dialogue alone. */
    static String dialogue(Draft draft, String line) {
        StringBuilder text =
                new StringBuilder("dialogue:\n  line: ").append(line).append('\n');
        if (draft.redraws()) {
            text.append("  nudge: redraw\n");
        }
        if (!draft.chatter().isEmpty()) {
            text.append("  chatter: [ ").append(list(draft.chatter().stream())).append(" ]\n");
        }
        if (!draft.paging().isEmpty()) {
            text.append("  paging:\n");
            draft.paging()
                    .forEach(look ->
                            text.append("    - { see: ").append(quoted(look)).append(", press: space }\n"));
        }
        draft.refused()
                .ifPresent(refused ->
                        text.append("  refused: ").append(quoted(refused)).append('\n'));
        draft.see().ifPresent(see -> {
            text.append("  identify:\n    see: ").append(quoted(see));
            text.append("\n    must: { serial: \"{serial}\" }\n");
            if (!draft.unused().isEmpty()) {
                text.append("    unused: [ ").append(quoted(draft.unused())).append(" ]\n");
            }
        });
        if (!draft.logIn().isEmpty()) {
            text.append("  log-in:\n");
            draft.logIn().forEach(step -> text.append(step(step)));
        }
        text.append("  setup:\n");
        draft.steps().forEach(step -> text.append(step(step)));
        return text.toString();
    }

    private static String step(LearntStep step) {
        List<String> parts = new ArrayList<>();
        switch (step.sort()) {
            case ANSWERS -> {
                parts.add("asked: " + quoted(step.look()));
                parts.add("answer: " + quoted(step.answer()));
            }
            case COMMANDS -> {
                parts.add("at: " + quoted(step.look()));
                parts.add("send: " + quoted(step.answer()));
            }
            case COMPARES ->
                parts.add("summary: { "
                        + step.fields().entrySet().stream()
                                .map(field -> quoted(field.getKey()) + ": " + quoted(field.getValue()))
                                .collect(Collectors.joining(", "))
                        + " }");
            case WAITS ->
                parts.add("waits: { about: " + time(step.about()) + ", at-most: " + time(most(step.about()))
                        + ", until: " + quoted(step.look()) + " }");
        }
        if (step.suggested()) {
            parts.add("suggested: yes");
        }
        for (Mark mark : step.marks().stream().sorted().toList()) {
            parts.add(mark.key() + ": yes");
        }
        parts.add("title: " + quoted(step.title()));
        return "    - { " + String.join(", ", parts) + " }\n";
    }

    private static Duration most(Duration about) {
        Duration most = about.multipliedBy(MOST_TIMES);
        return most.compareTo(LEAST) < 0 ? LEAST : most;
    }

    private static String time(Duration time) {
        return Math.max(1, time.toSeconds()) + " s";
    }

    private static String list(Stream<String> texts) {
        return texts.map(DraftYaml::quoted).collect(Collectors.joining(", "));
    }

    private static String quoted(String text) {
        return "'" + text.replace("'", "''") + "'";
    }
}
