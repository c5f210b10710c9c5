package lychnos.server.database;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.sql.SQLException;
import org.junit.jupiter.api.Test;

/** A database of an earlier version, with work in it, becomes one of this version and loses nothing. */
class UpgradeTest {

    /** V10 told by sentences what V11 has columns for. */
    @Test
    void sentencesBecomeCodes() throws SQLException {
        try (TestDatabase database = new TestDatabase("upgrade")) {
            sentencesBecomeCodes(database);
        }
    }

    private static void sentencesBecomeCodes(TestDatabase database) throws SQLException {
        database.migrate("10");
        database.run(
                "insert into site (code, name) values ('ard', 'Ardal')",
                "insert into account (login, name, role) values ('lead', 'Lead', 'lead')",
                "insert into realm (site_id, name) values (1, 'Ardal')",
                "insert into bring_up (site_id, realm_id, name, kind, name_pattern) values (1, 1, 'Row A', "
                        + "'interconnect-pair', '{n}')",
                "insert into network (realm_id, name, prefix, domain) values (1, 'Management', '10.40.8.0/24', "
                        + "'ardal.example')",
                "insert into unit (bring_up_id, number, kind, name, members) values (1, 1, 'interconnect-pair', "
                        + "'ard-fic-1', 2)",
                "insert into run (unit_id, purpose, state) values (1, 'console', 'RUNNING')",
                "insert into dialogue (run_id, unit_id, member, place, mode, state) values (1, 1, 'left', 0, 'RUN', "
                        + "'BY_HAND')",
                "insert into dialogue (run_id, unit_id, member, place, mode, state, gate, hold) values (1, 1, 'right', "
                        + "1, 'RUN', 'SHUT', 'opens when left is done', null), (1, 1, 'upper', 2, 'RUN', 'SHUT', "
                        + "'opens when what comes before it is ticked', null), (1, 1, 'lower', 3, 'RUN', 'HELD', '', "
                        + "'{\"why\": \"GATE\", \"step\": 2}')",
                "insert into dialogue_step (dialogue_id, place, title, progress, evidence) values (1, 0, 'log-in', "
                        + "'DONE', 'ticked by hand'), (1, 1, 'address', 'DONE', '10.40.8.41/24'), (1, 2, 'store', "
                        + "'OPEN', '')",
                "insert into stranger (network_id, address, sentence, first_heard, last_heard) values (1, "
                        + "'10.40.8.50', 'answers to ping and TCP 443', now(), now()), (1, '10.40.8.51', 'is leased "
                        + "by DHCP', now(), now())",
                "insert into measured (site_id, kind, address, state, sentence, detail, at) values (1, 'NAME', "
                        + "'10.40.8.3', 'FINE', 'serial 7', '{\"update ardal.example\": \"allowed\"}', now())");

        database.migrate("latest");

        assertEquals("1", database.text("select kind_version from unit"), "every unit keeps the kind that it had");
        assertEquals(
                "true, 1",
                database.text(
                        "select shipped || ', ' || version from kind_version where kind_id = 'interconnect-pair'"));
        assertEquals("t, f, f", database.text("select ticked from dialogue_step order by place"));
        assertEquals(
                "ticked by hand, 10.40.8.41/24, ", database.text("select evidence from dialogue_step order by place"));
        assertEquals(
                "NOTHING , MEMBER opens when left is done, TICKS opens when what comes before it is ticked, NOTHING ",
                database.text("select waits_for || ' ' || prerequisite from dialogue order by place"));
        assertEquals("PREREQUISITE", database.text("select hold ->> 'why' from dialogue where place = 3"));
        assertEquals("t, f", database.text("select answered from unknown_device order by address"));
        assertEquals("[]", database.text("select replies from measured"));
        assertEquals(
                "allowed",
                database.text("select detail ->> 'update ardal.example' from measured"),
                "shown until the next look");
    }
}
