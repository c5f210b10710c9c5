package lychnos.core.record;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.text.Sha256;
import org.junit.jupiter.api.Test;

class CanonicalJsonTest {

    @Test
    void membersAreSortedByTheirCodeUnits() {
        // the names of RFC 8785, section 3.2.3: U+1F600 comes before U+FB33 by its first code unit
        Map<String, Object> map = new LinkedHashMap<>();
        for (String name : List.of("\u20ac", "\r", "\ufb33", "1", "\ud83d\ude00", "\u0080", "\u00f6")) {
            map.put(name, 0);
        }
        assertEquals(
                "{\"\\r\":0,\"1\":0,\"\u0080\":0,\"\u00f6\":0,\"\u20ac\":0,\"\ud83d\ude00\":0,\"\ufb33\":0}",
                CanonicalJson.write(map));
    }

    @Test
    void textsAreEscapedAsLittleAsMayBe() {
        assertEquals("\"\u20ac$\\u000f\\nA'B\\\"\\\\\\\"/\"", CanonicalJson.write("\u20ac$\u000f\nA'B\"\\\"/"));
        assertEquals("\"\\b\\t\\f\\r\u007f\"", CanonicalJson.write("\b\t\f\r\u007f"));
    }

    @Test
    void valuesKeepTheirOrderInListsAndNothingElseIsWritten() {
        Map<String, Object> map = new HashMap<>();
        map.put("b", Arrays.asList(3, null, true, List.of()));
        map.put("a", Instant.parse("2026-11-27T22:00:00Z"));
        assertEquals("{\"a\":\"2026-11-27T22:00:00Z\",\"b\":[3,null,true,[]]}", CanonicalJson.write(map));
    }

    @Test
    void whatRoundsDifferentlyElsewhereIsRefused() {
        assertEquals("9007199254740991", CanonicalJson.write((1L << 53) - 1));
        assertThrows(IllegalArgumentException.class, () -> CanonicalJson.write(1L << 53));
        assertThrows(IllegalArgumentException.class, () -> CanonicalJson.write(0.1));
        assertThrows(IllegalArgumentException.class, () -> CanonicalJson.write("half \ud83d"));
        assertThrows(IllegalArgumentException.class, () -> CanonicalJson.write("\ude00"));
    }

    @Test
    void theDigestIsThatOfUtf8() {
        assertEquals("e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855", Sha256.hex(new byte[0]));
        assertEquals(
                CanonicalJson.digest(Map.of("a", 1, "b", 2)),
                CanonicalJson.digest(new LinkedHashMap<>(Map.of("b", 2, "a", 1))));
    }
}
