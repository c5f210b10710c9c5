package lychnos.core.address;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RunTest {

    @ParameterizedTest
    @CsvSource({
        "10.40.8.10-10.40.8.31, 22",
        "10.40.8.10-31, 22",
        "10.40.8.10 – .31, 22",
        "10.40.8.10, 1",
        "10.40.8.0/24, 256",
        "fd40:a4da:1::1-fd40:a4da:1::ff, 255",
    })
    void readsTheFormsThatPeopleType(String text, long size) {
        assertEquals(size, AddressRun.parse(text).size());
    }

    @Tag("wording")
    @Test
    void saysThatARangeIsReversed() {
        assertTrue(assertThrows(MalformedAddress.class, () -> AddressRun.parse("10.40.8.31-10"))
                .getMessage()
                .contains("reversed"));
    }

    @ParameterizedTest
    @CsvSource({
        "10.40.8.10-20, 10.40.8.20-30, true",
        "10.40.8.10-20, 10.40.8.21-30, false",
        "10.40.8.10-20, 10.40.8.12-13, true",
        "10.40.8.10, 10.40.8.10, true",
        "10.40.8.10-20, fd40:a4da:1::10, false",
    })
    void touchingEndsOverlapOnlyIfShared(String one, String other, boolean overlaps) {
        assertEquals(overlaps, AddressRun.parse(one).overlaps(AddressRun.parse(other)));
        assertEquals(overlaps, AddressRun.parse(other).overlaps(AddressRun.parse(one)));
    }

    @Test
    void neverMixesFamilies() {
        assertThrows(MalformedAddress.class, () -> AddressRun.parse("10.40.8.1-fd40::1"));
    }
}
