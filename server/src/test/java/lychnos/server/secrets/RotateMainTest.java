package lychnos.server.secrets;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Base64;
import lychnos.server.database.TestDatabase;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A new key takes over: every place that holds a sealed password, in a database of its own. */
class RotateMainTest {

    private static final byte[] WORDS = "three lanterns".getBytes(StandardCharsets.UTF_8);

    @TempDir
    Path directory;

    private Path file;
    private SealKeys old;
    private TestDatabase database;
    private Connection db;

    @BeforeEach
    void sealEverything() throws SQLException, IOException {
        database = new TestDatabase("rotation");
        database.migrate("latest");
        db = database.connection();
        file = directory.resolve("seal.key");
        old = SealKeys.read(file);
        try (Statement statement = db.createStatement()) {
            statement.execute("insert into site (code, name) values ('ard', 'Ardal')");
            statement.execute("insert into account (login, name, role) values ('lead', 'Lead', 'lead')");
            statement.execute("insert into realm (site_id, name) values (1, 'Ardal')");
            statement.execute(
                    "insert into bring_up (site_id, realm_id, name, kind, name_pattern) values (1, 1, 'Row A', "
                            + "'backup-store', '{n}')");
            statement.execute("insert into unit (bring_up_id, number, kind, kind_version, name, members) values (1, 1, "
                    + "'backup-store', 1, 'ard-obj-1', 2)");
        }
        box(
                "insert into sealed_secret (unit_id, name, state, key_id, nonce, sealed) values (1, 'password', "
                        + "'made', ?, ?, ?)",
                SealKeys.ofUnit(1, "password"));
        box(
                "insert into fact (unit_id, member, name, value, source, set_by, key_id, nonce, sealed) values (1, "
                        + "'node 1', 'controller-password', '(sealed)', 'TYPED', 1, ?, ?, ?)",
                SealKeys.ofFact(1, "node 1", "controller-password"));
        box(
                "insert into site_resource (site_id, sort, name, value, key_id, nonce, sealed) values (1, "
                        + "'proxy', 'out', '{}', ?, ?, ?)",
                SealKeys.ofEntry(1));
        box(
                "insert into kind_adjustment (kind_id, site_id, what, value, reason, made_by, made_at, key_id, nonce, "
                        + "sealed) values ('backup-store', 1, 'login:pages', 'admin', 'as ordered', 1, now(), ?, ?, ?)",
                SealKeys.ofAdjustment("backup-store", 1, 0, "login:pages"));
        box(
                "insert into notice_target (bring_up_id, sort, target, told_trait, made_by, key_id, nonce, sealed) "
                        + "values (1, 'webhook', 'https://127.0.0.1/x', now(), 1, ?, ?, ?)",
                SealKeys.ofNotice(1));
        try (Statement statement = db.createStatement()) {
            statement.execute(
                    "insert into run (unit_id, purpose, state, created_at) values (1, 'console', 'DONE', now())");
            statement.execute(
                    "insert into dialogue (run_id, unit_id, place, mode, state, waits_for) values (1, 1, 0, 'ASK', "
                            + "'DONE', 'NOTHING')");
        }
        box(
                "insert into setup_piece (dialogue_id, number, at, kind, key_id, nonce, sealed) values (1, 3, now(), "
                        + "'i', ?, ?, ?)",
                SealKeys.ofSetupLog(1, 3));
        SealKeys.Box before = old.seal(SealKeys.ofFact(1, "node 1", "controller-password"), WORDS);
        String cells = ("[{\"unitId\":1,\"member\":\"node 1\",\"name\":\"controller-password\","
                        + "\"before\":\"(sealed)\",\"after\":null,"
                        + "\"sealedBefore\":{\"keyId\":\"%s\",\"nonce\":\"%s\",\"sealed\":\"%s\"},"
                        + "\"sealedAfter\":null}]")
                .formatted(
                        before.keyId(),
                        Base64.getEncoder().encodeToString(before.nonce()),
                        Base64.getEncoder().encodeToString(before.sealed()));
        try (PreparedStatement insert = db.prepareStatement(
                "insert into sheet_change (bring_up_id, account_id, cells) values (1, 1, cast(? as jsonb))")) {
            insert.setString(1, cells);
            insert.executeUpdate();
        }
    }

