package lychnos.server.database;

import java.util.UUID;

/** Which of several servers on one database this one is. */
public final class ThisServer {

    /** Anew with every start: what an earlier life of this server held is not its own any more. */
    public static final String ID = UUID.randomUUID().toString();

    /**
     * A condition on rows of {@code run}: nothing of the unit's is reached through a vantage that has dialled in to
     * another server.
     * That one carries the work out; from here there is no way.
     */
    public static final String REACHES =
            "not exists (select 1 from claim reached join network n on n.id = reached.network_id join vantage v on "
                    + "v.id = n.vantage_id"
                    + " where reached.unit_id = run.unit_id and reached.released_at is null and v.revoked_at is null "
                    + "and v.linked_to <> '"
                    + ID + "' and v.linked_until > now())";

    private ThisServer() {}
}
