package lychnos.server.identity;

import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.util.Optional;
import lychnos.server.LychnosConfig;
import lychnos.server.text.IdentityText;
import org.junit.jupiter.api.Test;

class PasswordHashesTest {

    private static PasswordHashes hashes(boolean lab) {
        LychnosConfig config = mock(LychnosConfig.class);
        when(config.lab()).thenReturn(lab);
        when(config.labHashCost()).thenReturn(Optional.of(4));
        return new PasswordHashes(config);
    }

    @Test
    void anAccountWithoutAPasswordMatchesNone() {
        PasswordHashes hashes = hashes(true);
        String hash = hashes.hash("lantern over the third rack");
        assertTrue(hashes.matches("lantern over the third rack", hash));
        assertFalse(hashes.matches("lantern over the fourth rack", hash));
        assertFalse(hashes.matches(IdentityText.NO_ACCOUNT_HAS_THIS_PASSWORD.text(), null));
    }

    @Test
    void onlyALabHashesAtALowerCost() {
        assertTrue(
                hashes(true).hash("lantern").startsWith("$2a$04$"), hashes(true).hash("lantern"));
        assertTrue(
                hashes(false).hash("lantern").startsWith("$2a$11$"),
                hashes(false).hash("lantern"));
    }

    @Test
    void aHashOfAnotherCostStillMatches() {
        assertTrue(hashes(false).matches("lantern", hashes(true).hash("lantern")));
    }
}