    private void box(String insert, String place) throws SQLException {
        SealKeys.Box box = old.seal(place, WORDS);
        try (PreparedStatement statement = db.prepareStatement(insert)) {
            statement.setString(1, box.keyId());
            statement.setBytes(2, box.nonce());
            statement.setBytes(3, box.sealed());
            statement.executeUpdate();
        }
    }

    @AfterEach
    void dropDatabase() throws SQLException {
        database.close();
    }

    @Test
    void everyPasswordIsSealedWithTheNewKeyAlone() throws SQLException, IOException {
        assertEquals(7, RotateMain.rotate(db, file));
        assertEquals(1, Files.readAllLines(file).size());
        allOpenWith(SealKeys.read(file));
        assertFalse(SealKeys.read(file).id().equals(old.id()));
        assertEquals(
                "rotated the key of sealed passwords: 7 sealed with key "
                        + SealKeys.read(file).id(),
                one("select act from journal order by id desc limit 1"));
    }

    /** As when the machine stopped after the new key was written, or after the passwords were. */
    @Test
    void aRotationThatWasCutOffIsFinishedWithTheSameNewKey() throws SQLException, IOException {
        SealKeys both = old.withNew();
        both.write(file);
        allOpenWith(SealKeys.read(file));
        RotateMain.rotate(db, file);
        assertEquals(both.id(), SealKeys.read(file).id());
        both.write(file);
        assertEquals(7, RotateMain.rotate(db, file));
        allOpenWith(SealKeys.read(file));
        assertEquals(both.id(), SealKeys.read(file).id());
    }

    @Test
    void aPasswordThatCannotBeOpenedChangesNothing() throws SQLException, IOException {
        database.run("update site_resource set key_id = '00000000'");
        IllegalStateException fault = assertThrows(IllegalStateException.class, () -> RotateMain.rotate(db, file));
        assertTrue(fault.getMessage().contains("thing 1"), fault.getMessage());
        db.rollback();
        assertEquals(old.id(), one("select key_id from sealed_secret"));
        assertEquals(2, Files.readAllLines(file).size(), "both keys stay");
    }

    private String one(String query) throws SQLException {
        try (Statement statement = db.createStatement();
                ResultSet row = statement.executeQuery(query)) {
            row.next();
            return row.getString(1);
        }
    }

    private void allOpenWith(SealKeys keys) throws SQLException, IOException {
        opens(keys, "sealed_secret", SealKeys.ofUnit(1, "password"));
        opens(keys, "fact", SealKeys.ofFact(1, "node 1", "controller-password"));
        opens(keys, "site_resource", SealKeys.ofEntry(1));
        opens(keys, "notice_target", SealKeys.ofNotice(1));
        JsonNode cell = new ObjectMapper()
                .readTree(one("select cells from sheet_change"))
                .path(0)
                .path("sealedBefore");
        SealKeys.Box box = new SealKeys.Box(
                cell.path("keyId").asText(),
                Base64.getDecoder().decode(cell.path("nonce").asText()),
                Base64.getDecoder().decode(cell.path("sealed").asText()));
        assertArrayEquals(WORDS, keys.open(SealKeys.ofFact(1, "node 1", "controller-password"), box));
    }

    private void opens(SealKeys keys, String table, String place) throws SQLException {
        try (Statement statement = db.createStatement();
                ResultSet row = statement.executeQuery(
                        "select key_id, nonce, sealed from " + table + " where sealed is not null")) {
            assertTrue(row.next());
            assertArrayEquals(
                    WORDS,
                    keys.open(place, new SealKeys.Box(row.getString(1), row.getBytes(2), row.getBytes(3))),
                    table);
        }
    }
}
