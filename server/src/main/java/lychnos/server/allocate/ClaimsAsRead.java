package lychnos.server.allocate;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.server.database.RowsAsRead;
import lychnos.server.units.Unit;

/** Addresses for readers, of which those are not read again that were not written since. */
@ApplicationScoped
public class ClaimsAsRead {

    private final RowsAsRead rows;

    ClaimsAsRead(RowsAsRead rows) {
        this.rows = rows;
    }

    /** Live addresses of a bring-up, unit by unit in the order of their places. */
    public List<Claim> claims(long bringUpId) {
        return rows.read(new RowsAsRead.RowsWanted<>(
                "claims of " + bringUpId,
                bringUpId,
                Claim.class,
                claim -> claim.id,
                Comparator.comparing((Claim claim) -> claim.unitId).thenComparing(claim -> claim.place),
                "select c.id, c.xmin from claim c join unit u on u.id = c.unit_id where u.bring_up_id = ? and "
                        + "u.retired_at is null and c.released_at is null order by c.id",
                "select c from Claim c join Unit u on u.id = c.unitId where u.bringUpId = :id and c.releasedAt is null",
                "from Claim where id in :ids and releasedAt is null"));
    }

    /** Live addresses in a network, of any bring-up, by address. */
    public List<Claim> claimsIn(long networkId) {
        return rows.read(new RowsAsRead.RowsWanted<>(
                "claims in " + networkId,
                networkId,
                Claim.class,
                claim -> claim.id,
                Comparator.comparing(claim -> claim.address),
                "select id, xmin from claim where network_id = ? and released_at is null order by id",
                "from Claim where networkId = :id and releasedAt is null",
                "from Claim where id in :ids and releasedAt is null"));
    }

    /** By id, units that have an address in a network. */
    public Map<Long, Unit> unitsIn(long networkId) {
        Map<Long, Unit> units = new HashMap<>();
        rows.read(new RowsAsRead.RowsWanted<>(
                        "units in " + networkId,
                        networkId,
                        Unit.class,
                        unit -> unit.id,
                        Comparator.comparing(unit -> unit.id),
                        "select id, xmin from unit where retired_at is null and id in (select unit_id from claim "
                                + "where network_id = ? and released_at is null) order by id",
                        "from Unit where id in (select c.unitId from Claim c where c.networkId = :id and "
                                + "c.releasedAt is null)",
                        "from Unit where id in :ids"))
                .forEach(unit -> units.put(unit.id, unit));
        return units;
    }
}
