package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Adjustments.Place;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a site does otherwise than a kind describes. */
class AdjustmentsTest {

    private static final Kind CONTROLLER = KindReader.shipped("server-controller");

    private static Kind with(String what, String value) {
        return Adjustments.apply(CONTROLLER, what, value, Optional.empty());
    }

    private static String value(Kind kind, String what) {
        return Adjustments.places(kind).stream()
                .filter(place -> place.what().equals(what))
                .map(Place::value)
                .findFirst()
                .orElseThrow();
    }

    /** What a kind says is a value that can be typed, and changes nothing. */
    @Test
    void whatTheKindSaysIsReadBackAsItIs() {
        for (Kind kind : KindReader.allShipped()) {
            for (Place place : Adjustments.places(kind)) {
                if (!place.what().equals("note")) {
                    assertEquals(
                            kind,
                            Adjustments.apply(kind, place.what(), place.value(), Optional.empty()),
                            kind.id() + " " + place.what());
                }
            }
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "presence|not checked",
                "presence|forbidden",
                "port|8443",
                "open|5900, 8080",
                "ssh|expected",
                "ssh|forbidden",
                "shut|23, 80, 5900",
                "community|private",
                "restart|90 s, at most 4 min",
                "unit-name|{site}-{rack}-{u}",
                "bring|console cable; torch",
                "plug|the port marked M",
                "flows|engineers > all tcp 443; all > time service udp 123",
            })
    void anotherValueTakesThePlaceOfTheKinds(String what, String value) {
        assertEquals(value, value(with(what, value), what));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "presence|maybe|core.kind.KindFaultText.NOT_AN_EXPECTATION",
                "port|23|core.kind.KindFaultText.PORT_TWICE",
                "open|80, 5900|core.kind.KindFaultText.PORT_TWICE",
                "ssh|perhaps|core.kind.KindFaultText.NOT_AN_EXPECTATION",
                "shut|0|core.kind.KindFaultText.NOT_A_PORT",
                "shut|http|core.kind.KindFaultText.NOT_A_PORT",
                "community|two words|core.kind.KindFaultText.COMMUNITY",
                "restart|3 min|core.kind.KindFaultText.TWO_TIMES",
                "restart|10 min, at most 3 min|core.kind.KindFaultText.TIMES_REVERSED",
                "unit-name|{site}|core.name.NameText.SAME_NAME",
                "flows|everything|core.kind.KindFaultText.NOT_A_FLOW",
            })
    void whatCannotBeIsRefusedWithAReason(String what, String value, String why) {
        String reason = assertThrows(IllegalArgumentException.class, () -> with(what, value))
                .getMessage();
        assertTrue(Texts.says(why, reason), reason);
    }

    @Test
    void aFactoryLoginKeepsItsPasswordWhereNoOtherIsGiven() {
        String way = "login:" + CONTROLLER.logins().get(0).way();
        Kind other = Adjustments.apply(CONTROLLER, way, "admin", Optional.of(Secret.of("tagged")));
        assertEquals("admin", other.factory().user());
        assertEquals(Secret.of("tagged"), other.factory().phrase());
        assertEquals(CONTROLLER.factory().phrase(), with(way, "admin").factory().phrase());
    }

    @Test
    void aMachinesOwnLoginTakesThePlaceOfTheKinds() {
        Kind own = CONTROLLER.withFactory(null, Secret.of("on the tag"));
        assertEquals(CONTROLLER.factory().user(), own.factory().user());
        assertEquals(Secret.of("on the tag"), own.factory().phrase());
        assertThrows(IllegalArgumentException.class, () -> CONTROLLER.withFactoryUsers(List.of()));
    }

    @Test
    void aDefaultIsReadAsItsFactIs() {
        Kind host = KindReader.shipped("hypervisor-host");
        Kind other = Adjustments.apply(host, "default:keyboard", "de", Optional.empty());
        assertEquals("de", other.fact("keyboard").orElseThrow().fallback());
        assertThrows(
                IllegalArgumentException.class,
                () -> Adjustments.apply(host, "default:keyboard", "xx", Optional.empty()));
    }

    @Test
    void anotherVersionMayLackThePlace() {
        assertSame(CONTROLLER, with("default:of-an-earlier-version", "x"));
        assertEquals(
                Duration.ofMinutes(4), with("restart", "90 s, at most 4 min").restartAtMost());
    }
}
