package lychnos.server.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Optional;
import lychnos.server.text.IdentityText;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PasswordsTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "short",
                "elevenchars",
                "aaaaaaaaaaaaaaaa",
                "abababababababab",
                "1234567890123456",
                "qwertyuiopasdfghjkl",
                "zyxwvutsrqponm",
                "Password2026!!",
                "P@ssw0rdP@ssw0rd",
                "summer-winter-2026",
                "ane.holm.2026!",
                "HolmHolmHolm99",
                "letmein-letmein-1"
            })
    void whatIsTriedFirstIsRefused(String password) {
        assertTrue(Passwords.fault(password, "ane.holm", "Ane Holm").isPresent(), password);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "lantern over the third rack",
                "kveld-skinner-lampe",
                "engineer-at-rack-one",
                "Hn4tRb7sLxVcQw",
                "lead-of-the-hall"
            })
    void otherOnesAreTaken(String password) {
        assertEquals(Optional.empty(), Passwords.fault(password, "ane.holm", "Ane Holm"));
    }

    @Test
    void whatBcryptWouldCutOffIsRefused() {
        assertEquals(
                IdentityText.PASSWORD_HAS_AT_MOST_BYTES.text(72),
                Passwords.fault("lantern over the third rack ".repeat(3), "ane", "Ane")
                        .orElseThrow());
    }
}
