package lychnos.server.allocate;

import jakarta.enterprise.context.ApplicationScoped;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.place.FreeSpace;
import lychnos.server.database.RowsAsRead;
import lychnos.server.site.AddressRange;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.text.AllocateText;
import lychnos.server.units.UnitsAsRead;
import org.hibernate.Session;

/** What may be allocated in a network now, and what is allocated there already. */
@ApplicationScoped
public class FreeAddresses {

    private final Session db;
    private final RowsAsRead rows;
    private final UnitsAsRead units;
    private final ClaimsAsRead claims;
    private final NetworkDefinitions networkDefinitions;
    private final Clock clock;

    FreeAddresses(
            Session db,
            RowsAsRead rows,
            UnitsAsRead units,
            ClaimsAsRead claims,
            NetworkDefinitions networkDefinitions,
            Clock clock) {
        this.db = db;
        this.rows = rows;
        this.units = units;
        this.claims = claims;
        this.networkDefinitions = networkDefinitions;
        this.clock = clock;
    }

    private static List<AddressRun> runs(List<AddressRange> ranges, boolean pools) {
        return ranges.stream()
                .filter(range -> range.purpose.equals(AddressRange.POOL) == pools)
                .map(AddressRange::run)
                .toList();
    }

    /** What may be allocated now. */
    public FreeSpace in(Network network) {
        List<AddressRange> ranges = networkDefinitions.ranges(network.id);
        List<Address> taken = new ArrayList<>(
                rows.suffice()
                        ? claims.claimsIn(network.id).stream()
                                .map(claim -> claim.address)
                                .toList()
                        : db.createQuery(
                                        "select c.address from Claim c where c.networkId = :id and c.releasedAt "
                                                + "is null",
                                        Address.class)
                                .setParameter("id", network.id)
                                .getResultList());
        taken.addAll(
                db.createQuery("select s.key.address from UnknownDevice s where s.key.networkId = :id", Address.class)
                        .setParameter("id", network.id)
                        .getResultList());
        return new FreeSpace(
                network.purpose,
                network.prefix,
                network.gateway,
                runs(ranges, true),
                runs(ranges, false),
                taken,
                cooling(network.id));
    }

    /** How many addresses may be allocated now. */
    public long count(Network network) {
        return rows.suffice()
                ? rows.once(
                        AllocateText.FREE.text(network.id), () -> in(network).freeSize())
                : in(network).freeSize();
    }

    /** Every address of these networks that is allocated. */
    public Set<Address> allocated(List<Network> networks) {
        return new HashSet<>(db.createQuery(
                        "select c.address from Claim c where c.networkId in :networks and c.releasedAt is null",
                        Address.class)
                .setParameter(
                        "networks", networks.stream().map(network -> network.id).toList())
                .getResultList());
    }

    /** Addresses that were released a short while ago. */
    public List<Address> cooling(long networkId) {
        return db.createQuery(
                        "select c.address from Claim c where c.networkId = :id and c.coolsUntil > :now", Address.class)
                .setParameter("id", networkId)
                .setParameter("now", clock.instant())
                .getResultList();
    }

    /** How many units of a bring-up have no address yet. */
    public long unitsWithout(long bringUpId) {
        if (rows.suffice()) {
            Set<Long> placed =
                    claims.claims(bringUpId).stream().map(claim -> claim.unitId).collect(Collectors.toSet());
            return units.units(bringUpId).stream()
                    .filter(unit -> !placed.contains(unit.id))
                    .count();
        }
        return db.createQuery(
                        "select count(*) from Unit u where u.bringUpId = :id and not exists (select 1 from Claim c "
                                + "where c.unitId = u.id and c.releasedAt is null)",
                        Long.class)
                .setParameter("id", bringUpId)
                .getSingleResult();
    }
}
