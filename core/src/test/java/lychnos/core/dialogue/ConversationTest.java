package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import lychnos.core.Rounds;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;

/** One member's dialogue, with a machine that does as it should and one that does not. */
class ConversationTest {

    @Test
    void runsToTheEndAndStopsOnlyBeforeTheRestart() {
        Stage stage = Stage.atSummary()
                .says("  oob   10.40.8.41/24\r\n  hop   10.40.8.1\r\nStore? ")
                .after(1);
        assertEquals(Why.RESTARTS, stage.why());
        assertEquals("", stage.sent());
        stage.goOn("");
        assertEquals("store\r", stage.sent());
        assertEquals(State.WAITING, stage.conversation.state());
        stage.says("store\r\ngoing down\r\n")
                .after(170)
                .says("... link up\r\ntarn# ")
                .after(1);
        assertEquals("code show\r", stage.sent());
        stage.says("code show\r\ncode 403918\r\ntarn# ").after(1);
        assertTrue(stage.effects.contains(new Effect.Read("code", "403918")), stage.effects.toString());
        assertEquals(State.DONE, stage.conversation.state());
        assertEquals(Progress.LEFT_OUT, stage.conversation.progress(4), "terms that it did not ask");
    }

    @Test
    void theSameInAnyPieces() {
        Random random = new Random(11);
        for (int round = 0; round < Rounds.of(200); round++) {
            Stage stage = new Stage(Mode.RUN);
            String text = Stage.GREETING;
            for (int at = 0; at < text.length(); ) {
                int size = Math.min(text.length() - at, 1 + random.nextInt(7));
                stage.says(text.substring(at, at + size)).after(0.05);
                at += size;
            }
            assertEquals("keeper\r", stage.after(1).sent());
        }
    }

    @Test
    void halfAQuestionIsNotAnswered() {
        Stage stage = Stage.atAddress().says("Addr").after(0.1).says("ess ").after(0.1);
        assertEquals("", stage.sent());
        assertEquals("10.40.8.41/24\r", stage.after(0.3).sent());
    }

    @Test
    void anotherMachineGetsNothing() {
        Stage stage = new Stage(Mode.RUN)
                .says("TARN interconnect, serial TN-8, blank\r\nname: ")
                .after(5);
        assertEquals(Why.WRONG_MACHINE, stage.why());
        assertEquals("", stage.goOn("ard-fic-1").sent());
        assertEquals(Why.WRONG_MACHINE, stage.why());
    }

    @Test
    void aSilentLineIsNotWokenByEnter() {
        Stage stage = new Stage(Mode.RUN).after(10);
        assertEquals(Why.SILENT, stage.why());
        assertEquals("", stage.sent());
    }

    @Test
    void aPatternMayHaveValuesInIt() {
        Look look = Look.parse("/^{name}\\.{domain}> *$/");
        assertEquals(Set.of("name", "domain"), look.names());
        assertFalse(look.in("ard-fic-1.ardal.example> "), "not before its values are known");
        Map<String, String> values = Map.of("name", "ard-fic-1", "domain", "ardal.example");
        Look filled = look.filled(name -> Optional.ofNullable(values.get(name)));
        assertTrue(filled.in("ard-fic-1.ardal.example> "));
        assertFalse(filled.in("ard-fic-1.ardalXexample> "), "a value stands letter by letter");
        assertTrue(Look.parse("/a{2}\\p{Alpha}\\p{javaLowerCase}/").in("aabc"), "these braces are no names");
        assertEquals(Set.of(), Look.parse("{name}").names(), "only a pattern has values");
    }

    @Test
    void aMachineThatFallsSilentIsLookedAtByAPerson() {
        Stage stage =
                Stage.atAddress().asks("Address [none]: ", "10.40.8.41/24\r").says("10.40.8.41/24\r\n");
        assertNull(stage.after(110).why());
        assertEquals(Why.SILENT, stage.after(15).why());
        assertEquals("", stage.sent());
        stage.says("Next hop [none]: ").after(1);
        assertEquals("10.40.8.1\r", stage.sent(), "it continues when the machine does");
    }

