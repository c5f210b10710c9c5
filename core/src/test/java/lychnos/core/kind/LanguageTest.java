package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.Effect;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Known;
import lychnos.core.dialogue.Mode;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Conditions, repetitions, sums and time limits of a dialogue, from its text to what is sent. */
class LanguageTest {

    private static final String HEAD =
            """
            kind: latrigg-hub
            title: Latrigg hub
            short: hub
            about: A hub that was made up for this test.
            facts:
              serial: { of: member, is: serial, find: tag }
              mode: { of: unit, is: choice, choices: [static, leased], default: static }
              guarded: { of: unit, is: yes-no, default: no }
              ports: { of: unit, is: number, default: 2 }
              first-vlan: { of: unit, is: vlan }
              word: { of: unit, is: secret, made: yes }
            addresses:
              - { run: [ hub ], in: management }
            names: { unit: "{site}-{kind}-{n}" }
            setup: { by: console }
            factory: { way: console, user: hub, phrase: hub }
            checks: { port: 443 }
            waits: { restart: { about: 2 min, at-most: 9 min } }
            dialogue:
              identify:
                see: '/Latrigg (?<serial>\\S+) firmware (?<firmware>\\S+)/'
                must: { serial: "{serial}" }
              setup:
            """;

    private static Kind kind(String steps) {
        return KindReader.read(HEAD + steps.indent(4));
    }

    private static List<KindFault> faults(String steps) {
        return assertThrows(KindFaults.class, () -> kind(steps)).faults();
    }

    /** A hub that is played question by question. */
    private static final class Hub {
        private Instant now = Instant.parse("2026-11-23T09:00:00Z");
        private final List<Effect> effects = new ArrayList<>();
        private final Conversation conversation;

        Hub(String steps, Map<String, String> texts) {
            Dialogue dialogue = kind(steps).dialogue().orElseThrow();
            conversation =
                    new Conversation(dialogue, "", new Known(texts, Map.of(), AgreedTerms::toTheFirst), Mode.RUN, now);
        }

        /** What is answered to a question. */
        String asks(String question) {
            effects.addAll(conversation.output(question, now));
            waits(2);
            String sent = effects.stream()
                    .filter(Effect.Send.class::isInstance)
                    .map(each -> ((Effect.Send) each).text().strip())
                    .collect(Collectors.joining());
            effects.clear();
            conversation.output("\r\n", now);
            return sent;
        }

        void waits(int seconds) {
            for (Instant end = now.plusSeconds(seconds); now.isBefore(end); now = now.plusMillis(50)) {
                effects.addAll(conversation.tick(now));
            }
        }

        Hold.Why why() {
            return conversation.hold().map(Hold::why).orElse(null);
        }
    }

    private static Map<String, String> with(String... more) {
        Map<String, String> all = new java.util.HashMap<>(Map.of("serial", "LH-7", "address", "10.40.8.20"));
        for (int i = 0; i < more.length; i += 2) {
            all.put(more[i], more[i + 1]);
        }
        return all;
    }

    private static final String BANNER = "Latrigg LH-7 firmware 4.2.1\r\n";

    private static final String BY_MODE =
            """
            - { asked: "How?", answer: "by hand", if: { mode: static } }
            - { asked: "How?", answer: "by lease", if: { mode: leased } }
            - { asked: "Address?", answer: "{address}", if: { mode: not leased } }
            - { asked: "Guard it?", answer: "on", if: guarded }
            - { asked: "Keep?", answer: "keep" }
            """;

    @Test
    void aQuestionIsAnsweredUnderItsConditionOnly() {
        Hub fixed = new Hub(BY_MODE, with("mode", "static", "guarded", "no"));
        assertEquals("by hand", fixed.asks(BANNER + "How?"));
        assertEquals("10.40.8.20", fixed.asks("Address?"));
        assertEquals("keep", fixed.asks("Keep?"), "the guard was not to be asked");
        fixed.asks("done");
        assertEquals(Conversation.State.DONE, fixed.conversation.state());
        assertEquals(Conversation.Progress.LEFT_OUT, fixed.conversation.progress(1));

        Hub leased = new Hub(BY_MODE, with("mode", "leased", "guarded", "yes"));
        assertEquals("by lease", leased.asks(BANNER + "How?"));
        assertEquals("on", leased.asks("Guard it?"));
    }

    @Test
    void aQuestionWhoseConditionIsNotMetIsUnknown() {
        Hub hub = new Hub(BY_MODE, with("mode", "leased", "guarded", "no"));
        hub.asks(BANNER + "How?");
        assertEquals("", hub.asks("Address?"));
        hub.conversation.output("Address?", hub.now);
        hub.waits(4);
        assertEquals(Hold.Why.UNFORESEEN, hub.why());
    }

