package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import java.util.List;
import java.util.Random;
import lychnos.core.Rounds;
import lychnos.core.fact.Secret;
import org.junit.jupiter.api.Test;

class BlankerTest {

    private static final String WORD = "Hn4tRb7sLxVc";

    private final Blanker blanker = new Blanker(() -> List.of(Secret.of(WORD), Secret.of("orrel-9")));

    @Test
    void blanksAWordThatComesInOnePieceAndInMany() {
        assertEquals("pass ••• ok", blanker.feed("pass " + WORD + " ok"));
        StringBuilder seen = new StringBuilder();
        for (char c : ("pass " + WORD + " ok\r\n").toCharArray()) {
            seen.append(blanker.feed(String.valueOf(c)));
        }
        assertEquals("pass ••• ok\r\n", seen + blanker.rest());
    }

    @Test
    void whatOnlyBeginsLikeAWordComesOutLater() {
        assertEquals("", blanker.feed("Hn4t"));
        assertEquals("Hn4tX", blanker.feed("X"));
        assertEquals("", blanker.feed("Hn4t"));
        assertEquals("Hn4t", blanker.rest());
    }

    @Test
    void noCutLetsAWordThrough() {
        Random random = new Random(3);
        for (int round = 0; round < Rounds.of(500); round++) {
            String text =
                    "a".repeat(random.nextInt(5)) + WORD + "Hn4".repeat(random.nextInt(3)) + WORD + "orrel-orrel-9";
            StringBuilder seen = new StringBuilder();
            for (int at = 0; at < text.length(); ) {
                int next = Math.min(text.length(), at + 1 + random.nextInt(7));
                seen.append(blanker.feed(text.substring(at, next)));
                at = next;
            }
            seen.append(blanker.rest());
            assertFalse(seen.toString().contains(WORD) || seen.toString().contains("orrel-9"), seen.toString());
        }
    }
}