    @Test
    void logLinesDoNotHideAQuestion() {
        Stage stage = Stage.atAddress()
                .says("Address [none]: \r\n[   12.31] eth0: link is up\r\n")
                .after(0.1)
                .says("[   12.40] eth1: link is up\r\n")
                .after(0.1)
                .says("[   12.50] fan 3 slows\r\n")
                .after(1.5);
        assertEquals("10.40.8.41/24\r", stage.sent());
        // nor do lines that nobody described; they only make it wait a little
        stage.says("10.40.8.41/24\r\nNext hop [none]: \r\nsomething happened somewhere\r\n")
                .after(0.4);
        assertEquals("", stage.sent());
        assertEquals("10.40.8.1\r", stage.after(1).sent());
    }

    @Test
    void coloursAndCursorMovesAreNotLookedAt() {
        Stage stage = Stage.atAddress()
                .says("\u001b[2J\u001b[1;1H\u001b[33mOut "
                        + "of\b\bx\r\u001b[K\u001b[1mAdd\u001b[0mress\u001b[5C:\u001b[0m ")
                .after(1);
        assertEquals("10.40.8.41/24\r", stage.sent());
    }

    @Test
    void pagesAreTurned() {
        Stage stage =
                Stage.atSummary().says("  oob   10.40.8.41/24\r\n-- more --").after(1);
        assertEquals(" ", stage.sent());
        stage.says("\r\u001b[K  hop   10.40.8.1\r\nStore? ").after(1);
        assertEquals(Why.RESTARTS, stage.why(), () -> String.valueOf(stage.conversation.hold()));
    }

    @Test
    void aRefusedAnswerIsNotSentTwice() {
        Stage stage = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("not taken: address in use\r\nAddress [none]: ")
                .after(2);
        assertEquals(Why.REFUSED, stage.why());
        assertTrue(stage.conversation.hold().orElseThrow().sentence().contains("address in use"));
        assertEquals("", stage.after(60).sent());
        // asked again without a word is a refusal too
        Stage mute = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Address [none]: ")
                .after(2);
        assertEquals(Why.REFUSED, mute.why());
        assertEquals("", mute.sent());
    }

    @Test
    void aWrongSuggestionIsNotAccepted() {
        Stage stage = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .asks("Next hop [none]: ", "10.40.8.1\r")
                .says("Strong words? [no]: ")
                .after(1);
        assertTrue(stage.effects.stream()
                .anyMatch(effect -> effect instanceof Effect.Note note
                        && Texts.says(DialogueText.OTHER_SUGGESTION, note.sentence())));
        assertEquals("yes\r", stage.sent());
    }

    @Test
    void anotherOrderIsAnsweredAsItComes() {
        Stage.atAddress()
                .asks("Strong words? [yes]: ", "\r")
                .asks("Next hop [none]: ", "10.40.8.1\r")
                .asks("Address [none]: ", "10.40.8.41/24\r");
    }

    @Test
    void nothingIsAgreedToWhileAQuestionWasNeverAsked() {
        Stage stage = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("  oob   10.40.8.41/24\r\n  hop   10.40.8.1\r\nStore? ")
                .after(1);
        assertEquals(Why.SKIPPED, stage.why());
        assertTrue(stage.conversation.hold().orElseThrow().sentence().contains("gateway"));
        assertEquals("", stage.sent());
    }

    @Test
    void aSummaryThatDiffersIsNotAgreedTo() {
        Stage stage = Stage.atSummary()
                .says("  oob   10.40.8.41/25\r\n  hop   10.40.8.1\r\nStore? ")
                .after(1);
        assertEquals(Why.DIFFERS, stage.why());
        assertTrue(stage.conversation.hold().orElseThrow().sentence().contains("10.40.8.41/25"));
        assertEquals("", stage.goOn("store").sent());
    }

