package lychnos.core.learn;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DryRun;
import lychnos.core.dialogue.Effect;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Known;
import lychnos.core.dialogue.Mode;
import lychnos.core.fact.Secret;
import lychnos.core.kind.KindReader;

/** A person who sets up one made machine by hand, what is learnt from it, and a second one that is set up with that. */
final class Learnt {

    static final String KIND =
            """
            kind: made-machine
            title: Made machine
            short: made
            about: A machine from a seed.

            facts:
              serial: { of: unit, is: serial, find: on its label }
              console: { of: unit, is: console-line, title: console line, find: at its port }

            addresses:
              - { run: [ management ], in: management }
            names: { unit: "{site}-{kind}-{n}" }

            setup: { by: hand }

            factory: [ { way: console, user: none, phrase: none } ]
            checks: { port: 443 }
            waits: { restart: { about: 1 min, at-most: 10 min } }
            """;

    private static final Set<String> PLANNED = Set.of(
            "serial",
            "name",
            "address",
            "length",
            "mask",
            "gateway",
            "name-server-1",
            "name-server-2",
            "time-server-1");

    final long seed;
    final Map<String, String> first;
    final MadeMachine machine;
    final SetupLog log;
    Draft draft;
    Learner learner;
    String yaml;
    int asked;
    List<LearnQuestion> sorts;

    Learnt(long seed) {
        this.seed = seed;
        first = values(1);
        machine = new MadeMachine(seed, new HashMap<>(first));
        log = byHand();
    }

    /** What belongs into machine number n. */
    static Map<String, String> values(int n) {
        Map<String, String> values = new HashMap<>(Map.of(
                "serial", "MM-700" + n,
                "name", "ard-made-" + n,
                "address", "10.40.8.4" + n,
                "gateway", "10.40.8.1",
                "name-server-1", "10.40.8.3",
                "name-server-2", "10.40.8.4",
                "time-server-1", "10.40.8.6",
                "place", n == 1 ? "aisle two" : "aisle nine",
                "contact", "hall duty",
                "user", "keeper"));
        values.putAll(Map.of("speed", "auto", "factory", "blencathra", "password", "Rq7tLm2xVz" + n));
        values.putAll(Map.of(
                "address/length", values.get("address") + "/24",
                "length", "24",
                "mask", "255.255.255.0",
                "fqdn", values.get("name") + ".ardal.example",
                "name-servers", "10.40.8.3,10.40.8.4"));
        return values;
    }

    private static Map<String, String> plan(int n) {
        Map<String, String> values = values(n);
        Map<String, String> plan = new HashMap<>();
        values.forEach((name, value) -> {
            if (PLANNED.contains(name)) {
                plan.put(name, value);
            }
        });
        plan.put("domain", "ardal.example");
        plan.put("unit", values.get("name"));
        plan.put("member-number", "1");
        return plan;
    }

    /** The person types a mistake and corrects it, types something that is refused, and turns pages. */
    private SetupLog byHand() {
        List<SetupLog.Piece> pieces = new ArrayList<>();
        machine.begin();
        Duration now = Duration.ofSeconds(1);
        int typed = 0;
        boolean shown = false;
        while (!machine.done) {
            now = machine.nextAt(now).compareTo(now) > 0 ? machine.nextAt(now) : now;
            pieces.addAll(machine.said(now));
            now = now.plusMillis(700);
            String keys;
            if (machine.paused()) {
                keys = " ";
            } else if (machine.atPrompt()) {
                keys = shown ? "show health\r" : "show settings\r";
                shown = true;
            } else {
                MadeMachine.Asked asks = machine.asks();
                String right = machine.right(asks);
                typed++;
                keys = asks.suggests().equals(right)
                        ? "\r"
                        : typed == 3 && !asks.secret()
                                ? right.charAt(0) + "#\b" + right.substring(1) + "\r"
                                : typed == 4 && !asks.secret() ? "mistyped\r" : right + "\r";
            }
            for (String key : MadeMachine.letters(keys)) {
                now = now.plusMillis(40);
                pieces.add(new SetupLog.Typed(now, Secret.of(key)));
                machine.key(key.charAt(0), now);
                pieces.addAll(machine.said(now));
            }
        }
        pieces.addAll(machine.said(now.plusSeconds(5)));
        return SetupLog.of(pieces);
    }

    Learner learner(Decisions decisions) {
        return new Learner(
                log, new Planned(plan(1), Map.of()), first.get("serial"), Set.of("serial", "console"), decisions);
    }

