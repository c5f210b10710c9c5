package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NotationTest {

    @ParameterizedTest
    @CsvSource({
        "02:4c:59:a1:00:01, 024C.59A1.0001, true",
        "02:4c:59:a1:00:01, 02-4C-59-A1-00-01, true",
        "02:4c:59:a1:00:01, 02:4c:59:a1:00:02, false",
        "24, 255.255.255.0, true",
        "255.255.255.0, /24, true",
        "24, 255.255.0.0, false",
        "24, 255.0.255.0, false",
        "10.40.8.7/24, 10.40.8.7/255.255.255.0, true",
        "10.40.8.7/24, 10.40.8.7/23, false",
        "10.40.8.7/24, 10.40.8.7, false",
        "fd40:a4da:1:8::7, FD40:A4DA:0001:0008:0:0:0:7, true",
        "fd40:a4da:1:8::7/64, fd40:a4da:1:8:0::7/64, true",
        "fd40:a4da:1:8::7, fd40:a4da:1:8::8, false",
        "ard-fic-1, ARD-FIC-1, true",
        "ard-fic-1, ard-fic-1.ardal.example, true",
        "ard-fic-1.ardal.example, ard-fic-1, true",
        "ard-fic-1.ardal.example, ard-fic-1.ardal.example., true",
        "ard-fic-1, ard-fic-1.other.example, false",
        "ard-fic-1, ard-fic-2, false",
        "10.40.8.3, 10.40.8.30, false",
        "7, 07, true",
        "Vx9!, vx9!, false",
    })
    void oneValueInSeveralNotations(String wanted, String shown, boolean same) {
        assertEquals(same, Notation.same(wanted, shown, Optional.of("ardal.example")));
        assertEquals(same, Notation.same(shown, wanted, Optional.of("ardal.example")), "either way");
    }
}