    @Test
    void aQuestionWhoseConditionIsMetMustBeAsked() {
        Hub hub = new Hub(
                BY_MODE + "- { summary: { '/is (\\S+)/': \"{address}\" } }\n- { asked: \"Sure?\", answer: \"yes\" }\n",
                with("mode", "static", "guarded", "yes"));
        hub.asks(BANNER + "How?");
        hub.asks("Address?");
        hub.asks("Keep?");
        hub.asks("is 10.40.8.20\r\nSure?");
        assertEquals(Hold.Why.SKIPPED, hub.why());
        assertTrue(hub.conversation.hold().orElseThrow().sentence().contains("Guard it?"));
    }

    @ParameterizedTest
    @CsvSource({"4.1.9, old", "4.2, new", "5.0, new", "6.0, newest"})
    void firmwareDecides(String firmware, String answer) {
        Hub hub = new Hub(
                """
                - { asked: "Policy?", answer: "old", if: { firmware: before 4.2 } }
                - { asked: "Policy?", answer: "new", if: { firmware: from 4.2 before 6 } }
                - { asked: "Policy?", answer: "newest", if: { firmware: from 6 } }
                """,
                with());
        assertEquals(answer, hub.asks("Latrigg LH-7 firmware " + firmware + "\r\nPolicy?"));
    }

    @Test
    void whatTheMachineHasNotShownYetIsNotDecided() {
        String steps =
                """
                - { asked: "Level?", answer: "2", if: { grade: a } }
                - { at: "hub#", send: "show grade", read: '/grade (?<grade>[a-z])/' }
                - { asked: "Level?", answer: "3", if: { grade: [ a, b ] } }
                """;
        List<KindFault> faults = faults(steps);
        assertEquals(1, faults.size());
        assertTrue(Texts.says(KindFaultText.UNKNOWN_IN_CONDITION, faults.get(0).reason()), faults.toString());

        Hub hub = new Hub(steps.lines().skip(1).collect(Collectors.joining("\n")), with());
        assertEquals("show grade", hub.asks(BANNER + "hub#"));
        assertEquals("", hub.asks("it shows none\r\nLevel?"));
        assertEquals(Hold.Why.PREREQUISITE, hub.why(), "the grade was not shown");
    }

    private static final String SERVERS =
            """
            - repeat: time-servers
              steps:
                - { asked: "Time {i}?", answer: "{time-server}" }
                - { asked: "Another?", answer: "yes", if: more }
                - { asked: "Another?", answer: "no", if: last }
            - { asked: "Keep?", answer: "keep" }
            """;

    @Test
    void stepsAreRepeatedForEachServer() {
        Hub two = new Hub(SERVERS, with("time-server-1", "10.40.8.3", "time-server-2", "10.40.8.4"));
        assertEquals("10.40.8.3", two.asks(BANNER + "Time 1?"));
        assertEquals("yes", two.asks("Another?"));
        assertEquals("10.40.8.4", two.asks("Time 2?"));
        assertEquals("no", two.asks("Another?"));
        assertEquals("keep", two.asks("Keep?"));

        Hub three = new Hub(
                SERVERS,
                with("time-server-1", "10.40.8.3", "time-server-2", "10.40.8.4", "time-server-3", "10.40.8.5"));
        three.asks(BANNER + "Time 1?");
        three.asks("Another?");
        three.asks("Time 2?");
        assertEquals("yes", three.asks("Another?"));
        assertEquals("10.40.8.5", three.asks("Time 3?"));
        assertEquals("no", three.asks("Another?"));
    }

    @Test
    void stepsAreRepeatedAsOftenAsAFactSays() {
        String steps =
                """
                - repeat: ports
                  steps:
                    - { asked: "VLAN of port {i}?", answer: "{first-vlan + {i} - 1}" }
                - { asked: "Keep?", answer: "keep" }
                """;
        Hub hub = new Hub(steps, with("ports", "3", "first-vlan", "410"));
        assertEquals("410", hub.asks(BANNER + "VLAN of port 1?"));
        assertEquals("411", hub.asks("VLAN of port 2?"));
        assertEquals("412", hub.asks("VLAN of port 3?"));
        assertEquals("keep", hub.asks("Keep?"));
    }

    @Test
    void stepsAreRepeatedForTheEntriesOfAList() {
        String steps =
                """
                - repeat: [ upper, lower ]
                  steps:
                    - { asked: "Port {item}?", answer: "open" }
                    - { asked: "Next port?", answer: "yes", if: more }
                """;
        List<String> titles = kind(steps).dialogue().orElseThrow().steps("", false).stream()
                .map(DialogueStep::title)
                .toList();
        assertEquals(List.of("Port upper?", "Next port?", "Port lower?"), titles);
    }

