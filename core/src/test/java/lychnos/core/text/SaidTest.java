package lychnos.core.text;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

class SaidTest {

    private enum Example implements Message {
        IS_SIGNED("{unit} is signed."),
        SIGNED_OUT("{person}: signed out of {count} {count|session|sessions}"),
        NOTHING("Nothing was changed.");

        private final String pattern;

        Example(String pattern) {
            this.pattern = pattern;
        }

        @Override
        public String pattern() {
            return pattern;
        }
    }

    @Tag("wording")
    @Test
    void valuesFillThePlacesInTheirOrder() {
        assertEquals("R7 U3 is signed.", Example.IS_SIGNED.text("R7 U3"));
        assertEquals("Nothing was changed.", Example.NOTHING.text());
    }

    @Tag("wording")
    @Test
    void aCountChoosesTheFormOfTheWordAfterIt() {
        assertEquals("rack-one: signed out of 1 session", Example.SIGNED_OUT.text("rack-one", 1));
        assertEquals("rack-one: signed out of 0 sessions", Example.SIGNED_OUT.text("rack-one", 0));
        assertEquals("rack-one: signed out of 12 sessions", Example.SIGNED_OUT.text("rack-one", 12L));
    }

    @Tag("wording")
    @Test
    void aValueIsTakenAsItIs() {
        assertEquals("{unit} \\ $1 is signed.", Example.IS_SIGNED.text("{unit} \\ $1"));
        assertEquals("null is signed.", Example.IS_SIGNED.text((Object) null));
    }

    @Test
    void programsSeeTheCodeAndTheValuesByName() {
        Said said = Example.SIGNED_OUT.said("rack-one", 2);
        assertEquals("SIGNED_OUT", said.code());
        assertEquals(Map.of("person", "rack-one", "count", "2"), said.values());
        assertEquals(List.of("person", "count"), List.copyOf(said.values().keySet()));
    }

    @Test
    void anotherNumberOfValuesIsRefused() {
        assertThrows(IllegalArgumentException.class, Example.IS_SIGNED::text);
        assertThrows(IllegalArgumentException.class, () -> Example.NOTHING.text(1));
    }
}
