package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

class KindPageTest {

    @Tag("wording")
    @Test
    void theReferenceTellsWhatTheDescriptionsSay() throws IOException {
        assertEquals(
                Files.readString(Path.of("../docs/kind-reference.md")),
                KindPage.reference(KindReader.allShipped()),
                "run ./lychnos record, which writes it");
    }

    @Tag("wording")
    @Test
    void theTableOfCoverageTellsWhatTheDescriptionsSay() throws IOException {
        assertEquals(
                Files.readString(Path.of("../docs/coverage.md")),
                KindPage.coverage(KindReader.allShipped()),
                "run ./lychnos record, which writes it");
    }

    @Test
    void theReferenceOfTheLanguageTellsWhatTheSchemaSays() throws IOException {
        assertEquals(
                Files.readString(Path.of("../docs/kind-language.md")),
                LanguagePage.reference(),
                "run ./lychnos record, which writes it");
    }

    @Test
    void marksWhatCannotBeTakenBack() {
        String page = KindPage.of(KindReader.shipped("backup-store"));
        assertTrue(page.contains("**permanent**, typed by a person"), page);
        assertTrue(
                KindPage.of(KindReader.shipped("interconnect-pair")).contains("A person types its name for that."),
                page);
    }

    @Test
    void tellsNoFactoryPassword() {
        for (Kind kind : KindReader.allShipped()) {
            String page = KindPage.of(kind);
            assertTrue(
                    kind.logins().stream()
                            .map(each -> each.login().phrase().<String>use(phrase -> phrase))
                            .noneMatch(phrase -> phrase.length() > 5 && page.contains(phrase)),
                    kind.id());
        }
    }
}
