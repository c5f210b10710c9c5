package lychnos.core.order;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import lychnos.core.order.FirstAlone.Stage;
import lychnos.core.order.RoundOrder.Hold;
import org.junit.jupiter.api.Test;

class FirstAloneTest {

    private static Hold after(Stage... others) {
        return FirstAlone.decide(List.of(others));
    }

    @Test
    void theFirstGoesAloneUntilItIsProvenAndNotOnlySetUp() {
        assertEquals(Hold.NONE, after());
        assertEquals(Hold.FIRST_GOES_ALONE, after(Stage.UNDER_WAY));
        assertEquals(Hold.FIRST_GOES_ALONE, after(Stage.SET_UP));
        assertEquals(Hold.FIRST_GOES_ALONE, after(Stage.SET_UP, Stage.UNDER_WAY));
        assertEquals(Hold.NONE, after(Stage.PROVEN));
        assertEquals(Hold.NONE, after(Stage.PROVEN, Stage.UNDER_WAY, Stage.SET_UP));
    }

    @Test
    void aSurpriseStopsThoseThatHaveNotStarted() {
        assertEquals(Hold.SURPRISE, after(Stage.SURPRISE));
        assertEquals(Hold.SURPRISE, after(Stage.PROVEN, Stage.SURPRISE, Stage.UNDER_WAY));
    }
}
