package lychnos.server;

import static org.hamcrest.Matchers.hasItems;
import static org.junit.jupiter.api.Assertions.assertEquals;

import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What the running server needs is told to leads. */
@QuarkusTest
class DoctorTest {

    @Test
    void leadsSeeWhatIsThereWhatNeedsThemFirst() {
        Client.lead()
                .request()
                .get("/api/doctor")
                .statusCode(200)
                .body("code", hasItems("DATABASE_IS_OF_THIS_VERSION", "DATABASE_CLOCK_AGREES", "REACH_IS_LAB"));
        List<String> states = Client.lead().get("/api/doctor").getList("state");
        long good = states.stream().filter("GOOD"::equals).count();
        assertEquals(states.size() - good, states.indexOf("GOOD"), states::toString);
    }

    @Test
    void othersDoNot() {
        Client.engineer().request().get("/api/doctor").statusCode(403);
        Client.viewer().request().get("/api/doctor").statusCode(403);
    }
}
