package lychnos.core.fact;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MacTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "02:4c:59:a1:00:01",
                "02-4C-59-A1-00-01",
                "024c.59a1.0001",
                "024C59A10001",
                "024c59-a10001",
                " 02:4c:59:A1:00:01 ",
                "024c-59a1-0001"
            })
    void readsEveryNotation(String text) {
        assertEquals("02:4c:59:a1:00:01", Mac.parse(text).toString());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "02:4c:59:a1:00",
                "02:4c:59:a1:00:0g",
                "02:4c:59:a1:00:01:02",
                "02:4c-59:a1:00:01",
                "00:00:00:00:00:00",
                "ff:ff:ff:ff:ff:ff",
                "01:00:5e:00:00:01"
            })
    void refusesEverythingElse(String text) {
        assertThrows(IllegalArgumentException.class, () -> Mac.parse(text));
    }

    @Tag("wording")
    @Test
    void countsTheDigitsThatAreThere() {
        assertTrue(assertThrows(IllegalArgumentException.class, () -> Mac.parse("02:4c:59:a1:00"))
                .getMessage()
                .contains("10 hexadecimal digits"));
    }
}
