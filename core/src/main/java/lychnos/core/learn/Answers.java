package lychnos.core.learn;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.fact.Secret;
import lychnos.core.learn.Decisions.Meaning;

/** What each entry was: a value of the plan, a password, a choice, a command, or something only a person knows. */
final class Answers {

    private static final Set<String> YES_OR_NO = Set.of("y", "n", "yes", "no");
    private static final Pattern PROMPT = Pattern.compile("^\\S{1,40}( \\S{1,20})?[#>$%/] *$");
    private static final String PASSWORD = "password";

    private final List<Entry> entries;
    private final Entry after;
    private final Planned planned;
    private final Looks looks;
    private final Decisions decisions;
    private final Set<String> prompts;
    private final Map<Secret, String> passwords = new HashMap<>();
    private final Map<Secret, String> texts = new HashMap<>();
    /** Of each text that was typed, a person is asked once. */
    private final Set<Secret> asked = new HashSet<>();

    private final Set<String> names = new HashSet<>();
    private final Map<String, LearntFact> facts = new LinkedHashMap<>();
    private final List<LearnQuestion> questions = new ArrayList<>();
    private final List<Integer> commands = new ArrayList<>();

    Answers(List<Entry> entries, Entry after, Planned planned, Looks looks, Decisions decisions, Set<String> taken) {
        this.entries = entries;
        this.after = after;
        this.planned = planned;
        this.looks = looks;
        this.decisions = decisions;
        this.prompts = prompts();
        names.addAll(taken);
        namePasswords();
    }

    /** What an answer is, and why. */
    record Answer(
            String template, boolean command, boolean suggested, Set<Mark> marks, Certainty certainty, LearnText why) {

        /** The same, at a prompt or at a question. */
        Answer at(boolean prompt) {
            return new Answer(template, prompt, !prompt && suggested, marks, certainty, why);
        }

        static Answer sure(String template, LearnText why) {
            return new Answer(template, false, false, Set.of(), Certainty.SURE, why);
        }
    }

    /** Whether the same question is asked again although it was answered: it is a prompt. */
    private boolean comesBack(int place) {
        Entry next = place + 1 < entries.size() ? entries.get(place + 1) : after;
        return looks.question(next.question())
                .equals(looks.question(entries.get(place).question()));
    }

    List<LearntFact> facts() {
        return List.copyOf(facts.values());
    }

    List<LearnQuestion> questions() {
        List<LearnQuestion> all = new ArrayList<>(questions);
        if (!commands.isEmpty() && !decisions.commandsTold()) {
            all.add(new LearnQuestion(
                    LearnQuestion.QuestionSort.COMMANDS,
                    commands,
                    commands.stream()
                            .map(i -> looks.blanked(byIndex(i).question()))
                            .distinct()
                            .toList(),
                    List.of()));
        }
        return all;
    }

    private Entry byIndex(int index) {
        return entries.stream()
                .filter(each -> each.index() == index)
                .findFirst()
                .orElseThrow();
    }

    /** Questions at which several things were typed that no plan has: prompts for commands. */
    private Set<String> prompts() {
        Map<String, Set<Secret>> typed = new HashMap<>();
        for (Entry entry : entries) {
            boolean own =
                    entry.typed().isPresent() && !entry.hidden() && whole(entry).isEmpty();
            if (own && !listed(entry)) {
                typed.computeIfAbsent(looks.question(entry.question()), each -> new HashSet<>())
                        .add(entry.typed().get());
            }
        }
        return typed.entrySet().stream()
                .filter(each -> each.getValue().size() > 1)
                .map(Map.Entry::getKey)
                .collect(Collectors.toSet());
    }

    private Optional<Planned.Guess> whole(Entry entry) {
        return entry.typed()
                .flatMap(typed -> typed.<Optional<Planned.Guess>>use(text -> planned.whole(text, entry.question())));
    }

    private static boolean listed(Entry entry) {
        return entry.typed()
                .map(typed -> typed.<Boolean>use(text -> YES_OR_NO.contains(text.toLowerCase(Locale.ROOT))
                        || text.matches("[\\p{L}-]{2,}")
                                && Planned.words(entry.question()).contains(text.toLowerCase(Locale.ROOT))))
                .orElse(false);
    }

