package lychnos.core.address;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.InetAddress;
import java.net.UnknownHostException;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class AddressTest {

    @ParameterizedTest
    @CsvSource({
        "0.0.0.0, 0.0.0.0",
        "255.255.255.255, 255.255.255.255",
        "fd40:a4da:1::, fd40:a4da:1::",
        "FD40:A4DA:0001:0000:0000:0000:0000:00AB, fd40:a4da:1::ab",
        "::, ::",
        "::1, ::1",
        "1:0:0:2:0:0:0:3, 1:0:0:2::3",
        "1:0:2:3:4:5:6:7, 1:0:2:3:4:5:6:7",
        "2001:db8:0:1:1:1:1:1, 2001:db8:0:1:1:1:1:1",
        "::ffff:10.40.8.1, ::ffff:a28:801",
    })
    void readsAndWritesTheCanonicalForm(String given, String canonical) {
        assertEquals(canonical, Address.parse(given).toString());
    }

    @Tag("wording")
    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "10.40.8",
                "10.40.8.256",
                "10.40.08.1",
                "10.40.8.1 ",
                "1.2.3.4.5",
                "a.b.c.d",
                ":::",
                "1::2::3",
                "12345::",
                "1:2:3:4:5:6:7",
                "1:2:3:4:5:6:7:8:9",
                "1:2:3:4:5:6:7::8",
                "fe80::1%eth0",
                "::1.2.3",
                "٣.1.1.1"
            })
    void refusesEverythingElseWithASentence(String text) {
        MalformedAddress fault = assertThrows(MalformedAddress.class, () -> Address.parse(text));
        assertTrue(fault.getMessage().endsWith("."), fault.getMessage());
    }

    @Tag("wording")
    @Test
    void saysWhyALeadingZeroIsDangerous() {
        assertTrue(assertThrows(MalformedAddress.class, () -> Address.parse("10.040.8.1"))
                .getMessage()
                .contains("octal"));
    }

    @Property
    void textAndBytesLeadBack(@ForAll @Size(16) byte[] bytes) throws UnknownHostException {
        Address address = Address.of(bytes);
        assertEquals(address, Address.parse(address.toString()));
        org.junit.jupiter.api.Assertions.assertArrayEquals(bytes, address.toBytes());
        if (!address.toString().startsWith("::ffff:")) {
            assertEquals(InetAddress.getByAddress(bytes), InetAddress.getByName(address.toString()));
        }
    }

    @Property
    void addingAndMeasuringAgree(
            @ForAll @Size(16) byte[] bytes,
            @ForAll @net.jqwik.api.constraints.LongRange(min = 0, max = Long.MAX_VALUE - 1) long distance) {
        Address from = Address.of(bytes);
        Address to = from.plus(distance);
        if (from.compareTo(to) <= 0) {
            assertEquals(distance, to.distanceFrom(from));
        }
        assertEquals(from, to.plus(-distance));
    }

    @Test
    void namesItsReverseRecord() {
        assertEquals("102.8.40.10.in-addr.arpa", Address.parse("10.40.8.102").reverseName());
        assertEquals(
                "1.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.0.1.0.0.0.a.d.4.a.0.4.d.f.ip6.arpa",
                Address.parse("fd40:a4da:1::1").reverseName());
    }
}
