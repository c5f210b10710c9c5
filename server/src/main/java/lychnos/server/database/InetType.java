package lychnos.server.database;

import lychnos.core.address.Address;

/** {@code inet} in the database. */
public final class InetType extends PgText<Address> {

    public InetType() {
        super(Address.class, "inet", Address::parse);
    }
}
