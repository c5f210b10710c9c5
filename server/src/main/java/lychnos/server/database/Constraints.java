package lychnos.server.database;

import java.util.Optional;
import org.postgresql.util.PSQLException;
import org.postgresql.util.ServerErrorMessage;

/** Which constraint of the database a change has violated. */
public final class Constraints {

    private static final int DEEPEST = 20;

    private Constraints() {}

    /** The constraint's name as the server reports it (SQLSTATE class 23), also from within a batch. */
    public static Optional<String> violated(Throwable fault) {
        int depth = 0;
        for (Throwable each = fault; each != null && depth < DEEPEST; each = each.getCause(), depth++) {
            if (each instanceof PSQLException sql) {
                Optional<String> name =
                        Optional.ofNullable(sql.getServerErrorMessage()).map(ServerErrorMessage::getConstraint);
                if (name.isPresent()) {
                    return name;
                }
            }
        }
        return Optional.empty();
    }
}
