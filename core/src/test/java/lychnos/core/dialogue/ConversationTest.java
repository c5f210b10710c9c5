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
import org.junit.jupiter.api.Test;

/** One member's dialogue, with a machine that does as it should and one that does not. */
class ConversationTest {

    private static Stage loggedIn(Mode mode) {
        Stage stage = new Stage(mode);
        stage.termsAgreed = true;
        return stage.asks(Stage.GREETING, "keeper\r").asks("word: ", "<8>\r");
    }

    private static Stage atAddress() {
        return loggedIn(Mode.RUN).asks("New word: ", "<12>\r").asks("New word once more: ", "<12>\r");
    }

    private static Stage atSummary() {
        return atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .asks("Next hop [none]: ", "10.40.8.1\r")
                .asks("Strong words? [yes]: ", "\r");
    }

    @Test
    void runsToTheEndAndStopsOnlyBeforeTheRestart() {
        Stage stage = atSummary()
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
        Stage stage = atAddress().says("Addr").after(0.1).says("ess ").after(0.1);
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
    void theStandbyOneIsLeftAlone() {
        Stage stage = new Stage(Mode.RUN)
                .says("TARN interconnect, serial TN-7, standing by\r\nname: ")
                .after(5);
        assertEquals(Why.STANDBY, stage.why());
        assertEquals("", stage.goOn("").sent());
    }

    @Test
    void aUsedMachineIsWipedOnlyUnderItsName() {
        Stage stage = new Stage(Mode.RUN)
                .says("TARN interconnect, serial TN-7, settings kept\r\nname: ")
                .after(1);
        assertEquals(Why.USED, stage.why());
        assertEquals("", stage.goOn("").sent());
        assertEquals("", stage.goOn("ard-fic-2").sent());
        assertEquals(Why.USED, stage.why());
        stage.goOn("ard-fic-1").after(1);
        assertEquals("keeper\r", stage.sent());
        stage.says("keeper\r\n")
                .asks("word: ", "<8>\r")
                .says("Forget everything? ")
                .after(1);
        assertEquals(Why.DESTROYS, stage.why());
        assertEquals("", stage.goOn("yes").sent());
        assertEquals("forget\r", stage.goOn("ard-fic-1").sent());
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
        Stage stage = atAddress().asks("Address [none]: ", "10.40.8.41/24\r").says("10.40.8.41/24\r\n");
        assertNull(stage.after(110).why());
        assertEquals(Why.SILENT, stage.after(15).why());
        assertEquals("", stage.sent());
        stage.says("Next hop [none]: ").after(1);
        assertEquals("10.40.8.1\r", stage.sent(), "it continues when the machine does");
    }

    @Test
    void logLinesDoNotHideAQuestion() {
        Stage stage = atAddress()
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
        Stage stage = atAddress()
                .says("\u001b[2J\u001b[1;1H\u001b[33mOut "
                        + "of\b\bx\r\u001b[K\u001b[1mAdd\u001b[0mress\u001b[5C:\u001b[0m ")
                .after(1);
        assertEquals("10.40.8.41/24\r", stage.sent());
    }

    @Test
    void pagesAreTurned() {
        Stage stage = atSummary().says("  oob   10.40.8.41/24\r\n-- more --").after(1);
        assertEquals(" ", stage.sent());
        stage.says("\r\u001b[K  hop   10.40.8.1\r\nStore? ").after(1);
        assertEquals(Why.RESTARTS, stage.why(), () -> String.valueOf(stage.conversation.hold()));
    }

    @Test
    void aRefusedAnswerIsNotSentTwice() {
        Stage stage = atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("not taken: address in use\r\nAddress [none]: ")
                .after(2);
        assertEquals(Why.REFUSED, stage.why());
        assertTrue(stage.conversation.hold().orElseThrow().sentence().contains("address in use"));
        assertEquals("", stage.after(60).sent());
        // asked again without a word is a refusal too
        Stage mute = atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Address [none]: ")
                .after(2);
        assertEquals(Why.REFUSED, mute.why());
        assertEquals("", mute.sent());
    }

    @Test
    void aWrongSuggestionIsNotAccepted() {
        Stage stage = atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .asks("Next hop [none]: ", "10.40.8.1\r")
                .says("Strong words? [no]: ")
                .after(1);
        assertTrue(stage.effects.stream()
                .anyMatch(effect ->
                        effect instanceof Effect.Note note && note.sentence().contains("suggests no")));
        assertEquals("yes\r", stage.sent());
    }

    @Test
    void anotherOrderIsAnsweredAsItComes() {
        atAddress()
                .asks("Strong words? [yes]: ", "\r")
                .asks("Next hop [none]: ", "10.40.8.1\r")
                .asks("Address [none]: ", "10.40.8.41/24\r");
    }

    @Test
    void nothingIsAgreedToWhileAQuestionWasNeverAsked() {
        Stage stage = atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("  oob   10.40.8.41/24\r\n  hop   10.40.8.1\r\nStore? ")
                .after(1);
        assertEquals(Why.SKIPPED, stage.why());
        assertTrue(stage.conversation.hold().orElseThrow().sentence().contains("gateway"));
        assertEquals("", stage.sent());
    }

    @Test
    void aSummaryThatDiffersIsNotAgreedTo() {
        Stage stage = atSummary()
                .says("  oob   10.40.8.41/25\r\n  hop   10.40.8.1\r\nStore? ")
                .after(1);
        assertEquals(Why.DIFFERS, stage.why());
        assertTrue(stage.conversation.hold().orElseThrow().sentence().contains("10.40.8.41/25"));
        assertEquals("", stage.goOn("store").sent());
    }

    @Test
    void anUnforeseenQuestionIsThePersons() {
        Stage stage = atAddress().says("Will you take part in a survey? ").after(5);
        assertEquals(Why.UNFORESEEN, stage.why());
        assertEquals("", stage.sent());
        stage.effects.addAll(stage.conversation.typed("n\r", stage.now));
        assertEquals("n\r", stage.sent());
        stage.says("n\r\n").asks("Address [none]: ", "10.40.8.41/24\r");
    }

    @Test
    void permanentValuesAreTypedByThePerson() {
        Stage stage = atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Tunnel range: ")
                .after(1);
        assertEquals(Why.PERMANENT, stage.why());
        assertEquals("", stage.goOn("").sent());
        assertEquals("", stage.goOn("172.20.0.0/24").sent());
        assertEquals("172.20.0.0/16\r", stage.goOn("172.20.0.0/16").sent());
    }

    @Test
    void termsStopWithoutConsent() {
        Stage stage = loggedIn(Mode.RUN);
        stage.termsAgreed = false;
        stage.asks("New word: ", "<12>\r")
                .asks("New word once more: ", "<12>\r")
                .says("Terms, agree? ")
                .after(1);
        assertEquals(Why.TERMS, stage.why());
        assertEquals("", stage.sent());
    }

    @Test
    void aWaitThatNeverEndsIsTold() {
        Stage stage = atSummary()
                .says("  oob   10.40.8.41/24\r\n  hop   10.40.8.1\r\nStore? ")
                .after(1)
                .goOn("")
                .says("store\r\n")
                .after(599);
        assertEquals(State.WAITING, stage.conversation.state());
        assertEquals(Why.OVERDUE, stage.after(3).why());
        stage.goOn("");
        assertEquals(State.WAITING, stage.conversation.state());
        assertNull(stage.after(100).why());
    }

    @Test
    void aLineThatWasCutIsNotTrusted() {
        Stage stage = atAddress();
        stage.conversation.lineDown();
        stage.says("Address [none]: ").after(2);
        assertEquals("", stage.sent());
        stage.conversation.lineUp(stage.now);
        stage.says("Address [none]: ").after(2);
        assertEquals("", stage.sent(), "it may be another machine that asks the same");
        assertEquals(Why.CUT, stage.after(4).why());
        stage.goOn("").after(1);
        assertEquals("10.40.8.41/24\r", stage.sent());
    }

    @Test
    void anotherMachineBehindTheCutIsSeen() {
        Stage stage = atAddress();
        stage.conversation.lineDown();
        stage.conversation.lineUp(stage.now);
        stage.says("TARN interconnect, serial TN-9, blank\r\nname: ").after(1);
        assertEquals(Why.WRONG_MACHINE, stage.why());
        assertEquals("", stage.sent());
    }

    @Test
    void theSameMachineBehindTheCutIsKnownByItsGreeting() {
        Stage stage = atAddress();
        stage.conversation.lineDown();
        stage.conversation.lineUp(stage.now);
        stage.says("TARN interconnect, serial TN-7, blank\r\nAddress [none]: ").after(2);
        assertEquals("10.40.8.41/24\r", stage.sent());
    }

    @Test
    void whatWasShownWhileTheWorkWasBrokenOffIsComparedByAPerson() {
        Stage before = atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .asks("Next hop [none]: ", "10.40.8.1\r")
                .says("Strong words? [yes]: ")
                .after(1);
        assertEquals("\r", before.sent());
        before.conversation.lineDown();
        before.conversation.lineUp(before.now);
        before.says("TARN interconnect, serial TN-7, blank\r\nStore? ").after(2);
        assertEquals(Why.NOT_SEEN, before.why());
        assertEquals(Why.RESTARTS, before.goOn("").after(1).why());
    }

    @Test
    void eachModeSendsWhatItMay() {
        Stage watch = new Stage(Mode.WATCH).says(Stage.GREETING).after(5);
        assertEquals("", watch.sent());
        Stage ask = new Stage(Mode.ASK).says(Stage.GREETING).after(1);
        assertEquals(Why.NEXT, ask.why());
        assertEquals("", ask.sent());
        assertEquals("keeper\r", ask.goOn("").sent());
        // switched in the middle
        ask.says("keeper\r\nword: ").after(1);
        assertEquals(Why.NEXT, ask.why());
        ask.effects.addAll(ask.conversation.mode(Mode.RUN, ask.now));
        assertEquals("<8>\r", ask.after(1).sent());
    }

    @Test
    void whoTypesIsFollowedAndWarned() {
        Stage stage = atAddress();
        stage.conversation.mode(Mode.WATCH, stage.now);
        stage.says("Address [none]: ").after(1);
        stage.effects.addAll(stage.conversation.typed("10.40.8.14/24\r", stage.now));
        assertEquals("10.40.8.14/24", stage.sent(), "Enter is kept back");
        assertEquals(Why.WRONG_ANSWER, stage.why());
        stage.effects.addAll(stage.conversation.typed("\b\b\b\b\b41/24\r", stage.now));
        assertEquals("\b\b\b\b\b41/24\r", stage.sent());
        stage.says("10.40.8.41/24\r\nNext hop [none]: ").after(1);
        assertEquals(Progress.DONE, stage.conversation.progress(5));
        assertEquals("", stage.sent());
    }

    @Test
    void whatWasApprovedLetsNothingElseThrough() {
        Stage stage = atAddress();
        stage.effects.addAll(stage.conversation.mode(Mode.ASK, stage.now));
        stage.says("Address [none]: ").after(1);
        assertEquals(Why.NEXT, stage.why());
        // before the person has said so the machine has gone on to something that can never be changed
        stage.says("\r\nTunnel range: ").goOn("").after(1);
        assertEquals("", stage.sent());
        assertEquals(Why.PERMANENT, stage.why());
    }

    @Test
    void whoTypesWhileSomethingIsHeldUpIsLetThrough() {
        Stage overdue = atSummary()
                .says("  oob   10.40.8.41/24\r\n  hop   10.40.8.1\r\nStore? ")
                .after(1)
                .goOn("")
                .says("store\r\n")
                .after(602);
        assertEquals(Why.OVERDUE, overdue.why());
        overdue.sent();
        overdue.effects.addAll(overdue.conversation.typed("\r", overdue.now));
        assertEquals("\r", overdue.sent());
        assertEquals(State.WAITING, overdue.conversation.state());
        Stage differs = atSummary()
                .says("  oob   10.40.8.41/25\r\n  hop   10.40.8.1\r\nStore? ")
                .after(1);
        assertEquals(Why.DIFFERS, differs.why());
        differs.effects.addAll(differs.conversation.typed("no\r", differs.now));
        assertEquals("no", differs.sent(), "Enter is kept back: the plan says something else");
        assertEquals(Why.WRONG_ANSWER, differs.why());
        differs.goOn("");
        assertEquals("\r", differs.sent());
    }

    @Test
    void twoNeverWriteIntoOneAnswer() {
        Stage stage = atAddress();
        stage.effects.addAll(stage.conversation.typed("10.40.8.4", stage.now));
        stage.says("Address [none]: ").after(3);
        assertEquals("10.40.8.4", stage.sent(), "only what the person typed");
        stage.effects.addAll(stage.conversation.typed("1/24\r", stage.now));
        assertEquals("1/24\r", stage.sent());
        stage.says("10.40.8.41/24\r\n").asks("Next hop [none]: ", "10.40.8.1\r");
    }

    @Test
    void aPasswordGoesToNoQuestionThatSomethingCameAfter() {
        Stage stage = loggedIn(Mode.RUN)
                .says("New word: \r\nsomebody logged in from elsewhere\r\n")
                .after(10);
        assertEquals("", stage.sent());
    }

    @Test
    void stopHaltsAtOnceAndLeavesTheLineToThePerson() {
        Stage stage = atAddress().says("Address [none]: ");
        stage.conversation.halt();
        assertEquals("", stage.after(5).sent());
        assertEquals(State.STOPPED, stage.conversation.state());
        stage.effects.addAll(stage.conversation.typed("help\r", stage.now));
        assertEquals("help\r", stage.sent());
    }

    @Test
    void goesOnWhereItWasWithoutSendingTwice() {
        Stage before = atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Next hop [none]: ")
                .after(1);
        assertEquals("10.40.8.1\r", before.sent());
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(new Conversation.Left(false, true, kept, java.util.Map.of(), ""), after.now);
        // the machine still shows the question whose answer may or may not have reached it
        after.says("\r\nTARN interconnect, serial TN-7, blank\r\n")
                .after(1)
                .says("Next hop [none]: ")
                .after(1);
        assertEquals("", after.sent(), "it may have been taken");
        assertEquals(Why.SENT_BEFORE, after.why());
        assertEquals("10.40.8.1\r", after.goOn("").after(1).sent(), "a person has looked");
        Stage next = new Stage(Mode.RUN);
        next.conversation.resume(new Conversation.Left(false, true, kept, java.util.Map.of(), ""), next.now);
        next.says("\r\nTARN interconnect, serial TN-7, blank\r\n").after(1).asks("Strong words? [yes]: ", "\r");
    }

    @Test
    void asksWhetherItIsTheSameMachineWhereALineThatMayNotBeWokenStaysSilent() {
        Stage before = atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Next hop [none]: ")
                .after(1);
        before.sent();
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(
                new Conversation.Left(false, true, kept, java.util.Map.of(), "10.40.8.1\r\nStrong words? [yes]: "),
                after.now);
        assertEquals("", after.after(6).sent());
        assertEquals(Why.CUT, after.why());
        assertEquals("\r", after.goOn("").after(2).sent(), "the question that was shown last is answered, once");
        assertEquals("", after.after(6).sent());
    }

    @Test
    void callsAPersonWhereTheQuestionWasLostInTheBreak() {
        Stage before = atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Next hop [none]: ")
                .after(1);
        before.sent();
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(
                new Conversation.Left(false, true, kept, java.util.Map.of(), "10.40.8.1\r\n"), after.now);
        assertEquals(Why.CUT, after.after(6).why());
        assertEquals("", after.goOn("").after(2).sent());
        assertEquals(Why.SILENT, after.after(4).why(), "nothing that was shown can be answered");
        assertEquals(
                "\r",
                after.says("\r\nStrong words? [yes]: ").after(2).sent(),
                "it continues once the line shows something");
    }

    @Test
    void aMachineThatWasSetUpHalfWayIsNotTakenForAUsedOneAfterABreak() {
        Stage before = atAddress();
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(new Conversation.Left(false, true, kept, java.util.Map.of(), ""), after.now);
        after.says("TARN interconnect, serial TN-7, settings kept\r\n")
                .after(1)
                .asks("Address [none]: ", "10.40.8.41/24\r");
    }

    @Test
    void aGreetingFromBeforeTheBreakTellsNothing() {
        Stage before = atAddress();
        List<Progress> kept = java.util.stream.IntStream.range(
                        0, before.conversation.steps().size())
                .mapToObj(before.conversation::progress)
                .toList();
        Stage after = new Stage(Mode.RUN);
        after.conversation.resume(
                new Conversation.Left(
                        false,
                        true,
                        kept,
                        java.util.Map.of(),
                        "TARN interconnect, serial TN-7, blank\r\nAddress [none]: "),
                after.now);
        assertEquals("", after.after(2).sent());
        after.says("\r\nTARN interconnect, serial TN-7, blank\r\n")
                .after(0.3)
                .asks("Address [none]: ", "10.40.8.41/24\r");
    }

    @Test
    void keepsAPersonsEnterBackUntilTheMachineHasToldWhoItIs() {
        Stage stage = new Stage(Mode.WATCH).says("Address [none]: ").after(1);
        stage.effects.addAll(stage.conversation.typed("10.40.8.41/24\r", stage.now));
        assertEquals("10.40.8.41/24", stage.sent(), "all but Enter");
        assertEquals(Why.NOT_KNOWN, stage.why());
        assertEquals("\r", stage.goOn("").sent(), "a person vouches for it");
        Stage late = new Stage(Mode.WATCH).says("Address [none]: ").after(1);
        late.effects.addAll(late.conversation.typed("10.40.8.41/24\r", late.now));
        late.says("\r\nTARN interconnect, serial TN-7, blank\r\nAddress [none]: ")
                .after(1);
        assertNull(late.why(), "it has told who it is");
        Stage other = new Stage(Mode.WATCH).says("TARN interconnect, serial TN-9, blank\r\nAddress [none]: ");
        other.effects.addAll(other.conversation.typed("10.40.8.41/24\r", other.now));
        assertEquals("10.40.8.41/24", other.sent());
        assertEquals(Why.WRONG_MACHINE, other.why());
        assertEquals("", other.goOn("").sent());
    }

    @Test
    void goesOnByItselfOnceTheLineTellsWhatWasMissing() {
        Stage silent = new Stage(Mode.RUN).after(6);
        assertEquals(Why.SILENT, silent.why());
        assertEquals("keeper\r", silent.says(Stage.GREETING).after(1).sent());
        Stage strange = new Stage(Mode.RUN).says("boot: ").after(6);
        assertEquals(Why.UNFORESEEN, strange.why());
        assertEquals("keeper\r", strange.says(Stage.GREETING).after(1).sent());
    }

    @Test
    void keysThatOnlyMoveAreNoPartOfAnAnswer() {
        Stage stage = new Stage(Mode.WATCH).says(Stage.GREETING).after(1);
        stage.effects.addAll(stage.conversation.typed("\f\033[A\033[1;5Ckeeper\r", stage.now));
        assertNull(stage.why(), "what is typed is what was planned");
        assertTrue(stage.sent().endsWith("keeper\r"));
    }

    @Test
    void showsThatItCannotTellTheMachine() {
        Stage stage = new Stage(Mode.RUN).says("some other prompt> ").after(6);
        assertEquals("", stage.sent());
        assertEquals(Why.UNFORESEEN, stage.why());
    }

    @Test
    void noSecretLeavesButToItsQuestion() {
        Stage stage = loggedIn(Mode.RUN).says("New word: ").after(1);
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
        Stage stage = atAddress()
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
