package lychnos.server.secrets;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Base64;
import lychnos.server.secrets.SealKeys.Box;

/**
 * Makes a new key and seals every password with it, in one transaction, while no server runs. The file has both keys
 * until that is done, so that a crash at any moment leaves passwords that can be opened; the next call goes on from
 * there.
 *
 * <p>From the environment: {@code QUARKUS_DATASOURCE_JDBC_URL}, {@code QUARKUS_DATASOURCE_USERNAME},
 * {@code QUARKUS_DATASOURCE_PASSWORD} and {@code LYCHNOS_SEAL_KEY_FILE}.
 */
public final class RotateMain {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final Connection db;
    private final SealKeys keys;
    private int done;

    private RotateMain(Connection db, SealKeys keys) {
        this.db = db;
        this.keys = keys;
    }

    public static void main(String[] args) throws IOException, SQLException {
        Path file = Path.of(System.getenv("LYCHNOS_SEAL_KEY_FILE"));
        try (Connection db = DriverManager.getConnection(
                System.getenv("QUARKUS_DATASOURCE_JDBC_URL"),
                System.getenv("QUARKUS_DATASOURCE_USERNAME"),
                System.getenv("QUARKUS_DATASOURCE_PASSWORD"))) {
            int done = rotate(db, file);
            System.out.println(done + (done == 1 ? " password is" : " passwords are") + " sealed with the new key "
                    + SealKeys.read(file).id() + ".");
        }
    }

    /** Gives how many boxes were sealed with the new key. */
    static int rotate(Connection db, Path file) throws IOException, SQLException {
        SealKeys keys = SealKeys.read(file);
        if (!keys.taking()) {
            keys = keys.withNew();
            keys.write(file);
        }
        db.setAutoCommit(false);
        RotateMain rotation = new RotateMain(db, keys);
        rotation.all();
        db.commit();
        keys.onlyNewest().write(file);
        return rotation.done;
    }

    private void all() throws SQLException, IOException {
        try (Statement statement = db.createStatement()) {
            statement.execute(
                    "lock table sealed_secret, fact, site_resource, notice_target, kind_adjustment, sheet_change, "
                            + "setup_piece in exclusive mode");
        }
        rows(
                "select id, unit_id, name, key_id, nonce, sealed from sealed_secret",
                "update sealed_secret set key_id = ?, nonce = ?, sealed = ? where id = ?",
                row -> SealKeys.ofUnit(row.getLong("unit_id"), row.getString("name")));
        rows(
                "select ctid::text as id, unit_id, member, name, key_id, nonce, sealed from fact where sealed is "
                        + "not null",
                "update fact set key_id = ?, nonce = ?, sealed = ? where ctid = cast(? as tid)",
                row -> SealKeys.ofFact(row.getLong("unit_id"), row.getString("member"), row.getString("name")));
        rows(
                "select ctid::text as id, dialogue_id, number, key_id, nonce, sealed from setup_piece",
                "update setup_piece set key_id = ?, nonce = ?, sealed = ? where ctid = cast(? as tid)",
                row -> SealKeys.ofSetupLog(row.getLong("dialogue_id"), row.getLong("number")));
        rows(
                "select id, key_id, nonce, sealed from site_resource where sealed is not null",
                "update site_resource set key_id = ?, nonce = ?, sealed = ? where id = ?",
                row -> SealKeys.ofEntry(row.getLong("id")));
        rows(
                "select id, key_id, nonce, sealed from notice_target where sealed is not null",
                "update notice_target set key_id = ?, nonce = ?, sealed = ? where id = ?",
                row -> SealKeys.ofNotice(row.getLong("id")));
        rows(
                "select id, kind_id, site_id, coalesce(bring_up_id, 0) as bring_up_id, what, key_id, nonce, "
                        + "sealed from "
                        + "kind_adjustment where sealed is not null",
                "update kind_adjustment set key_id = ?, nonce = ?, sealed = ? where id = ?",
                row -> SealKeys.ofAdjustment(
                        row.getString("kind_id"),
                        row.getLong("site_id"),
                        row.getLong("bring_up_id"),
                        row.getString("what")));
        sheetChanges();
        try (PreparedStatement journal =
                db.prepareStatement("insert into journal (actor, act) values ('command line', ?)")) {
            journal.setString(1, "rotated the key of sealed passwords: " + done + " sealed with key " + keys.id());
            journal.executeUpdate();
        }
    }

    /** What a row belongs to. */
    private interface Place {
        String of(ResultSet row) throws SQLException;
    }

    private void rows(String select, String update, Place place) throws SQLException {
        try (Statement statement = db.createStatement();
                ResultSet row = statement.executeQuery(select);
                PreparedStatement change = db.prepareStatement(update)) {
            while (row.next()) {
                Box box = keys.again(
                        place.of(row), new Box(row.getString("key_id"), row.getBytes("nonce"), row.getBytes("sealed")));
                change.setString(1, box.keyId());
                change.setBytes(2, box.nonce());
                change.setBytes(3, box.sealed());
                change.setObject(4, row.getObject("id"));
                change.executeUpdate();
                done++;
            }
        }
    }

    /** A change of the fact sheet holds what a secret was before and after, for undo. */
    private void sheetChanges() throws SQLException, IOException {
        try (Statement statement = db.createStatement();
                ResultSet row = statement.executeQuery(
                        "select id, cells::text as cells from sheet_change where cells::text like '%keyId%'");
                PreparedStatement change =
                        db.prepareStatement("update sheet_change set cells = cast(? as jsonb) where id = ?")) {
            while (row.next()) {
                JsonNode cells = JSON.readTree(row.getString("cells"));
                for (JsonNode cell : cells) {
                    String place = SealKeys.ofFact(
                            cell.path("unitId").asLong(),
                            cell.path("member").asText(),
                            cell.path("name").asText());
                    again(place, cell.path("sealedBefore"));
                    again(place, cell.path("sealedAfter"));
                }
                change.setString(1, JSON.writeValueAsString(cells));
                change.setLong(2, row.getLong("id"));
                change.executeUpdate();
            }
        }
    }

    private void again(String place, JsonNode sealed) {
        if (sealed instanceof ObjectNode object) {
            Box old = new Box(
                    object.path("keyId").asText(),
                    Base64.getDecoder().decode(object.path("nonce").asText()),
                    Base64.getDecoder().decode(object.path("sealed").asText()));
            Box box = keys.again(place, old);
            object.put("keyId", box.keyId());
            object.put("nonce", Base64.getEncoder().encodeToString(box.nonce()));
            object.put("sealed", Base64.getEncoder().encodeToString(box.sealed()));
            done++;
        }
    }
}
