package lychnos.core.proof;

import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Sentences about faults can stand alone, on the Board or in a mail. */
class TroubleTest {

    /** Longer ones would not be read on the Board. */
    private static final int LONGEST = 200;

    @Tag("wording")
    @ParameterizedTest
    @EnumSource(Trouble.class)
    void theSentenceCanStandAlone(Trouble trouble) {
        String sentence = trouble.sentence("10.40.8.101");
        assertFalse(sentence.matches("(It|Its) .*"), sentence);
        assertTrue(sentence.endsWith(".") && sentence.length() <= LONGEST, sentence);
        assertFalse(sentence.contains("%"), sentence);
    }

    @Tag("wording")
    @ParameterizedTest
    @EnumSource(Trouble.class)
    void whatToDoIsASentenceOfItsOwn(Trouble trouble) {
        assertTrue(trouble.press().matches("[A-Z].*\\.") && trouble.press().length() <= LONGEST, trouble.press());
        assertFalse(trouble.press().matches("(It|Its) .*"), trouble.press());
    }
}
