package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import lychnos.core.fact.Mac;
import lychnos.core.kind.Kind;
import lychnos.core.name.Hostname;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.kinds.Published;
import lychnos.server.live.Live;
import lychnos.server.site.BringUp;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Units of any kind: announced, and taken back while nothing was done for them. */
@ApplicationScoped
public class Units {

    private static final long NOBODY = 0;

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Journal journal;
    private final Live live;

    Units(Session db, BringUps bringUps, Kinds kinds, Journal journal, Live live) {
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.journal = journal;
        this.live = live;
    }

    /**
     * Units to be announced: so many of a kind, each with so many members; 0 members for as many as the kind has least.
     *
     * @param mac of the one unit that was found by it, before anybody has read its label; null for none
     */
    public record Announcement(String kind, int count, int members, @Nullable String mac) {}

    @Transactional
    public List<Long> announce(long bringUpId, Announcement request, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        Published published = kinds.newest(String.valueOf(request.kind()));
        Kind kind = kinds.adjusted(published.id(), published.version(), bringUpId);
        int members = request.members() == 0 ? kind.members().least() : request.members();
        if (!kind.members().counts().contains(members)) {
            throw Refusal.fields(List.of(new FieldFault(
                    "members",
                    PrepareText.HAS_OTHER_COUNTS_OF_MEMBERS.said(
                            kind.title(), kind.members().counts().toString().replaceAll("[\\[\\]]", "")))));
        }
        List<Unit> there = bringUps.units(bringUpId);
        if (request.count() < 1 || there.size() + request.count() > BringUps.MOST_UNITS) {
            throw Refusal.fields(List.of(new FieldFault(
                    "count", PrepareText.BRING_UP_HAS_1_TO_UNITS.said(BringUps.MOST_UNITS, there.size()))));
        }
        Mac mac = request.mac() == null ? null : readMac(request, kind);
        Set<String> names = namesOf(bringUp.site.id, NOBODY);
        int number = bringUps.nextNumber(bringUpId);
        List<Long> ids = new ArrayList<>();
        int counter = 1;
        for (int i = 0; i < request.count(); i++) {
            Unit unit = new Unit();
            unit.bringUpId = bringUpId;
            unit.number = number++;
            unit.kind = published.id();
            unit.kindVersion = published.version();
            unit.members = members;
            unit.model = "";
            unit.mac = mac;
            do {
                unit.name = kind.names()
                        .unit()
                        .name(
                                Map.of("site", bringUp.site.code, "kind", kind.shortName(), "rack", "", "u", ""),
                                counter++);
            } while (!names.add(unit.name));
            db.persist(unit);
            ids.add(unit.id);
        }
        db.flush();
        journal.write(person, bringUpId, null, PrepareText.ADDED_UNITS.text(request.count(), kind.title()), null, ids);
        live.tell(bringUpId, "prepare");
        return ids;
    }

    private Mac readMac(Announcement request, Kind kind) {
        Mac mac;
        try {
            mac = Mac.parse(request.mac());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault("mac", e.getMessage())));
        }
        if (request.count() != 1) {
            throw Refusal.fields(List.of(new FieldFault("count", PrepareText.MAC_ADDRESS_OF_ONE_UNIT.said(mac))));
        }
        if (kind.facts().stream().noneMatch(fact -> fact.name().equals("mac"))) {
            throw Refusal.fields(
                    List.of(new FieldFault("kind", PrepareText.IS_NOT_FOUND_BY_MAC_ADDRESS.said(kind.title()))));
        }
        db.createQuery("from Unit where mac = :mac", Unit.class)
                .setParameter("mac", mac)
                .getResultStream()
                .findFirst()
                .ifPresent(twin -> {
                    throw Refusal.fields(
                            List.of(new FieldFault("mac", PrepareText.IS_ALREADY_USED.said(mac, twin.label()))));
                });
        return mac;
    }

    /**
     * Gives one unit a host name that a person has typed, in place of the one by the pattern.
     *
     * @param name its own name, without a domain; the names of its addresses begin with it
     */
    @Transactional
    public void rename(long unitId, String name, Who.Person person) {
        Unit unit = bringUps.unit(unitId);
        BringUp bringUp = bringUps.get(unit.bringUpId);
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        db.refresh(unit);
        Kind kind = kinds.of(unit);
        String typed = name == null ? "" : name.strip().toLowerCase(Locale.ROOT);
        String fault = fault(typed, kind);
        if (fault == null && namesOf(bringUp.site.id, unit.id).contains(typed)) {
            fault = PrepareText.ANOTHER_UNIT_OF_THIS_SITE_HAS_THE_NAME.text(typed);
        }
        if (fault != null) {
            throw Refusal.fields(List.of(new FieldFault("name", fault)));
        }
        boolean placed = !db.createNativeQuery(
                        "select 1 from unit_address where unit_id = :id and live limit 1", Integer.class)
                .setParameter("id", unitId)
                .getResultList()
                .isEmpty();
        if (placed) {
            throw Refusal.conflict(PrepareText.HAS_ADDRESSES_UNDER_ITS_NAME.said(unit.label()));
        }
        String before = unit.label();
        unit.name = typed;
        db.flush();
        journal.write(
                person,
                unit.bringUpId,
                unitId,
                PrepareText.RENAMED_UNIT.text(before, typed),
                Map.of("name", before),
                Map.of("name", typed));
        live.tell(unit.bringUpId, "prepare");
    }

    private static String fault(String name, Kind kind) {
        try {
            Hostname.require(name);
        } catch (IllegalArgumentException e) {
            return e.getMessage();
        }
        return name.length() > kind.names().longest()
                ? PrepareText.TAKES_NAMES_OF_AT_MOST_CHARACTERS.text(
                        kind.title(), kind.names().longest(), name, name.length())
                : null;
    }

    /** The names that other units of a site have. */
    private Set<String> namesOf(long siteId, long exceptUnit) {
        return new HashSet<>(db.createNativeQuery(
                        "select u.name from unit u join bring_up b on b.id = u.bring_up_id where b.site_id = :site "
                                + "and u.name is not null and u.id <> :unit",
                        String.class)
                .setParameter("site", siteId)
                .setParameter("unit", exceptUnit)
                .getResultList());
    }

    /** Removes units that have no address and were never set up. */
    @Transactional
    public void withdraw(long unitId, Who.Person person) {
        Unit unit = bringUps.unit(unitId);
        boolean used = !db.createNativeQuery(
                        "select 1 from unit_address where unit_id = :id union all select 1 from unit_run where "
                                + "unit_id = :id union all select 1 from label_import_unit where unit_id = :id limit 1",
                        Integer.class)
                .setParameter("id", unitId)
                .getResultList()
                .isEmpty();
        if (used) {
            throw Refusal.conflict(PrepareText.HAS_HAD_AN_ADDRESS_OR_WAS_IMPORTED.said(unit.label()));
        }
        journal.write(person, unit.bringUpId, unitId, PrepareText.DELETED_UNIT.text(unit.label()), null, null);
        db.createNativeMutationQuery("delete from fact where unit_id = :id")
                .setParameter("id", unitId)
                .executeUpdate();
        db.remove(unit);
        live.tell(unit.bringUpId, "prepare");
    }
}
