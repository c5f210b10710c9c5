package lychnos.core.learn;

import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DryRun;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Secret;

/**
 * Learns a setup from its log. The same log, plan and decisions always give the same draft. What it does not know it
 * asks; it never guesses an answer that would be sent.
 */
public final class Learner {

    private static final Pattern DESTROYS = Pattern.compile("(?i)\\b(erase|wipe|delete|destroy|overwrite|format)");
    private static final Pattern TERMS = Pattern.compile("(?i)\\b(terms|licen[cs]e|agreement)\\b");
    private static final Pattern PERMANENT =
            Pattern.compile("(?i)\\b(permanent|for good|cannot be changed|never be changed)");
    /** Commands that change nothing in any trade: they may be sent again at each check. */
    private static final Pattern ONLY_SHOWS = Pattern.compile("(?i)^(show|display|print|list|get|status|info)\\b");

    private static final int SHORTEST_UNTIL = 4;

    private final SetupLog log;
    private final Planned planned;
    private final String serial;
    private final Decisions decisions;
    private final Set<String> taken;
    private final Looks looks;
    private final Segments segments;
    private final Set<String> chatter;
    private final Set<String> paging = new LinkedHashSet<>();
    private final Corrections corrections;
    private final List<Entry> entries;
    private final Optional<Identity> identity;
    private final Answers answers;

    /**
     * Learns.
     *
     * @param serial the serial number of the machine that was set up; its line tells machines apart
     * @param taken names that the facts of the kind have already
     */
    public Learner(SetupLog log, Planned planned, String serial, Set<String> taken, Decisions decisions) {
        this.log = TypedAhead.inOrder(log);
        this.planned = planned;
        this.serial = serial;
        this.taken = taken;
        this.decisions = decisions;
        Segments first = Segments.of(this.log, line -> false);
        chatter = Chatter.of(first);
        Predicate<String> comesAnyTime = line -> chatter.stream().anyMatch(line.stripLeading()::startsWith);
        segments = Segments.of(this.log, comesAnyTime);
        looks = new Looks(planned, unplanned());
        corrections = Corrections.of(turned(quiet(segments.entries(), comesAnyTime)), looks, this::look);
        entries = corrections.kept();
        identity = Identity.of(entries, segments.after(), serial, looks);
        answers = new Answers(entries, segments.after(), planned, looks, decisions, taken);
    }

    private String look(Entry entry) {
        return looks.question(entry.question());
    }

    /** What was typed and may be a password: everything but what is planned, or was said to be none. */
    private List<Secret> unplanned() {
        return segments.entries().stream()
                .filter(entry -> !decisions.texts().containsKey(entry.index()))
                .flatMap(entry -> entry.typed().stream()
                        .filter(typed -> entry.hidden() || typed.<Boolean>use(text -> telling(text, entry))))
                .distinct()
                .toList();
    }

    private boolean telling(String text, Entry entry) {
        return planned.whole(text, entry.question()).isEmpty()
                && !Planned.words(entry.question()).contains(text.toLowerCase(Locale.ROOT))
                && !decisions.commandsTold();
    }

    private static List<Entry> quiet(List<Entry> all, Predicate<String> comesAnyTime) {
        return all.stream().map(entry -> without(entry, comesAnyTime)).toList();
    }

    private static Entry without(Entry entry, Predicate<String> comesAnyTime) {
        int before = (int) entry.shown().stream()
                .limit(entry.silence().after())
                .filter(comesAnyTime)
                .count();
        return entry.with(
                entry.shown().stream().filter(comesAnyTime.negate()).toList(),
                new Entry.Silence(
                        entry.silence().lasted(),
                        entry.silence().whole(),
                        Math.max(0, entry.silence().after() - before)));
    }

    /** The entries without the keys that only turned a page; what the pages showed belongs together. */
    private List<Entry> turned(List<Entry> all) {
        List<Entry> kept = new ArrayList<>();
        List<String> shown = new ArrayList<>();
        for (Entry entry : all) {
            shown.addAll(entry.shown());
            if (entry.key() && kept.isEmpty()) {
                // before the machine has said which one it is, a key is an answer like any other
                kept.add(entry);
                shown.clear();
            } else if (entry.key()) {
                paging.add(look(entry));
            } else {
                kept.add(entry.with(shown, entry.silence()));
                shown.clear();
            }
        }
        return kept;
    }

