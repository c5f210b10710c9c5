package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.Comparator;
import java.util.List;
import lychnos.server.database.RowsAsRead;

/** Units for readers, of which those are not read again that were not written since. */
@ApplicationScoped
public class UnitsAsRead {

    private final RowsAsRead rows;

    UnitsAsRead(RowsAsRead rows) {
        this.rows = rows;
    }

    /** Units of a bring-up that are in use, by their numbers. */
    public List<Unit> units(long bringUpId) {
        return rows.read(new RowsAsRead.RowsWanted<>(
                "units of " + bringUpId,
                bringUpId,
                Unit.class,
                unit -> unit.id,
                Comparator.comparing(unit -> unit.number),
                "select id, xmin from unit where bring_up_id = ? and retired_at is null order by id",
                "from Unit where bringUpId = :id",
                "from Unit where id in :ids"));
    }
}
