package lychnos.core.fact;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class PasswordMakerTest {

    @Test
    void everyPasswordCanBeTypedUnderAnyLayoutAndHasAllThreeClasses() {
        PasswordMaker maker = new PasswordMaker(new Random(7));
        long different = IntStream.range(0, 500)
                .mapToObj(i -> maker.make(20).use(text -> {
                    assertEquals(20, text.length());
                    assertFalse(text.matches(".*[^A-Za-z0-9].*|.*[yzaqwmYZAQWM0O1lI].*"), text);
                    assertTrue(
                            text.matches(".*[a-z].*") && text.matches(".*[A-Z].*") && text.matches(".*[0-9].*"), text);
                    return text;
                }))
                .distinct()
                .count();
        assertEquals(500, different);
    }

    @Test
    void aSecretIsNeverPrinted() {
        Secret secret = Secret.of("fellside");
        assertEquals("(secret)", secret.toString());
        assertEquals("(secret)", String.valueOf((Object) secret));
        assertEquals(secret, Secret.of("fellside"));
    }
}