    /** The draft as it is with these decisions. */
    public Draft draft() {
        Comparisons comparisons = new Comparisons(planned, looks);
        List<LearntStep> steps = new ArrayList<>();
        List<LearntStep> logIn = new ArrayList<>();
        for (int i = 0; i < entries.size(); i++) {
            boolean before = identity.isPresent() && i < identity.get().entry();
            List<LearntStep> into = before ? logIn : steps;
            if (i > 0) {
                between(entries.get(i), into, comparisons);
            }
            into.add(step(i));
        }
        between(segments.after(), steps, comparisons);
        List<LearnQuestion> questions = new ArrayList<>(answers.questions());
        List<LearntStep> marked = marked(steps, questions);
        if (identity.isEmpty()) {
            questions.add(0, new LearnQuestion(LearnQuestion.QuestionSort.IDENTITY, List.of(), List.of(), List.of()));
        }
        List<Integer> moved =
                entries.stream().filter(Entry::cursorKeys).map(Entry::index).toList();
        if (!moved.isEmpty()) {
            questions.add(0, new LearnQuestion(LearnQuestion.QuestionSort.CURSOR_KEYS, moved, List.of(), List.of()));
        }
        return new Draft(
                identity.map(Identity::see),
                identity.map(Identity::unused).orElse(""),
                titled(logIn, new HashSet<>()),
                titled(marked, logIn.stream().map(LearntStep::title).collect(Collectors.toSet())),
                chatter.stream()
                        .map(start -> "/^ *" + looks.quoted(start) + " /")
                        .collect(Collectors.toCollection(TreeSet::new)),
                paging,
                segments.redraws(),
                corrections.refused(),
                answers.facts(),
                questions,
                log.complete());
    }

    /** What was shown before an entry: a wait, and lists that repeat the plan. */
    private void between(Entry entry, List<LearntStep> into, Comparisons comparisons) {
        List<String> shown = new ArrayList<>(entry.shown());
        if (!entry.silence().isLong()) {
            compare(shown, entry, into, comparisons);
            return;
        }
        int after = Math.min(entry.silence().after(), shown.size());
        compare(shown.subList(0, after), entry, into, comparisons);
        List<String> then = shown.subList(after, shown.size());
        boolean restarted = identity.isPresent() && then.stream().anyMatch(line -> line.contains(serial));
        if (restarted && !into.isEmpty()) {
            lastAnswer(into).ifPresent(place -> into.set(place, into.get(place).with(Mark.RESTARTS)));
        }
        into.add(new LearntStep(
                LearntStep.StepSort.WAITS,
                entry.index(),
                restarted ? "restarts" : "works",
                until(then, entry),
                "",
                false,
                Set.of(),
                Map.of(),
                entry.silence().whole(),
                Certainty.LIKELY,
                LearnText.SILENT));
        compare(then, entry, into, comparisons);
    }

    private static Optional<Integer> lastAnswer(List<LearntStep> steps) {
        for (int i = steps.size() - 1; i >= 0; i--) {
            if (steps.get(i).sort() == LearntStep.StepSort.ANSWERS
                    || steps.get(i).sort() == LearntStep.StepSort.COMMANDS) {
                return Optional.of(i);
            }
        }
        return Optional.empty();
    }

    /** What ends a wait: the last line before the question that would be the same on every machine. */
    private String until(List<String> shown, Entry entry) {
        for (int i = shown.size() - 1; i >= 0; i--) {
            String line = shown.get(i).strip();
            if (line.length() >= SHORTEST_UNTIL && line.chars().noneMatch(Character::isDigit)) {
                return "/^ *" + looks.quoted(line) + "/";
            }
        }
        return look(entry);
    }

    private void compare(List<String> shown, Entry entry, List<LearntStep> into, Comparisons comparisons) {
        comparisons.in(shown, entry.index()).ifPresent(step -> {
            int last = into.size() - 1;
            if (last >= 0
                    && into.get(last).sort() == LearntStep.StepSort.COMMANDS
                    && ONLY_SHOWS.matcher(into.get(last).answer()).find()) {
                into.set(last, into.get(last).with(Mark.AGAIN));
            }
            into.add(step);
        });
    }

    private LearntStep step(int place) {
        Entry entry = entries.get(place);
        Answers.Answer answer = answers.of(place);
        return new LearntStep(
                answer.command() ? LearntStep.StepSort.COMMANDS : LearntStep.StepSort.ANSWERS,
                entry.index(),
                answer.command() ? "command " + (place + 1) : looks.title(entry.question()),
                look(entry),
                answer.template(),
                answer.suggested(),
                answer.marks(),
                Map.of(),
                Duration.ZERO,
                answer.certainty(),
                answer.why());
    }

