package lychnos.core.name;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.util.Map;
import lychnos.core.address.Address;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class NamePatternTest {

    private static final Map<String, String> WORDS = Map.of("site", "ard", "kind", "srv", "rack", "R1", "u", "7");

    @ParameterizedTest
    @CsvSource({
        "{site}-{kind}-{n:3}-oob, 7, ard-srv-007-oob",
        "{n}, 7, 7",
        "{site}-{rack}-u{u}-oob, 1, ard-r1-u7-oob",
        "S{n:2}, 123, s123"
    })
    void fillsIn(String pattern, int number, String name) {
        assertEquals(name, NamePattern.parse(pattern).name(WORDS, number));
    }

    @ParameterizedTest
    @ValueSource(strings = {"{site}-oob", "{site}-{m}", "{n", "n}", "{n:0}", "{N:10}", "{rack}-oob", ""})
    void refusesPatternsThatCannotWork(String pattern) {
        assertThrows(IllegalArgumentException.class, () -> NamePattern.parse(pattern));
    }

    @ParameterizedTest
    @ValueSource(strings = {"-{n}", "{n}_a", "{n}-", "{n}.x", "{n} x"})
    void refusesNamesThatAreNoHostNames(String pattern) {
        assertThrows(
                IllegalArgumentException.class, () -> NamePattern.parse(pattern).name(WORDS, 1));
    }

    @Test
    void aLabelHasAtMost63Letters() {
        assertEquals(63, Hostname.require("a".repeat(63)).length());
        assertThrows(IllegalArgumentException.class, () -> Hostname.require("a".repeat(64)));
    }

    @Test
    void derivesBothRecords() {
        Records records = Records.of("ard-srv-001-oob", "ardal.example", Address.parse("10.40.8.101"));
        assertEquals("ard-srv-001-oob.ardal.example. IN A 10.40.8.101", records.forwardLine());
        assertEquals("101.8.40.10.in-addr.arpa. IN PTR ard-srv-001-oob.ardal.example.", records.reverseLine());
        assertEquals(
                "AAAA", Records.of("a", "b", Address.parse("fd40:a4da:1::1")).type());
    }
}