    @Test
    void anAddressIsReckonedFromAnother() {
        Hub hub = new Hub("- { asked: \"Peer?\", answer: \"{address + 1}\" }\n", with());
        assertEquals("10.40.8.21", hub.asks(BANNER + "Peer?"));
    }

    @Test
    void aMachineThatTakesTooLongAfterAnAnswerIsLookedAt() {
        String steps =
                """
                - { asked: "Format?", answer: "yes", within: 30 s }
                - { asked: "Keep?", answer: "keep" }
                """;
        Hub hub = new Hub(steps, with());
        assertEquals("yes", hub.asks(BANNER + "Format?"));
        for (int i = 0; i < 14; i++) {
            hub.conversation.output(".", hub.now);
            hub.waits(2);
        }
        assertEquals(null, hub.why());
        hub.waits(4);
        assertEquals(Hold.Why.LATE, hub.why(), "dots are no answer");
        assertEquals("keep", hub.asks("\r\nKeep?"), "it continues when the machine asks");
    }

    @Test
    void aLateMachineCanBeWaitedForOnceMore() {
        Hub hub = new Hub(
                "- { asked: \"Format?\", answer: \"yes\", within: 30 s }\n- { asked: \"Keep?\", answer: \"keep\" }\n",
                with());
        hub.asks(BANNER + "Format?");
        hub.waits(30);
        assertEquals(Hold.Why.LATE, hub.why());
        hub.conversation.goOn("", hub.now);
        assertEquals(null, hub.why());
        hub.waits(31);
        assertEquals(Hold.Why.LATE, hub.why());
    }

    @Test
    void aLongTimeAfterAnAnswerIsNoSilence() {
        Hub hub = new Hub(
                "- { asked: \"Format?\", answer: \"yes\", within: 10 min }\n- { asked: \"Keep?\", answer: \"keep\" }\n",
                with());
        hub.asks(BANNER + "Format?");
        hub.waits(9 * 60);
        assertEquals(null, hub.why());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "- { asked: 'A?', answer: 'x', if: nothing } | core.kind.KindFaultText.UNKNOWN_IN_CONDITION",
                "- { asked: 'A?', answer: 'x', if: word } | core.kind.KindFaultText.PASSWORD_IN_CONDITION",
                "- { asked: 'A?', answer: 'x', if: { mode: bridged } } | core.kind.KindFaultText.NEVER_THAT_VALUE",
                "- { asked: 'A?', answer: 'x', if: { guarded: maybe } } | core.kind.KindFaultText.NEVER_THAT_VALUE",
                "- { asked: 'A?', answer: 'x', if: { firmware: from new } } | core.fact.FactText.NOT_A_VERSION",
                "- { asked: 'A?', answer: 'x', if: more } | core.kind.KindFaultText.UNKNOWN_IN_CONDITION",
                "- { asked: 'A?', answer: '{serial + 1}' } | core.kind.KindFaultText.NOT_A_NUMBER_TO_ADD",
                "- { asked: 'A?', answer: '{first-vlan + mode}' } | core.kind.KindFaultText.NOT_A_NUMBER_TO_ADD",
                "- { asked: 'A?', answer: '{time-servers + 1:,}' } | core.dialogue.DialogueText.LIST_ADDED",
                "- { repeat: serial, steps: [ { asked: 'A?', answer: 'x' } ] } | core.kind.KindFaultText.REPETITION",
                "- { repeat: 33, steps: [ { asked: 'A?', answer: 'x' } ] } | core.kind.KindFaultText.NUMBER_EXPECTED",
                "- { repeat: 2, steps: [ { repeat: 2, steps: [ { asked: A, answer: x } ] } ] } | core.kind.KindFaultText.REPEATED_TWICE",
                "- { repeat: 2, steps: [ { asked: A, answer: '{mystery}' } ] } | core.kind.KindFaultText.UNKNOWN_PLACEHOLDER",
                "- { repeat: 2 } | core.kind.KindFaultText.REPETITION_EMPTY",
                "- { asked: 'A?', answer: 'x', within: soon } | core.kind.KindFaultText.NOT_A_TIME"
            })
    void saysWhatIsWrongOnceAndWhere(String steps, String reason) {
        List<KindFault> faults = faults(steps);
        assertEquals(1, faults.size(), faults.toString());
        assertTrue(Texts.says(reason, faults.get(0).reason()), faults.toString());
        assertEquals((int) HEAD.lines().count() + 1, faults.get(0).line());
    }
}