    /** The steps with the marks that a person has confirmed, or the question which they are. */
    private List<LearntStep> marked(List<LearntStep> steps, List<LearnQuestion> questions) {
        if (decisions.marks().isPresent()) {
            Map<Integer, Set<Mark>> said = decisions.marks().get();
            return steps.stream()
                    .map(step ->
                            step.sort() == LearntStep.StepSort.ANSWERS || step.sort() == LearntStep.StepSort.COMMANDS
                                    ? step.withMarks(together(step.marks(), said.getOrDefault(step.entry(), Set.of())))
                                    : step)
                    .toList();
        }
        List<String> proposed = new ArrayList<>();
        for (Entry entry : entries) {
            proposals(entry.question()).forEach(mark -> proposed.add(entry.index() + " " + mark));
        }
        questions.add(new LearnQuestion(
                LearnQuestion.QuestionSort.MARKS,
                entries.stream().map(Entry::index).toList(),
                entries.stream().map(entry -> looks.blanked(entry.question())).toList(),
                proposed));
        return steps;
    }

    private static Set<Mark> together(Set<Mark> own, Set<Mark> said) {
        Set<Mark> all = EnumSet.noneOf(Mark.class);
        all.addAll(own);
        all.addAll(said);
        return all;
    }

    /** What the words of a question speak for. */
    public static Set<Mark> proposals(String question) {
        Set<Mark> marks = EnumSet.noneOf(Mark.class);
        Map.of(Mark.DESTROYS, DESTROYS, Mark.TERMS, TERMS, Mark.PERMANENT, PERMANENT)
                .forEach((mark, words) -> {
                    if (words.matcher(question).find()) {
                        marks.add(mark);
                    }
                });
        return marks;
    }

    /** Steps that are asked twice are told apart by their titles. */
    private static List<LearntStep> titled(List<LearntStep> steps, Set<String> before) {
        Set<String> titles = new HashSet<>(before);
        List<LearntStep> titled = new ArrayList<>();
        for (LearntStep step : steps) {
            String title = step.title();
            for (int i = 2; !titles.add(title); i++) {
                title = step.title() + " " + i;
            }
            titled.add(step.titled(title));
        }
        return titled;
    }

    /** The recording of this setup, which the draft can be tried on and kept with. */
    public List<DryRun.Heard> recording() {
        return OwnRecording.of(log, segments.entries(), entries, unplanned());
    }

    /**
     * What was typed, and what the machine showed before it, for the person who typed it.
     *
     * @param index by which questions name it
     * @param shown the lines before the question
     * @param typed what it came to; nothing where the machine did not show it
     * @param leftOut whether the machine did not take it
     */
    public record Line(int index, List<String> shown, String question, Optional<String> typed, boolean leftOut) {}

    /** The whole setup line by line. */
    public List<Line> lines() {
        Set<Integer> led = entries.stream().map(Entry::index).collect(Collectors.toSet());
        List<Line> lines = new ArrayList<>();
        for (Entry entry : segments.entries()) {
            lines.add(new Line(
                    entry.index(),
                    entry.shown(),
                    entry.question(),
                    entry.hidden()
                            ? Optional.empty()
                            : Optional.of(entry.typed()
                                    .map(text -> text.<String>use(each -> each))
                                    .orElse("")),
                    !led.contains(entry.index()) && !entry.key()));
        }
        Entry after = segments.after();
        lines.add(new Line(entries.size() + lines.size(), after.shown(), after.question(), Optional.of(""), false));
        return lines;
    }

    /** Tries a dialogue that was learnt on its own setup. */
    public DryRun.Report tryOn(Dialogue dialogue, Values values) {
        return DryRun.play(dialogue, "", withLearnt(values), recording());
    }

    /** The values of a unit with what new facts and passwords were on this machine: for a trial, in memory alone. */
    public Values withLearnt(Values values) {
        Set<String> passwords = answers.facts().stream()
                .filter(fact -> fact.sort() == LearntFact.FactSort.MADE_SECRET
                        || fact.sort() == LearntFact.FactSort.GIVEN_SECRET)
                .map(LearntFact::name)
                .collect(Collectors.toSet());
        return new OwnValues(values, answers.learnt(), passwords);
    }

    /** What new facts and passwords were on this machine: for a trial on its own log, in memory alone. */
    public Map<String, Secret> learnt() {
        return answers.learnt();
    }
}
