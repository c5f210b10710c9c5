package lychnos.server.site;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import lychnos.core.address.Address;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.service.Measured;
import lychnos.core.text.Texts;
import lychnos.server.text.PrepareText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ldap.DirectoryQuestion;
import lychnos.wire.ldap.DirectorySeen;
import lychnos.wire.ldap.DirectorySeen.Result;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DirectoryMeasuredTest {

    private static final Duration PATIENCE = Duration.ofSeconds(2);
    private static final Instant NOW = Instant.parse("2026-12-01T08:00:00Z");
    private static final Kind.Login LOOKS_UP = new Kind.Login("uid=looks-up,dc=ardal", Secret.of("moss"));

    private final Vantage vantage = mock(Vantage.class);

    private static SiteResourceRow directory(String... values) {
        SiteResourceRow row = new SiteResourceRow();
        row.sort = "directory";
        row.name = "directory-1";
        row.value = new HashMap<>(Map.of("address", "10.40.8.21", "protection", "starttls", "base", "dc=ardal"));
        for (int i = 0; i < values.length; i += 2) {
            row.value.put(values[i], values[i + 1]);
        }
        return row;
    }

    private Measured measured(SiteResourceRow row, Kind.Login login, Result result) throws WireFault {
        when(vantage.directory(any(), anyInt(), any(), any())).thenReturn(new DirectorySeen(result, "its words", "ab"));
        return DirectoryMeasured.of(row, login, vantage, PATIENCE, NOW);
    }

    @ParameterizedTest
    @CsvSource({
        "FOUND, FINE, DIRECTORY_KNOWS_GROUP",
        "SILENT, SILENT, DIRECTORY_SILENT",
        "NO_TLS, ODD, DIRECTORY_WITHOUT_TLS",
        "REFUSED, ODD, DIRECTORY_REFUSES_ACCOUNT",
        "NO_BASE, ODD, DIRECTORY_WITHOUT_BASE",
        "NO_GROUP, ODD, DIRECTORY_WITHOUT_GROUP",
        "SEVERAL_GROUPS, ODD, DIRECTORY_SEVERAL_GROUPS",
        "NOT_TRUSTED, ODD, DIRECTORY_CERTIFICATE_CHANGED",
    })
    void everyResultHasItsStateAndSentence(Result result, Measured.State state, PrepareText text) throws WireFault {
        Measured seen = measured(directory("certificate", "cd", "group", "storage-team"), LOOKS_UP, result);
        assertEquals(state, seen.state());
        assertTrue(Texts.says(text, seen.sentence()), seen.sentence());
        assertEquals(Map.of("answer", "its words", "certificate", "ab"), seen.detail());
    }

    @Test
    void withoutWhatWasLeftOutTheSentenceIsAnother() throws WireFault {
        assertTrue(Texts.says(
                PrepareText.DIRECTORY_CERTIFICATE_UNKNOWN,
                measured(directory(), LOOKS_UP, Result.NOT_TRUSTED).sentence()));
        assertTrue(Texts.says(
                PrepareText.DIRECTORY_WANTS_AN_ACCOUNT,
                measured(directory(), null, Result.REFUSED).sentence()));
        assertTrue(Texts.says(
                PrepareText.DIRECTORY_ANSWERS,
                measured(directory(), LOOKS_UP, Result.FOUND).sentence()));
    }

    @ParameterizedTest
    @CsvSource({"tls, TLS, 636", "starttls, START_TLS, 389", "none, NONE, 389"})
    void theProtectionDecidesThePort(String entered, DirectoryQuestion.Protection protection, int port)
            throws WireFault {
        measured(directory("protection", entered, "group", "storage-team"), LOOKS_UP, Result.FOUND);
        verify(vantage)
                .directory(
                        eq(Address.parse("10.40.8.21")),
                        eq(port),
                        eq(new DirectoryQuestion(protection, "", LOOKS_UP, "dc=ardal", "storage-team")),
                        eq(PATIENCE));
    }

    @Test
    void oneThatCannotBeReachedIsSilent() throws WireFault {
        when(vantage.directory(any(), anyInt(), any(), any()))
                .thenThrow(new WireFault(WireFault.Kind.REFUSED, "not declared"));
        Measured seen = DirectoryMeasured.of(directory(), LOOKS_UP, vantage, PATIENCE, NOW);
        assertEquals(Measured.State.SILENT, seen.state());
        assertEquals("not declared", seen.sentence());
    }
}
