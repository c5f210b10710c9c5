package lychnos.server.doctor;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.stream.Collectors;
import lychnos.server.database.TestDatabase;
import lychnos.server.text.DoctorText;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A database of its own: of an earlier version, of this one, and with a clock that is wrong. */
class DatabaseExamTest {

    private TestDatabase database;
    private Connection db;

    @BeforeEach
    void makeDatabase() throws SQLException {
        database = new TestDatabase("doctor");
        db = database.connection();
    }

    @AfterEach
    void dropDatabase() throws SQLException {
        database.close();
    }

    private List<DoctorLine> lines(Clock clock) throws SQLException {
        return new DatabaseExam(db, database.flyway().info(), db.getMetaData().getUserName(), false, clock).lines();
    }

    private static String codes(List<DoctorLine> lines, DoctorState state) {
        return lines.stream()
                .filter(line -> line.state() == state)
                .map(DoctorLine::code)
                .sorted()
                .collect(Collectors.joining(" "));
    }

    @Test
    void anEarlierVersionIsToldAndSoIsARoleThatMayTooMuch() throws SQLException {
        database.migrate("20");
        List<DoctorLine> lines = lines(Clock.systemUTC());
        assertEquals(DoctorText.DATABASE_PENDING + " " + DoctorText.ROLE_MAY_TOO_MUCH, codes(lines, DoctorState.BAD));
        assertEquals(
                DoctorText.DATABASE_CLOCK_AGREES + " " + DoctorText.DATABASE_HOLDS, codes(lines, DoctorState.GOOD));
        lines.stream()
                .filter(line -> line.state() == DoctorState.BAD)
                .forEach(line -> assertNotNull(line.advice(), line::toString));
    }

    @Test
    void theNewestVersionIsGoodAndADifferentClockIsNot() throws SQLException {
        database.migrate("latest");
        List<DoctorLine> lines = lines(Clock.offset(Clock.systemUTC(), Duration.ofMinutes(-3)));
        assertEquals(
                DoctorText.DATABASE_CLOCK_DIFFERS + " " + DoctorText.ROLE_MAY_TOO_MUCH, codes(lines, DoctorState.BAD));
        assertEquals(
                DoctorText.DATABASE_HOLDS + " " + DoctorText.DATABASE_IS_OF_THIS_VERSION,
                codes(lines, DoctorState.GOOD));
    }

    @Test
    void anOldDatabaseIsNotGoodEnough() {
        assertEquals(
                DoctorState.BAD,
                DatabaseExam.version(13, "13.4 (Debian)", 1_000_000).state());
        assertEquals(
                DoctorState.GOOD,
                DatabaseExam.version(15, "15.9 (Debian)", 9_000_000).state());
    }
}
