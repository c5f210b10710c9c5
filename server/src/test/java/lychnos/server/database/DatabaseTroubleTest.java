package lychnos.server.database;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.EOFException;
import java.sql.SQLException;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DatabaseTroubleTest {

    @ParameterizedTest
    @CsvSource({
        "08001, the connection attempt failed, AWAY",
        "08006, an I/O error occurred, AWAY",
        "57P01, terminating connection due to administrator command, AWAY",
        "57P03, the database system is starting up, AWAY",
        "53300, sorry, AWAY",
        "53100, could not extend file, FULL",
        "23505, duplicate key value violates unique constraint,",
        "22P02, invalid input syntax for type inet,",
        "40001, could not serialize access,",
        "25P02, current transaction is aborted,"
    })
    void isToldByItsState(String state, String message, DatabaseTrouble trouble) {
        assertEquals(Optional.ofNullable(trouble), DatabaseTrouble.of(new SQLException(message, state)));
    }

    @Test
    void whatThePoolSaysHasNoState() {
        assertEquals(
                Optional.of(DatabaseTrouble.AWAY), DatabaseTrouble.of(new SQLException("Sorry, acquisition timeout!")));
        assertEquals(
                Optional.of(DatabaseTrouble.AWAY),
                DatabaseTrouble.of(new SQLException("This connection has been closed.")));
        assertEquals(Optional.empty(), DatabaseTrouble.of(new SQLException("The column index is out of range")));
    }

    @Test
    void isFoundHoweverDeepItLies() {
        Throwable deep = new SQLException("an I/O error occurred", "08006", new EOFException());
        for (int i = 0; i < 6; i++) {
            deep = new IllegalStateException("wrapped " + i, deep);
        }
        assertEquals(Optional.of(DatabaseTrouble.AWAY), DatabaseTrouble.of(deep));
    }

    @Test
    void aFaultOfOursIsNone() {
        assertEquals(Optional.empty(), DatabaseTrouble.of(new IllegalStateException("the stream is closed")));
        assertEquals(Optional.empty(), DatabaseTrouble.of(null));
    }

    @Test
    void causesThatGoInACircleEnd() {
        Exception first = new Exception("first");
        Exception second = new Exception("second", first);
        first.initCause(second);
        assertEquals(Optional.empty(), DatabaseTrouble.of(first));
    }
}
