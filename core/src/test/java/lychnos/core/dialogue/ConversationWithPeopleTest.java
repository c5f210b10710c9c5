package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Set;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Hold.Why;
import org.junit.jupiter.api.Test;

/** What people type and decide during a conversation. */
class ConversationWithPeopleTest {

    @Test
    void permanentValuesAreTypedByThePerson() {
        Stage stage = Stage.atAddress()
                .asks("Address [none]: ", "10.40.8.41/24\r")
                .says("Tunnel range: ")
                .after(1);
        assertEquals(Why.PERMANENT, stage.why());
        assertEquals("", stage.goOn("").sent());
        assertEquals("", stage.goOn("172.20.0.0/24").sent());
        assertEquals("10.45.0.0/16\r", stage.goOn("10.45.0.0/16").sent());
    }

    @Test
    void termsStopWithoutConsent() {
        Stage stage = Stage.loggedIn(Mode.RUN);
        stage.terms = AgreedTerms.NONE;
        stage.asks("New word: ", "<12>\r")
                .asks("New word once more: ", "<12>\r")
                .says("Terms, agree? ")
                .after(1);
        assertEquals(Why.TERMS, stage.why());
        assertEquals("", stage.sent());
    }

    private static Stage shown(AgreedTerms agreed, String terms) {
        Stage stage = Stage.loggedIn(Mode.RUN);
        stage.terms = agreed;
        return stage.asks("New word: ", "<12>\r")
                .asks("New word once more: ", "<12>\r")
                .says("TARN interconnect, serial TN-7, blank\r\n" + terms + "\r\nTerms, agree? ")
                .after(1);
    }

    private static TermsText agreedTo(Stage stage) {
        return stage.effects.stream()
                .filter(Effect.Agreed.class::isInstance)
                .map(effect -> ((Effect.Agreed) effect).terms())
                .findFirst()
                .orElse(null);
    }

    @Test
    void consentHoldsForTheTextThatWasShown() {
        String terms = "1. The maker keeps its rights.\r\n[   3.14] port 3 link flaps\r\n\r\n2. So do you.";
        Stage first = shown(AgreedTerms.toTheFirst(), terms);
        TermsText agreed = agreedTo(first);
        assertEquals("1. The maker keeps its rights.\n2. So do you.\nTerms, agree?", agreed.text());
        assertEquals("agree\r", first.sent());
        AgreedTerms known = new AgreedTerms(true, Set.of(agreed.digest()));
        assertEquals("agree\r", shown(known, terms.replace("3.14", "9.99")).sent(), "a log line is not a term");

        Stage other = shown(known, terms.replace("keeps", "gives up"));
        assertEquals(Why.TERMS, other.why());
        assertEquals("", other.sent());
        assertNull(agreedTo(other));
        assertEquals(
                DialogueText.OTHER_TERMS.text(),
                other.conversation.hold().orElseThrow().sentence());
        assertTrue(other.conversation.hold().orElseThrow().shown().contains("gives up"));
        other.goOn("");
        assertNotEquals(agreed.digest(), agreedTo(other).digest());
        assertEquals("agree\r", other.sent(), "a person has read them");
    }

    @Test
    void termsThatAPersonAcceptsByHandAreAgreedToAsWell() {
        Stage stage = shown(AgreedTerms.NONE, "1. The maker keeps its rights.");
        assertEquals(Why.TERMS, stage.why());
        stage.effects.addAll(stage.conversation.typed("agree\r", stage.now));
        assertEquals(
                "1. The maker keeps its rights.\nTerms, agree?", agreedTo(stage).text());
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
        Stage stage = Stage.atAddress();
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
        Stage stage = Stage.atAddress();
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
        Stage overdue = Stage.atSummary()
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
        Stage differs = Stage.atSummary()
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
        Stage stage = Stage.atAddress();
        stage.effects.addAll(stage.conversation.typed("10.40.8.4", stage.now));
        stage.says("Address [none]: ").after(3);
        assertEquals("10.40.8.4", stage.sent(), "only what the person typed");
        stage.effects.addAll(stage.conversation.typed("1/24\r", stage.now));
        assertEquals("1/24\r", stage.sent());
        stage.says("10.40.8.41/24\r\n").asks("Next hop [none]: ", "10.40.8.1\r");
    }

    @Test
    void stopHaltsAtOnceAndLeavesTheLineToThePerson() {
        Stage stage = Stage.atAddress().says("Address [none]: ");
        stage.conversation.halt();
        assertEquals("", stage.after(5).sent());
        assertEquals(State.STOPPED, stage.conversation.state());
        stage.effects.addAll(stage.conversation.typed("help\r", stage.now));
        assertEquals("help\r", stage.sent());
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
}
