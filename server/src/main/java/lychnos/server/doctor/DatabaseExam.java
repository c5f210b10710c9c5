package lychnos.server.doctor;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import lychnos.server.text.DoctorText;
import org.flywaydb.core.api.MigrationInfoService;

/** Whether the database is of this version, agrees about the time, and binds the server's role. */
final class DatabaseExam {

    private static final int LEAST_VERSION = 15;
    private static final int PARTS_OF_VERSION = 10_000;
    private static final long MEGABYTE = 1024 * 1024;
    private static final Duration APART = Duration.ofSeconds(2);

    private final Connection db;
    private final MigrationInfoService migrations;
    private final String role;
    private final boolean lab;
    private final Clock clock;

    /**
     * @param role of the server
     * @param lab whether this is a lab, whose server owns its database
     */
    DatabaseExam(Connection db, MigrationInfoService migrations, String role, boolean lab, Clock clock) {
        this.db = db;
        this.migrations = migrations;
        this.role = role;
        this.lab = lab;
        this.clock = clock;
    }

    List<DoctorLine> lines() throws SQLException {
        List<DoctorLine> lines = new ArrayList<>();
        lines.add(version());
        lines.add(tables(migrations.pending().length));
        lines.add(time());
        if (!lab) {
            lines.add(role());
        }
        return lines;
    }

    private DoctorLine version() throws SQLException {
        try (PreparedStatement asked = db.prepareStatement("select current_setting('server_version_num')::int, "
                        + "current_setting('server_version'), pg_database_size(current_database())");
                ResultSet row = asked.executeQuery()) {
            row.next();
            return version(row.getInt(1) / PARTS_OF_VERSION, row.getString(2), row.getLong(3));
        }
    }

    static DoctorLine version(int version, String shown, long bytes) {
        String plain = shown.replaceAll(" .*", "");
        return version < LEAST_VERSION
                ? DoctorLine.bad(DoctorText.DATABASE_IS_OLD, plain, LEAST_VERSION)
                        .advised(DoctorText.UPGRADE_DATABASE)
                : DoctorLine.good(DoctorText.DATABASE_HOLDS, plain, bytes / MEGABYTE);
    }

    private DoctorLine tables(int pending) {
        return pending == 0
                ? DoctorLine.good(
                        DoctorText.DATABASE_IS_OF_THIS_VERSION,
                        "V" + migrations.current().getVersion())
                : DoctorLine.bad(DoctorText.DATABASE_PENDING, pending).advised(DoctorText.MIGRATE);
    }

    private DoctorLine time() throws SQLException {
        try (PreparedStatement asked = db.prepareStatement("select clock_timestamp()");
                ResultSet row = asked.executeQuery()) {
            row.next();
            return time(Duration.between(
                            clock.instant(),
                            row.getObject(1, OffsetDateTime.class).toInstant())
                    .abs());
        }
    }

    static DoctorLine time(Duration apart) {
        return apart.compareTo(APART) > 0
                ? DoctorLine.bad(DoctorText.DATABASE_CLOCK_DIFFERS, apart.toSeconds())
                        .advised(DoctorText.CLOCK_SYNCHRONISE)
                : DoctorLine.good(DoctorText.DATABASE_CLOCK_AGREES);
    }

    private DoctorLine role() throws SQLException {
        try (PreparedStatement asked = db.prepareStatement("select has_table_privilege(?, 'journal', 'UPDATE')")) {
            asked.setString(1, role);
            try (ResultSet row = asked.executeQuery()) {
                row.next();
                return row.getBoolean(1)
                        ? DoctorLine.bad(DoctorText.ROLE_MAY_TOO_MUCH, role).advised(DoctorText.ROLE_GIVE_LESS)
                        : DoctorLine.good(DoctorText.ROLE_IS_BOUND);
            }
        }
    }
}
