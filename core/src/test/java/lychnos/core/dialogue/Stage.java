package lychnos.core.dialogue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Summary;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.fact.Secret;

/** A machine that is played line by line, a clock that is turned by hand, and the conversation between them. */
final class Stage {

    static final Secret OURS = Secret.of("Hn4tRb7sLxVc");
    static final String GREETING = "\r\nTARN interconnect, serial TN-7, blank\r\nname: ";

    Instant now = Instant.parse("2026-11-23T09:00:00Z");
    final List<Effect> effects = new ArrayList<>();
    final Map<String, String> texts = new HashMap<>(Map.of(
            "serial",
            "TN-7",
            "address",
            "10.40.8.41",
            "length",
            "24",
            "network.gateway",
            "10.40.8.1",
            "tunnel",
            "10.45.0.0/16",
            "keeper",
            "keeper"));
    AgreedTerms terms = AgreedTerms.NONE;
    final Conversation conversation;

    Stage(Mode mode) {
        this(dialogue(), mode);
    }

    Stage(Dialogue dialogue, Mode mode) {
        conversation = new Conversation(
                dialogue,
                "left",
                new Known(texts, Map.of("ours", OURS, "factory", Secret.of("fellside")), () -> terms),
                mode,
                now);
    }

    Stage(Dialogue dialogue, Mode mode, Values values) {
        conversation = new Conversation(dialogue, "left", values, mode, now);
    }

    static Asked asked(String title, String look, String answer, Mark... marks) {
        return new Asked(
                title, "", Look.parse(look), Template.parse(answer), false, false, null, "", java.util.Set.of(marks));
    }

    static Dialogue dialogue() {
        Asked suggested = new Asked(
                "strong passwords",
                "",
                Look.parse("Strong words?"),
                Template.parse("yes"),
                false,
                true,
                null,
                "",
                java.util.Set.of());
        Asked code = new Asked(
                "tells its code",
                "",
                Look.parse("tarn#"),
                Template.parse("code show"),
                true,
                false,
                Look.parse("/code (?<code>[0-9]{6})/"),
                "",
                java.util.Set.of());
        return new Dialogue(
                new LineSettings(57600, 8, LineSettings.Parity.NONE, 1),
                "",
                List.of(Look.parse("/^\\[ *[0-9.]+\\]/")),
                Map.of(Look.parse("-- more --"), " "),
                Look.parse("/not taken: (?<why>.+)/"),
                new Dialogue.Identify(
                        Look.parse("/TARN interconnect, serial (?<serial>\\S+), (?<state>blank|settings "
                                + "kept|standing by)/"),
                        Map.of("serial", Template.parse("{serial}")),
                        java.util.Set.of("blank"),
                        java.util.Set.of("standing by")),
                List.of(
                        asked("log-in", "name:", "{keeper}"),
                        asked("factory password", "word:", "{factory}", Mark.SECRET)),
                List.of(asked("wipe", "Forget everything?", "forget", Mark.DESTROYS)),
                List.of(
                        asked("new password", "New word:", "{ours}", Mark.SECRET),
                        asked("new password again", "New word once more:", "{ours}", Mark.SECRET),
                        asked("terms", "Terms, agree?", "agree", Mark.TERMS, Mark.OPTIONAL),
                        asked("address", "Address", "{address}/{length}"),
                        asked("gateway", "Next hop", "{network.gateway}"),
                        suggested,
                        asked("tunnel range", "Tunnel range", "{tunnel}", Mark.PERMANENT, Mark.OPTIONAL),
                        new Summary(
                                "summary",
                                "",
                                Map.of(
                                        Look.parse("/oob +(?<address>\\S+)/"),
                                        Template.parse("{address}/{length}"),
                                        Look.parse("/hop +(?<hop>\\S+)/"),
                                        Template.parse("{network.gateway}"))),
                        asked("store it", "Store?", "store", Mark.RESTARTS),
                        new Waits(
                                "restarts",
                                "",
                                java.time.Duration.ofMinutes(3),
                                java.time.Duration.ofMinutes(10),
                                Look.parse("link up")),
                        code),
                false);
    }

    Stage says(String text) {
        effects.addAll(conversation.output(text, now));
        return this;
    }

    /** Lets time go by in small steps. */
    Stage after(double seconds) {
        for (Instant end = now.plusMillis((long) (seconds * 1000)); now.isBefore(end); now = now.plusMillis(50)) {
            effects.addAll(conversation.tick(now));
        }
        effects.addAll(conversation.tick(now));
        return this;
    }

    Stage goOn(String typed) {
        effects.addAll(conversation.goOn(typed, now));
        return this;
    }

    /** What was sent since the last time; a password shows as its length. */
    String sent() {
        StringBuilder text = new StringBuilder();
        for (Effect effect : effects) {
            if (effect instanceof Effect.Send send) {
                text.append(send.text());
            } else if (effect instanceof Effect.SendSecret secret) {
                text.append("<")
                        .append(secret.secret().<Integer>use(String::length))
                        .append(">\r");
            }
        }
        effects.clear();
        return text.toString();
    }

    /** The machine asks, and the answer is what was to be expected. */
    Stage asks(String question, String answer) {
        says(question).after(1.2);
        org.junit.jupiter.api.Assertions.assertEquals(
                answer, sent(), () -> question + " " + conversation.state() + " " + conversation.hold());
        says(answer.startsWith("<") ? "\r\n" : answer.replace("\r", "") + "\r\n");
        return this;
    }

    Hold.Why why() {
        return conversation.hold().map(Hold::why).orElse(null);
    }

    /** Behind its greeting, terms and word. */
    static Stage loggedIn(Mode mode) {
        Stage stage = new Stage(mode);
        stage.terms = AgreedTerms.toTheFirst();
        return stage.asks(Stage.GREETING, "keeper\r").asks("word: ", "<8>\r");
    }

    static Stage atAddress() {
        return loggedIn(Mode.RUN).asks("New word: ", "<12>\r").asks("New word once more: ", "<12>\r");
    }

    static Stage atSummary() {
        return atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .asks("Next hop [none]: ", "10.40.8.1\r")
                .asks("Strong words? [yes]: ", "\r");
    }
}
