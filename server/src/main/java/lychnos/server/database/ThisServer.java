package lychnos.server.database;

import java.util.UUID;

/** Which of several servers on one database this one is. */
public final class ThisServer {

    /** New at every start: what was held before the last start is held no longer. */
    public static final String ID = UUID.randomUUID().toString();

    private ThisServer() {}
}
