package lychnos.server.prove;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Trouble;
import lychnos.server.text.ProveText;
import org.junit.jupiter.api.Test;

/** What to do about an endpoint: a machine that no longer answers may have lost its network. */
class PressTest {

    private static final String HOW = "Log in on its console.";

    private static Proof proof(Trouble trouble) {
        Proof proof = new Proof();
        proof.press = "Check the cable.";
        proof.outcomes = List.of(Outcome.broken(Rung.ANSWERS, trouble, "10.40.8.20"));
        return proof;
    }

    @Test
    void aSilentMachineMayHaveLostItsNetwork() {
        assertEquals(
                "Check the cable. " + ProveText.IF_ITS_NETWORK_IS_SET_WRONG.text(HOW),
                CheckViews.press(proof(Trouble.SILENT), HOW));
    }

    @Test
    void nothingIsAddedWhereItsKindDoesNotSayHowOrItAnswers() {
        assertEquals("Check the cable.", CheckViews.press(proof(Trouble.SILENT), ""));
        assertEquals("Check the cable.", CheckViews.press(proof(Trouble.OTHER_HARDWARE), HOW));
        assertEquals("", CheckViews.press(null, HOW));
    }
}
