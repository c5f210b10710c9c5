package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class TemplateTest {

    private static Optional<String> filled(String template, Map<String, String> values) {
        return Template.parse(template).fill(name -> Optional.ofNullable(values.get(name)));
    }

    @Test
    void aListStandsForAsManyAsThereAre() {
        Map<String, String> one = Map.of("name-server-1", "10.40.8.3");
        Map<String, String> two = Map.of("name-server-1", "10.40.8.3", "name-server-2", "10.40.8.4");
        assertEquals(Optional.of("names=10.40.8.3"), filled("names={name-servers:,}", one));
        assertEquals(Optional.of("names=10.40.8.3,10.40.8.4"), filled("names={name-servers:,}", two));
        assertEquals(Optional.of("10.40.8.3 10.40.8.4 end"), filled("{name-servers: } end", two));
        assertEquals(Optional.of("10.40.8.310.40.8.4"), filled("{name-servers:}", two));
        assertEquals(Optional.empty(), filled("{time-servers:,}", two), "one at least must be known");
    }

    @Test
    void theFirstOfAListMustBeKnownBeforeASetupBegins() {
        assertEquals(
                Set.of("name-server-1", "domain"),
                Template.parse("{name-servers:, } {domain}").names());
    }

    @Test
    void whatIsNoListIsRefused() {
        for (String wrong : List.of("{addresses:,}", "{serial:,}", "{name-servers:{}}", "{Name}")) {
            assertThrows(IllegalArgumentException.class, () -> Template.parse(wrong), wrong);
        }
    }
}
