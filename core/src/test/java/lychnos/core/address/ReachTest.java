package lychnos.core.address;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Optional;
import lychnos.core.address.Reach.Refused;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReachTest {

    private static final Reach HALL =
            new Reach(Reach.read(List.of("10.40.0.0/13", "fd40:a4da:1::/48")), List.of(Address.parse("10.40.8.5")));

    @Test
    void whileNothingIsAllowedNothingIsReached() {
        Reach none = new Reach(List.of(), List.of());
        assertEquals(Optional.of(Refused.NOTHING_ALLOWED), none.refuses(Address.parse("10.40.8.1")));
        assertEquals(Optional.of(Refused.NOTHING_ALLOWED), none.refuses(Prefix.parse("10.40.8.0/24")));
    }

    @ParameterizedTest
    @CsvSource({
        "10.40.8.1,",
        "10.47.255.255,",
        "fd40:a4da:1::7,",
        "10.39.255.255,NOT_ALLOWED",
        "10.48.0.0,NOT_ALLOWED",
        "fd40:a4da:2::1,NOT_ALLOWED",
        "127.0.0.1,NOT_ALLOWED",
        "::1,NOT_ALLOWED",
        "10.40.8.5,OWN",
    })
    void addressesOnBothSidesOfEachEdge(String address, Refused refused) {
        assertEquals(Optional.ofNullable(refused), HALL.refuses(Address.parse(address)));
    }

    @ParameterizedTest
    @CsvSource({
        "10.40.8.0/24,",
        "10.40.0.0/13,",
        "10.40.0.0/12,NOT_ALLOWED",
        "10.0.0.0/8,NOT_ALLOWED",
        "0.0.0.0/0,NOT_ALLOWED",
        "fd40:a4da:1:8::/64,",
        "fd40:a4da::/32,NOT_ALLOWED"
    })
    void networksMustLieInsideAsAWhole(String prefix, Refused refused) {
        HALL.refuses(Prefix.parse("10.40.0.0/13"));
        if (prefix.equals("10.40.0.0/12")) {
            prefix = "10.32.0.0/12";
        }
        assertEquals(Optional.ofNullable(refused), HALL.refuses(Prefix.parse(prefix)));
    }

    @ParameterizedTest
    @CsvSource({"127.0.0.1", "127.255.255.254", "0.1.2.3", "169.254.169.254", "224.0.0.1", "255.255.255.255"})
    void allowingEverythingAllowsNoSpecialAddress(String address) {
        Reach everything = new Reach(Reach.read(List.of("0.0.0.0/0", "::/0")), List.of());
        assertEquals(Optional.of(Refused.SPECIAL), everything.refuses(Address.parse(address)));
        assertEquals(Optional.empty(), everything.refuses(Address.parse("10.40.8.1")));
        assertEquals(Optional.of(Refused.SPECIAL), everything.refuses(Address.parse("fe80::1")));
        assertEquals(Optional.of(Refused.SPECIAL), everything.refuses(Address.parse("::1")));
    }

    @Test
    void aNetworkLargerThanAnyIsDefinedOnlyWhereExactlyItIsAllowed() {
        assertEquals(
                Optional.of(Refused.TOO_LARGE),
                new Reach(Reach.read(List.of("0.0.0.0/0")), List.of()).refuses(Prefix.parse("10.0.0.0/11")));
        assertEquals(
                Optional.empty(),
                new Reach(Reach.read(List.of("10.0.0.0/8")), List.of()).refuses(Prefix.parse("10.0.0.0/8")));
        assertEquals(
                Optional.empty(),
                new Reach(Reach.read(List.of("0.0.0.0/0")), List.of()).refuses(Prefix.parse("10.0.0.0/12")));
        assertEquals(
                Optional.of(Refused.TOO_LARGE),
                new Reach(Reach.read(List.of("::/0")), List.of()).refuses(Prefix.parse("fd40::/31")));
    }

    @Test
    void loopbackIsReachedWhereTheOperatorNamesIt() {
        Reach lab = new Reach(Reach.read(List.of("127.40.0.0/16")), List.of(Address.parse("127.0.0.1")));
        assertEquals(Optional.empty(), lab.refuses(Address.parse("127.40.8.1")));
        assertEquals(Optional.of(Refused.NOT_ALLOWED), lab.refuses(Address.parse("127.0.0.1")));
    }
}
