package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class KindReaderTest {

    private static String shipped() throws IOException {
        return new String(KindReaderTest.class.getResourceAsStream("/kinds/server-controller.yaml").readAllBytes(), StandardCharsets.UTF_8);
    }

    @Test
    void readsTheShippedKind() {
        Kind kind = KindReader.shipped("server-controller");
        assertEquals("srv", kind.shortName());
        assertEquals("{site}-{kind}-{n:3}-oob", kind.names().toString());
        assertEquals(443, kind.port());
        assertEquals(List.of(23, 80), kind.shut());
        assertEquals(Duration.ofMinutes(5), kind.restartAtMost());
        assertEquals("(secret)", kind.factory().phrase().toString());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "title: Server | tytle: Server | title is missing",
        "port: 443 | port: 70000 | checks.port must be a port",
        "shut: [ 23, 80 ] | shut: 23 | checks.shut must be a list",
        "about: 90 s | about: soon | waits.restart.about must be a time",
        "kind: server-controller | kind: [a] | kind must be a text",
        "{n:3} | {x} | {x} is unknown",
        "names: { | names: [ | no YAML",
    })
    void namesTheKeyThatIsWrong(String good, String bad, String message) throws IOException {
        String yaml = shipped();
        assertTrue(yaml.contains(good));
        IllegalArgumentException fault = assertThrows(IllegalArgumentException.class, () -> KindReader.read(yaml.replace(good, bad)));
        assertTrue(fault.getMessage().contains(message), fault.getMessage());
    }

    @Test
    void buildsNoObjects() {
        assertThrows(IllegalArgumentException.class, () -> KindReader.read("!!java.net.URL [\"x\"]"));
    }
}
