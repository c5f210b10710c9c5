package lychnos.server.http;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What the other tests read answers with: a path that finds nothing must not look like a value. */
class JsonTest {

    private static final Json JSON = Json.parse("{\"rows\": [{\"id\": 7, \"name\": \"left\", \"on\": true, "
            + "\"marks\": [\"FIRST\"], \"cells\": {\"licence-terms\": {\"value\": \"yes\"}}}, "
            + "{\"id\": 8000000000, \"name\": \"right\", \"on\": false, \"marks\": [], \"cells\": {}}], "
            + "\"none\": null, "
            + "\"paths\": {\"/api/people\": {\"get\": 1}}}");

    @Test
    void namesIndexesAndKeys() {
        assertEquals("left", JSON.getString("rows[0].name"));
        assertEquals("yes", JSON.getString("rows[0].cells['licence-terms'].value"));
        assertEquals(1, JSON.getInt("paths.'/api/people'.get"));
        assertEquals(8_000_000_000L, JSON.getLong("rows.last().id"));
        assertEquals(Map.of("get", 1), JSON.getMap("paths['/api/people']"));
    }

    @Test
    void aNameAfterAListIsThatOfEachEntry() {
        assertEquals(List.of("left", "right"), JSON.getList("rows.name"));
        assertEquals(List.of(List.of("FIRST"), List.of()), JSON.getList("rows.marks"));
    }

    @Test
    void entriesAreFoundByConditions() {
        assertEquals("right", JSON.getString("rows.find { it.id == 8000000000 }.name"));
        assertEquals("left", JSON.getString("rows.find { it.name != 'right' && it.on }.name"));
        assertEquals(List.of(7), JSON.getList("rows.findAll { it.marks.contains('FIRST') }.id"));
        assertEquals(List.of("right"), JSON.getList("rows.findAll { it.name.startsWith('ri') }.name"));
        assertEquals(List.of(), JSON.getList("rows.findAll { it.id == 9 }"));
        assertTrue(JSON.getBoolean("rows.find { it.id == 7 }.on"));
        assertFalse(JSON.getBoolean("rows[1].on"));
    }

    @Test
    void whatIsNotThereIsNoValue() {
        assertNull(JSON.getString("rows.find { it.id == 9 }.name"));
        assertNull(JSON.getString("rows[2].name"));
        assertNull(JSON.getString("none.further"));
        assertThrows(AssertionError.class, () -> JSON.getInt("rows[0].age"));
        assertThrows(AssertionError.class, () -> JSON.getBoolean("none"));
        assertThrows(AssertionError.class, () -> JSON.getInt("none2.rows[0]"));
    }

    @Test
    void whatIsNoPathIsRefused() {
        for (String path : List.of("rows.find { it > 3 }", "rows[x]", "rows.size()", "rows..name")) {
            assertThrows(IllegalArgumentException.class, () -> JSON.get(path), path);
        }
    }
}
