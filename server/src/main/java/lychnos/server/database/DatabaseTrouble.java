package lychnos.server.database;

import java.sql.SQLException;
import java.util.Optional;

/** Tells troubles of the database itself, which pass, from faults of ours (PostgreSQL, appendix A, error codes). */
public enum DatabaseTrouble {
    /** It cannot be reached, is going down, or comes up. */
    AWAY,
    /** Its disk is full. */
    FULL;

    /** The attribute of the security identity of somebody of whom the database does not tell now who it is. */
    public static final String ATTRIBUTE = "database trouble";

    private static final int DEEPEST = 20;

    /** What the database has to do with a fault; empty where it has nothing. */
    public static Optional<DatabaseTrouble> of(Throwable fault) {
        int depth = 0;
        for (Throwable each = fault; each != null && depth < DEEPEST; each = each.getCause(), depth++) {
            if (each instanceof SQLException sql) {
                Optional<DatabaseTrouble> trouble =
                        ofState(sql.getSQLState() == null ? "" : sql.getSQLState(), String.valueOf(sql.getMessage()));
                if (trouble.isPresent()) {
                    return trouble;
                }
            }
        }
        return Optional.empty();
    }

    private static Optional<DatabaseTrouble> ofState(String state, String message) {
        if (state.equals("53100")) {
            return Optional.of(FULL);
        }
        // the pool tells without a state that it has waited long enough for a connection, or that one was closed under
        // it
        boolean pool = state.isEmpty() && (message.contains("timeout") || message.contains("closed"));
        return pool || state.startsWith("08") || state.startsWith("57P") || state.equals("53300")
                ? Optional.of(AWAY)
                : Optional.empty();
    }
}