    /** A person who answers what is asked, knowing the machine. */
    Learnt learn() {
        draft = learner(Decisions.NONE).draft();
        asked = draft.questions().size();
        sorts = draft.questions();
        Map<Integer, Decisions.Meaning> texts = new HashMap<>();
        Map<Integer, String> values = new HashMap<>();
        Map<Integer, List<String>> parts = new HashMap<>();
        Map<Integer, Set<Mark>> marks = new LinkedHashMap<>();
        for (LearnQuestion question : draft.questions()) {
            switch (question.sort()) {
                case TEXT ->
                    texts.put(
                            question.entries().get(0),
                            question.evidence().get(0).startsWith("login")
                                    ? Decisions.Meaning.ALWAYS
                                    : Decisions.Meaning.FACT);
                case VALUE ->
                    values.put(question.entries().get(0), question.options().get(0));
                case COMMANDS ->
                    question.entries().forEach(entry -> parts.put(entry, List.of("aisle two", "hall duty")));
                case MARKS -> question.entries().forEach(entry -> marks.put(entry, EnumSet.noneOf(Mark.class)));
                default -> {
                    // the rest has no answer here
                }
            }
        }
        learner = learner(new Decisions(texts, true, parts, values, Optional.of(marks), Map.of()));
        draft = learner.draft();
        if (draft.settled()) {
            yaml = DraftYaml.into(KIND, draft, "9600 8N1");
        }
        return this;
    }

    /** What came of a machine that was set up with what was learnt. */
    record Run(MadeMachine machine, Conversation.State state, String held, Set<String> open) {

        boolean unattended() {
            return state == Conversation.State.DONE && machine.done;
        }
    }

    /** Sets up machine number n, without a person. */
    Run run(int n) {
        Dialogue dialogue = KindReader.read(yaml).dialogue().orElseThrow();
        Map<String, String> wanted = values(n);
        MadeMachine second = new MadeMachine(seed, new HashMap<>(wanted));
        Map<String, String> texts = new HashMap<>(plan(n));
        Map<String, Secret> secrets = new HashMap<>();
        learner.learnt().forEach((name, was) -> {
            String id = first.entrySet().stream()
                    .filter(each -> Secret.of(each.getValue()).equals(was))
                    .map(Map.Entry::getKey)
                    .findFirst()
                    .orElseThrow();
            boolean secret = draft.facts().stream()
                    .anyMatch(fact -> fact.name().equals(name)
                            && fact.sort() != LearntFact.FactSort.TEXT
                            && fact.sort() != LearntFact.FactSort.SAME_TEXT);
            if (secret) {
                secrets.put(name, Secret.of(wanted.get(id)));
            } else {
                texts.put(name, wanted.get(id));
            }
        });
        Instant start = Instant.parse("2026-11-23T09:00:00Z");
        Instant now = start;
        Conversation conversation =
                new Conversation(dialogue, "", new Known(texts, secrets, AgreedTerms::toTheFirst), Mode.RUN, now);
        second.begin();
        Instant end = now.plus(Duration.ofMinutes(30));
        while (now.isBefore(end)
                && conversation.state() != Conversation.State.DONE
                && conversation.state() != Conversation.State.HELD) {
            Duration at = Duration.between(start, now);
            for (SetupLog.Shown shown : second.said(at)) {
                send(conversation.output(shown.text(), now), second, at);
            }
            send(conversation.tick(now), second, at);
            // a restart always waits for a person, of any kind of machine
            boolean restart = conversation
                    .hold()
                    .map(Hold::why)
                    .filter(Hold.Why.RESTARTS::equals)
                    .isPresent();
            send(restart ? conversation.goOn("", now) : List.of(), second, at);
            now = now.plusMillis(100);
        }
        Set<String> open = conversation.steps().stream()
                .filter(step -> conversation.progress(conversation.steps().indexOf(step)) == Conversation.Progress.OPEN)
                .map(step -> step.title())
                .collect(Collectors.toSet());
        return new Run(
                second,
                conversation.state(),
                conversation
                        .hold()
                        .map(hold -> hold.why() + " " + hold.sentence() + " | " + hold.shown())
                        .orElse(""),
                open);
    }

    /** Tries what was learnt on the setup that it was learnt from. */
    DryRun.Report dryRun() {
        Known plan = new Known(plan(1), Map.of(), AgreedTerms::toTheFirst);
        return learner.tryOn(KindReader.read(yaml).dialogue().orElseThrow(), plan);
    }

    private static void send(List<Effect> effects, MadeMachine machine, Duration at) {
        for (Effect effect : effects) {
            String keys = effect instanceof Effect.Send send
                    ? send.text()
                    : effect instanceof Effect.SendSecret secret
                            ? secret.secret().use(text -> text + "\r")
                            : "";
            for (String key : MadeMachine.letters(keys)) {
                machine.key(key.charAt(0), at);
            }
        }
    }
}
