package lychnos.core.fact;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ConsoleLineTest {

    @ParameterizedTest
    @CsvSource({"2007,2007", "browser,browser", "Browser,browser", "/dev/ttyUSB0@hall-3,/dev/ttyUSB0@hall-3"})
    void aLineIsAPortADeviceOrABrowser(String typed, String read) {
        assertEquals(read, FactType.LINE.read(typed));
    }

    @ParameterizedTest
    @ValueSource(strings = {"0", "65536", "port 7", "browsers", "COM3"})
    void whatIsNoneOfThemIsToldWithAllThree(String typed) {
        String said = assertThrows(IllegalArgumentException.class, () -> FactType.LINE.read(typed))
                .getMessage();
        assertTrue(said.contains(typed) && said.contains("/dev/ttyUSB0") && said.contains("browser"), said);
    }
}
