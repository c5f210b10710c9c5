package lychnos.core.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.stream.IntStream;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.AddressSet;
import lychnos.core.address.Prefix;
import org.junit.jupiter.api.Test;

/** Nothing that is used, reserved or just released is ever offered. */
class FreeSpaceTest {

    private static FreeSpace in(String prefix, String gateway, List<String> kept) {
        Prefix network = Prefix.parse(prefix);
        return new FreeSpace(
                "management",
                network,
                gateway == null ? null : Address.parse(gateway),
                List.of(network.run()),
                kept.stream().map(AddressRun::parse).toList(),
                List.of(Address.parse("10.40.8.5")),
                List.of(Address.parse("10.40.8.6"), Address.parse("10.40.8.5"), Address.parse("10.40.9.1")));
    }

    @Test
    void whatMustStayFreeOfUnitsIsLeftOut() {
        FreeSpace space = in("10.40.8.0/28", "10.40.8.1", List.of("10.40.8.8-11"));
        AddressSet free = space.free();
        for (int host : new int[] {0, 1, 5, 6, 8, 9, 10, 11, 15}) {
            assertFalse(free.contains(Address.parse("10.40.8." + host)), "." + host);
        }
        for (int host : new int[] {2, 3, 4, 7, 12, 13, 14}) {
            assertTrue(free.contains(Address.parse("10.40.8." + host)), "." + host);
        }
        assertEquals(7, free.size());
        assertEquals(7, space.freeSize());
    }

    @Test
    void aLinkOfTwoHasNoBroadcastAddress() {
        FreeSpace space = in("10.40.8.2/31", null, List.of());
        // RFC 3021: both are hosts; the first of a network is still never given out
        assertEquals(1, space.freeSize());
        assertTrue(space.free().contains(Address.parse("10.40.8.3")));
    }

    @Test
    void theSizeIsThatOfTheSet() {
        IntStream.range(24, 32)
                .mapToObj(length -> in("10.40.8.0/" + length, "10.40.8.1", List.of("10.40.8.2-3")))
                .forEach(space -> assertEquals(space.free().size(), space.freeSize(), space.network()::toString));
    }
}
