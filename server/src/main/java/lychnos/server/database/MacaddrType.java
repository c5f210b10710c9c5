package lychnos.server.database;

import lychnos.core.fact.Mac;

/** {@code macaddr} in the database. */
public final class MacaddrType extends PgText<Mac> {

    public MacaddrType() {
        super(Mac.class, "macaddr", Mac::parse);
    }
}