    /** Passwords that were not planned, by what they were used for. */
    private void namePasswords() {
        boolean set = false;
        for (int i = 0; i < entries.size(); i++) {
            Entry entry = entries.get(i);
            boolean unknown = entry.hidden()
                    && whole(entry).isEmpty()
                    && planned.password(entry.typed().get()).isEmpty()
                    && !passwords.containsKey(entry.typed().get());
            boolean twice = i + 1 < entries.size() && entries.get(i + 1).hidden() && entry.sameAs(entries.get(i + 1));
            if (unknown) {
                LearntFact.FactSort sort = twice ? LearntFact.FactSort.MADE_SECRET : LearntFact.FactSort.GIVEN_SECRET;
                String name = unique(twice ? PASSWORD : set ? "other-" + PASSWORD : "factory-" + PASSWORD);
                facts.put(name, new LearntFact(name, name.replace('-', ' '), sort, found(name)));
                passwords.put(entry.typed().get(), name);
            }
            set |= twice;
        }
    }

    private String unique(String wanted) {
        String name = wanted;
        for (int i = 2; !names.add(name); i++) {
            name = wanted + "-" + i;
        }
        return name;
    }

    Answer of(int place) {
        Entry entry = entries.get(place);
        if (entry.typed().isEmpty()) {
            return enter(entry);
        }
        Secret typed = entry.typed().get();
        Optional<String> password = planned.password(typed)
                .or(() -> Optional.ofNullable(passwords.get(typed)).map(name -> "{" + name + "}"));
        Optional<Planned.Guess> value = whole(entry);
        if (password.isPresent() && (entry.hidden() || value.isEmpty())) {
            return secret(place, typed, password.get());
        }
        if (value.isPresent()) {
            return value(entry, value.get()).at(comesBack(place));
        }
        Optional<String> several = typed.<Optional<String>>use(text -> planned.together(text, entry.question()));
        if (several.isPresent()) {
            return Answer.sure(several.get(), LearnText.VALUE_OF_THE_PLAN).at(comesBack(place));
        }
        if (listed(entry)) {
            return Answer.sure(
                            typed.use(text -> text),
                            typed.<Boolean>use(text -> YES_OR_NO.contains(text.toLowerCase(Locale.ROOT)))
                                    ? LearnText.YES_OR_NO
                                    : LearnText.LISTED_IN_THE_QUESTION)
                    .at(comesBack(place));
        }
        boolean command = comesBack(place)
                || prompts.contains(looks.question(entry.question()))
                || PROMPT.matcher(entry.question()).matches()
                        && typed.<Boolean>use(text -> text.contains(" ") || text.length() > 1);
        return command ? command(entry, typed) : text(entry, typed);
    }

    private Answer enter(Entry entry) {
        String suggestion = Looks.suggestion(entry.question());
        if (suggestion.isEmpty()) {
            return Answer.sure("", LearnText.ENTER_ALONE);
        }
        String answer = planned.whole(suggestion, entry.question())
                .filter(guess -> guess.certainty() == Certainty.SURE)
                .map(Planned.Guess::template)
                .orElse(suggestion);
        return new Answer(answer, false, true, Set.of(), Certainty.SURE, LearnText.SUGGESTED);
    }

    private Answer secret(int place, Secret typed, String template) {
        long before = entries.subList(0, place).stream()
                .filter(each -> each.typed().filter(typed::equals).isPresent())
                .count();
        boolean given = facts.values().stream()
                .anyMatch(fact ->
                        template.equals("{" + fact.name() + "}") && fact.sort() == LearntFact.FactSort.GIVEN_SECRET);
        boolean repeated = before == 1
                && entries.get(place - 1).typed().filter(typed::equals).isPresent();
        if (LoginsTriedAgain.refused(entries, place, after, each -> looks.question(each.question()))) {
            return new Answer(
                    template, false, false, Set.of(Mark.MUST_BE_REFUSED), Certainty.SURE, LearnText.LOGIN_REFUSED);
        }
        if (before > 0 && !repeated && !given) {
            return new Answer(template, false, false, Set.of(Mark.PROVES), Certainty.SURE, LearnText.PASSWORD_WORKS);
        }
        LearnText why = planned.password(typed).isPresent()
                ? LearnText.PASSWORD_OF_THE_PLAN
                : given ? LearnText.FACTORY_PASSWORD : LearnText.NEW_PASSWORD;
        return new Answer(template, false, false, Set.of(), given ? Certainty.LIKELY : Certainty.SURE, why);
    }

