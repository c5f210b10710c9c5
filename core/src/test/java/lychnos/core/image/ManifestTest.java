package lychnos.core.image;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Locale;
import lychnos.core.image.Manifest.ManifestLine;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ManifestTest {

    private static final String DIGEST = "0123456789abcdef".repeat(4);

    @ParameterizedTest
    @ValueSource(
            strings = {
                "SHA256(%2$s)= %1$s",
                "SHA256 (%2$s) = %1$s",
                "%1$s  %2$s",
                "%1$s *%2$s",
                "# of the maker\n\n%1$s  disks/%2$s\r\n"
            })
    void eachFormStatesTheSame(String form) {
        for (String digest : List.of(DIGEST, DIGEST.toUpperCase(Locale.ROOT))) {
            assertEquals(
                    List.of(new ManifestLine("disk 1.vmdk", DIGEST)),
                    Manifest.parse(form.formatted(digest, "disk 1.vmdk")).lines());
        }
    }

    @Test
    void otherDigestsAreReadAndNotTakenForOurs() {
        ManifestLine line = Manifest.parse("SHA1(a.ovf)= " + DIGEST.substring(0, 40))
                .lines()
                .get(0);
        assertFalse(line.comparable());
        assertTrue(Manifest.parse(DIGEST + "  a.ovf").lines().get(0).comparable());
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "nothing of that sort", "SHA256(a)= 0123", "0123456789abcdef0123456789abcdeg  a"})
    void aTextWithoutDigestsIsNone(String text) {
        assertThrows(IllegalArgumentException.class, () -> Manifest.parse(text));
    }
}
