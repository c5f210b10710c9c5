package lychnos.wire.arp;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import org.junit.jupiter.api.Test;

class NeighboursTest {

    @Test
    void readsCompleteEntriesAlone() {
        List<String> table = List.of(
                "IP address       HW type     Flags       HW address            Mask     Device",
                "10.40.8.12       0x1         0x2         02:4c:59:a1:00:01     *        lych-jump",
                "10.40.8.99       0x1         0x0         00:00:00:00:00:00     *        lych-jump");
        assertEquals(
                List.of(new Neighbours.Entry(Address.parse("10.40.8.12"), Mac.parse("02:4c:59:a1:00:01"))),
                Neighbours.parse(table));
        assertEquals(List.of(), Neighbours.parse(List.of()));
    }
}