    private Answer value(Entry entry, Planned.Guess guess) {
        String chosen = decisions.values().get(entry.index());
        List<String> options = new ArrayList<>(List.of(guess.template()));
        options.addAll(guess.others());
        boolean suggested = !Looks.suggestion(entry.question()).isEmpty();
        if (guess.certainty() == Certainty.SURE || options.contains(chosen)) {
            String template = chosen == null ? guess.template() : chosen;
            return new Answer(template, false, suggested, Set.of(), Certainty.SURE, LearnText.VALUE_OF_THE_PLAN);
        }
        questions.add(new LearnQuestion(
                LearnQuestion.QuestionSort.VALUE,
                List.of(entry.index()),
                List.of(looks.blanked(entry.question())),
                options));
        return new Answer(guess.template(), false, suggested, Set.of(), Certainty.OPEN, LearnText.SEVERAL_VALUES);
    }

    private Answer command(Entry entry, Secret typed) {
        commands.add(entry.index());
        String text = decisions.commandsTold() ? typed.use(line -> filled(entry, line)) : "";
        return new Answer(
                text,
                true,
                false,
                Set.of(),
                decisions.commandsTold() ? Certainty.SURE : Certainty.OPEN,
                LearnText.COMMAND);
    }

    /** A command with names in place of planned values, and of the parts that a person has pointed out. */
    private String filled(Entry entry, String line) {
        String rest = line;
        StringBuilder filled = new StringBuilder();
        for (String part : decisions.parts().getOrDefault(entry.index(), List.of())) {
            int at = rest.indexOf(part);
            if (at >= 0 && !part.isBlank()) {
                Secret value = Secret.of(part);
                String words = rest.substring(0, at);
                String template =
                        texts.computeIfAbsent(value, each -> "{" + fact(words, LearntFact.FactSort.TEXT) + "}");
                filled.append(planned.filled(words)).append(template);
                rest = rest.substring(at + part.length());
            }
        }
        return filled.append(planned.filled(rest)).toString();
    }

    private String found(String fact) {
        return decisions.found().getOrDefault(fact, "").strip().replaceAll("\\s+", " ");
    }

    private String fact(String words, LearntFact.FactSort sort) {
        String name = unique(looks.name(words));
        facts.put(name, new LearntFact(name, looks.title(words), sort, found(name)));
        return name;
    }

    private Answer text(Entry entry, Secret typed) {
        boolean suggested = !Looks.suggestion(entry.question()).isEmpty();
        if (texts.containsKey(typed)) {
            return new Answer(
                    texts.get(typed), false, suggested, Set.of(), Certainty.LIKELY, LearnText.FACT_OF_A_PERSON);
        }
        Meaning meaning = decisions.texts().get(entry.index());
        if (meaning == null && !asked.add(typed)) {
            return new Answer("", false, suggested, Set.of(), Certainty.OPEN, LearnText.NOT_PLANNED);
        }
        if (meaning == null) {
            questions.add(new LearnQuestion(
                    LearnQuestion.QuestionSort.TEXT,
                    List.of(entry.index()),
                    List.of(looks.blanked(entry.question())),
                    List.of(Meaning.FACT.name(), Meaning.SAME.name(), Meaning.ALWAYS.name())));
            return new Answer("", false, suggested, Set.of(), Certainty.OPEN, LearnText.NOT_PLANNED);
        }
        if (meaning == Meaning.ALWAYS) {
            String literal = typed.<String>use(text -> text);
            texts.put(typed, literal);
            return new Answer(literal, false, suggested, Set.of(), Certainty.SURE, LearnText.ALWAYS_THE_SAME);
        }
        String name = fact(
                entry.question(), meaning == Meaning.SAME ? LearntFact.FactSort.SAME_TEXT : LearntFact.FactSort.TEXT);
        texts.put(typed, "{" + name + "}");
        return new Answer("{" + name + "}", false, suggested, Set.of(), Certainty.SURE, LearnText.FACT_OF_A_PERSON);
    }

    /** What a new fact or password was on the machine that was learnt from: for a trial in memory, kept nowhere. */
    Map<String, Secret> learnt() {
        Map<String, Secret> learnt = new LinkedHashMap<>();
        passwords.forEach((typed, name) -> learnt.put(name, typed));
        texts.forEach((typed, template) -> {
            if (template.startsWith("{")) {
                learnt.put(template.substring(1, template.length() - 1), typed);
            }
        });
        return learnt;
    }
}
