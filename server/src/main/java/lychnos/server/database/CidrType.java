package lychnos.server.database;

import lychnos.core.address.Prefix;

/** {@code cidr} in the database. */
public final class CidrType extends PgText<Prefix> {

    public CidrType() {
        super(Prefix.class, "cidr", Prefix::parse);
    }
}