    @Test
    void anUnforeseenQuestionIsThePersons() {
        Stage stage = Stage.atAddress().says("Will you take part in a survey? ").after(5);
        assertEquals(Why.UNFORESEEN, stage.why());
        assertEquals("", stage.sent());
        stage.effects.addAll(stage.conversation.typed("n\r", stage.now));
        assertEquals("n\r", stage.sent());
        stage.says("n\r\n").asks("Address [none]: ", "10.40.8.41/24\r");
    }

    @Test
    void aPasswordGoesToNoQuestionThatSomethingCameAfter() {
        Stage stage = Stage.loggedIn(Mode.RUN)
                .says("New word: \r\nsomebody logged in from elsewhere\r\n")
                .after(10);
        assertEquals("", stage.sent());
    }

    @Test
    void keysThatOnlyMoveAreNoPartOfAnAnswer() {
        Stage stage = new Stage(Mode.WATCH).says(Stage.GREETING).after(1);
        stage.effects.addAll(stage.conversation.typed("\f\033[A\033[1;5Ckeeper\r", stage.now));
        assertNull(stage.why(), "what is typed is what was planned");
        assertTrue(stage.sent().endsWith("keeper\r"));
    }

    @Test
    void noSecretLeavesButToItsQuestion() {
        Stage stage = Stage.loggedIn(Mode.RUN).says("New word: ").after(1);
        assertEquals("<12>\r", stage.sent());
        // a machine that echoes what it should not
        stage.says("Hn4tRb7sLxVc\r\nnot taken: Hn4tRb7sLxVc is too short\r\nNew word: ")
                .after(1);
        Hold hold = stage.conversation.hold().orElseThrow();
        assertFalse((hold.sentence() + hold.shown()).contains("Hn4tRb7sLxVc"), hold.toString());
        assertTrue(hold.sentence().contains("•••"), hold.toString());
    }

    @Test
    void aQuestionThatWasAnsweredComesAgainOnlyWithAPerson() {
        Stage stage = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .asks("Next hop [none]: ", "10.40.8.1\r")
                .says("Address [none]: ")
                .after(1);
        assertEquals(Why.AGAIN, stage.why());
        assertEquals("", stage.sent());
    }

    @Test
    void survivesWhateverComes() {
        Random random = new Random(23);
        String[] pieces = {
            Stage.GREETING,
            "word: ",
            "New word: ",
            "Address",
            "\u001b[",
            "\u001b]0;",
            "Store? ",
            "not taken: x\r\n",
            "-- more --",
            "link up",
            "\r\n",
            "[  1.0] x\r\n",
            "tarn# ",
            "\u001b[2J",
            "\u001b[99;99H"
        };
        for (int round = 0; round < Rounds.of(300); round++) {
            Stage stage = new Stage(Mode.values()[random.nextInt(3)]);
            for (int i = 0; i < 60; i++) {
                switch (random.nextInt(9)) {
                    case 0 -> stage.says(noise(random));
                    case 1 -> stage.goOn(random.nextBoolean() ? "" : "ard-fic-1");
                    case 2 ->
                        stage.effects.addAll(stage.conversation.typed(random.nextBoolean() ? "x\r" : "\b", stage.now));
                    case 3 -> stage.conversation.lineDown();
                    case 4 -> stage.conversation.lineUp(stage.now);
                    default -> stage.says(pieces[random.nextInt(pieces.length)]);
                }
                stage.after(random.nextInt(4) * 0.3);
                if (stage.conversation.state() == State.HELD) {
                    assertTrue(stage.conversation.hold().isPresent());
                }
            }
            for (Effect effect : stage.effects) {
                if (effect instanceof Effect.SendSecret secret) {
                    assertTrue(List.of("factory password", "new password", "new password again")
                            .contains(stage.conversation
                                    .steps()
                                    .get(secret.step())
                                    .title()));
                }
            }
        }
    }

    private static String noise(Random random) {
        char[] noise = new char[random.nextInt(200)];
        for (int i = 0; i < noise.length; i++) {
            noise[i] = (char) random.nextInt(256);
        }
        return new String(noise);
    }
}
