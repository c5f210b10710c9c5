package lychnos.server.allocate;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import lychnos.server.LychnosConfig;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.text.AllocateText;
import lychnos.server.units.BringUps;
import lychnos.server.units.SignedUnits;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** Gives addresses back: an allocation is undone, a unit released or taken out of use. */
@ApplicationScoped
public class Releases {

    private final Session db;
    private final BringUps bringUps;
    private final Names names;
    private final NetworkDefinitions networks;
    private final SignedUnits signedUnits;
    private final Journal journal;
    private final Live live;
    private final LychnosConfig config;
    private final Clock clock;

    Releases(
            Session db,
            BringUps bringUps,
            Names names,
            NetworkDefinitions networks,
            SignedUnits signedUnits,
            Journal journal,
            Live live,
            LychnosConfig config,
            Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.names = names;
        this.networks = networks;
        this.signedUnits = signedUnits;
        this.journal = journal;
        this.live = live;
        this.config = config;
        this.clock = clock;
    }

    /** Undoes an allocation, as long as no machine has its address. Once records were pushed it is a release. */
    @Transactional
    public void undo(long bringUpId, UUID allocation, Who.Person person) {
        List<Claim> claims = db.createQuery(
                        "select c from Claim c join Unit u on u.id = c.unitId where c.allocation = :allocation and "
                                + "c.releasedAt is null and u.bringUpId = :bringUp",
                        Claim.class)
                .setParameter("allocation", allocation)
                .setParameter("bringUp", bringUpId)
                .getResultList();
        if (claims.isEmpty()) {
            throw Refusal.conflict(AllocateText.THAT_ALLOCATION_HAS_ALREADY_BEEN_UNDONE.said());
        }
        signedUnits.refuse(claims.stream().map(claim -> claim.unitId).distinct().toList());
        refuseTold(claims, AllocateText.MACHINE_OF_THIS_ALLOCATION_HAS_ITS_ADDRESS.text());
        letGo(claims, names.pushed(claims));
        journal.write(
                person,
                bringUpId,
                null,
                AllocateText.UNDID_THE_ALLOCATION_OF_ADDRESSES.text(claims.size()),
                null,
                null);
        live.tell(bringUpId, "allocate");
    }

    /** Releases the addresses of a unit; they are held back for a while before they can be allocated again. */
    @Transactional
    public void release(long unitId, Who.Person person) {
        Unit unit = bringUps.unit(unitId);
        List<Claim> claims = db.createQuery("from Claim where unitId = :unit and releasedAt is null", Claim.class)
                .setParameter("unit", unitId)
                .getResultList();
        if (claims.isEmpty()) {
            throw Refusal.conflict(AllocateText.HAS_NO_ADDRESS.said(unit.label()));
        }
        signedUnits.refuse(List.of(unitId));
        refuseTold(claims, AllocateText.HAS_ITS_ADDRESS.text(unit.label()));
        letGo(claims, true);
        journal.write(person, unit.bringUpId, unitId, AllocateText.RELEASED_ADDRESSES.text(claims.size()), null, null);
        live.tell(unit.bringUpId, "allocate");
    }

    /**
     * Gives back everything that a unit had that goes out of use, whatever was told of it; gives how many addresses.
     */
    @Transactional(Transactional.TxType.MANDATORY)
    public int giveUp(Unit unit) {
        List<Claim> claims = db.createQuery("from Claim where unitId = :unit and releasedAt is null", Claim.class)
                .setParameter("unit", unit.id)
                .getResultList();
        if (!claims.isEmpty()) {
            letGo(claims, true);
        }
        return claims.size();
    }

    private void refuseTold(List<Claim> claims, String why) {
        List<Long> units = claims.stream().map(claim -> claim.unitId).distinct().toList();
        boolean told = !db.createNativeQuery(
                        "select 1 from unit_run where purpose = 'configure' and unit_id in :units limit 1",
                        Integer.class)
                .setParameter("units", units)
                .getResultList()
                .isEmpty();
        if (told) {
            throw Refusal.conflict(why);
        }
    }

    private void letGo(List<Claim> claims, boolean cool) {
        Instant now = clock.instant();
        names.withdraw(claims);
        for (Claim claim : claims) {
            claim.releasedAt = now;
            claim.coolsUntil = cool ? now.plus(config.coolOff()) : null;
        }
        networks.giveBack(
                claims.stream().map(claim -> claim.allocation).distinct().toList(),
                claims.stream().map(claim -> claim.unitId).distinct().toList());
        db.flush();
    }
}
