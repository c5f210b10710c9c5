package lychnos.core.address;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PrefixTest {

    @ParameterizedTest
    @CsvSource({
        "10.40.8.0/24, 10.40.8.255, 10.40.8.1, 10.40.8.254, 255.255.255.0",
        "10.40.0.0/13, 10.47.255.255, 10.40.0.1, 10.47.255.254, 255.248.0.0",
        "10.40.8.4/31, 10.40.8.5, 10.40.8.4, 10.40.8.5, 255.255.255.254",
        "10.40.8.4/32, 10.40.8.4, 10.40.8.4, 10.40.8.4, 255.255.255.255",
        "0.0.0.0/0, 255.255.255.255, 0.0.0.1, 255.255.255.254, 0.0.0.0",
    })
    void knowsItsEndsHostsAndMask(String text, String last, String firstHost, String lastHost, String mask) {
        Prefix prefix = Prefix.parse(text);
        assertEquals(last, prefix.last().toString());
        assertEquals(new AddressRun(Address.parse(firstHost), Address.parse(lastHost)), prefix.hosts());
        assertEquals(mask, prefix.subnetMask().toString());
        assertEquals(prefix, Prefix.parse(prefix.toString()));
    }

    @Tag("wording")
    @Test
    void namesTheNetworkWhenHostBitsAreSet() {
        MalformedAddress fault = assertThrows(MalformedAddress.class, () -> Prefix.parse("10.40.8.7/24"));
        assertTrue(fault.getMessage().contains("10.40.8.0/24"), fault.getMessage());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "10.40.8.0",
                "10.40.8.0/33",
                "10.40.8.0/-1",
                "10.40.8.0/024",
                "10.40.8.0/",
                "/24",
                "fd40::/129",
                "10.40.8.0/24 "
            })
    void refusesWhatIsNoPrefix(String text) {
        assertThrows(MalformedAddress.class, () -> Prefix.parse(text));
    }

    /** Flips one bit inside and one outside of the prefix: the first leaves it, the second does not. */
    @Property
    void bitsInsideTheLengthDecide(@ForAll @Size(4) byte[] bytes, @ForAll @IntRange(min = 1, max = 31) int length) {
        Address address = Address.of(bytes);
        Prefix prefix = Prefix.around(address, length);
        assertTrue(prefix.contains(address));
        assertFalse(prefix.contains(Address.v4(address.low() ^ 1L << 32 - length)));
        assertTrue(prefix.contains(Address.v4(address.low() ^ 1L << 31 - length)));
    }

    @ParameterizedTest
    @CsvSource({
        "0, ::, ffff:ffff:ffff:ffff:ffff:ffff:ffff:ffff",
        "1, 8000::, ffff:ffff:ffff:ffff:ffff:ffff:ffff:ffff",
        "48, fd40:a4da:1::, fd40:a4da:1:ffff:ffff:ffff:ffff:ffff",
        "63, fd40:a4da:1:8::, fd40:a4da:1:9:ffff:ffff:ffff:ffff",
        "64, fd40:a4da:1:9::, fd40:a4da:1:9:ffff:ffff:ffff:ffff",
        "65, fd40:a4da:1:9:8000::, fd40:a4da:1:9:ffff:ffff:ffff:ffff",
        "127, fd40:a4da:1:9:ffff::76, fd40:a4da:1:9:ffff::77",
        "128, fd40:a4da:1:9:ffff::77, fd40:a4da:1:9:ffff::77",
    })
    void everyLengthOfIpv6HasItsEnds(int length, String first, String last) {
        Address address = Address.parse("fd40:a4da:1:9:ffff::77");
        Prefix prefix = Prefix.around(length == 1 ? Address.parse("8000::1") : address, length);
        assertEquals(first, prefix.network().toString());
        assertEquals(last, prefix.last().toString());
    }

    @Test
    void aMaskHasItsOnesAtTheLeft() {
        assertEquals(Optional.of(24), Prefix.lengthOfMask(Address.parse("255.255.255.0")));
        assertEquals(Optional.of(0), Prefix.lengthOfMask(Address.parse("0.0.0.0")));
        assertEquals(Optional.of(32), Prefix.lengthOfMask(Address.parse("255.255.255.255")));
        assertEquals(Optional.empty(), Prefix.lengthOfMask(Address.parse("255.0.255.0")));
        assertEquals(Optional.empty(), Prefix.lengthOfMask(Address.parse("ffff::")));
    }

    @Test
    void sixtyFourBitsAndBeyondWorkForIpv6() {
        assertEquals(
                "fd40:a4da:1:ffff:ffff:ffff:ffff:ffff",
                Prefix.parse("fd40:a4da:1::/48").last().toString());
        assertTrue(Prefix.parse("fd40:a4da:1::/48").contains(Address.parse("fd40:a4da:1:8::7")));
        assertFalse(Prefix.parse("fd40:a4da:1::/48").contains(Address.parse("fd40:a4da:2::")));
        assertEquals(
                "fd40:a4da:1:8::/64",
                Prefix.around(Address.parse("fd40:a4da:1:8::7"), 64).toString());
    }
}
