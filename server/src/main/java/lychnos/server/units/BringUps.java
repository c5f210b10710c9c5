package lychnos.server.units;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.fact.RackPosition;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.RowsAsRead;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.kinds.Published;
import lychnos.server.site.BringUp;
import lychnos.server.site.Site;
import lychnos.server.site.Sites;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;
import org.hibernate.exception.ConstraintViolationException;

/** Batches of units: found, listed, begun. */
@ApplicationScoped
public class BringUps {

    /** The most units of one bring-up. */
    static final int MOST_UNITS = 5000;

    private final Session db;
    private final Sites sites;
    private final RowsAsRead rows;
    private final UnitsAsRead read;
    private final Journal journal;
    private final Kinds kinds;

    BringUps(Session db, Sites sites, RowsAsRead rows, UnitsAsRead read, Journal journal, Kinds kinds) {
        this.db = db;
        this.sites = sites;
        this.rows = rows;
        this.read = read;
        this.journal = journal;
        this.kinds = kinds;
    }

    /**
     * A bring-up to begin.
     *
     * @param siteCode the site's short word, used in host names; the site is made where it is new
     * @param positions where units are expected, such as {@code R1 u1}
     */
    public record BringUpWanted(String name, String siteCode, String siteName, LocalDate due, List<String> positions) {}

    /** How many units a bring-up has, and how many of them are signed. */
    public record BringUpSize(long units, long signed) {

        public static final BringUpSize EMPTY = new BringUpSize(0, 0);
    }

    /** By bring-up, how large it is; one without units is not among them. */
    public Map<Long, BringUpSize> sizes() {
        return db.createNativeQuery(
                        "select u.bring_up_id, count(*), count(s.unit_id) from unit u left join signed_unit s on "
                                + "s.unit_id = u.id where u.retired_at is null group by u.bring_up_id",
                        Object[].class)
                .getResultStream()
                .collect(Collectors.toMap(row -> (Long) row[0], row -> new BringUpSize((Long) row[1], (Long) row[2])));
    }

    public List<BringUp> all() {
        return sites.bringUps();
    }

    /** @throws Refusal if there is none */
    public BringUp get(long id) {
        return sites.bringUp(id);
    }

    /** What people call a bring-up, and the site that it is at. */
    public record BringUpName(String name, String site) {}

    @Transactional
    public BringUpName named(long id) {
        BringUp bringUp = get(id);
        return new BringUpName(bringUp.name, bringUp.site.name);
    }

    public List<Unit> units(long bringUpId) {
        if (rows.suffice()) {
            return read.units(bringUpId);
        }
        return db.createQuery("from Unit where bringUpId = :id order by number", Unit.class)
                .setParameter("id", bringUpId)
                .getResultList();
    }

    /** The number of the next unit; that of a retired one is not given again. */
    int nextNumber(long bringUpId) {
        return db.createNativeQuery(
                        "select coalesce(max(number), 0) + 1 from unit where bring_up_id = :id", Integer.class)
                .setParameter("id", bringUpId)
                .getSingleResult();
    }

    /** @throws Refusal if there is none */
    public Unit unit(long id) {
        Unit unit = db.find(Unit.class, id);
        if (unit == null) {
            throw Refusal.notFound(PrepareText.NO_SUCH_UNIT.said());
        }
        return unit;
    }

    @Transactional
    public BringUp begin(BringUpWanted request, Who.Person person) {
        if (request.name() == null
                || request.name().isBlank()
                || request.name().length() > 80
                || request.name().chars().anyMatch(Character::isISOControl)) {
            throw Refusal.fields(
                    List.of(new Refusal.FieldFault("name", PrepareText.NAME_HAS_1_TO_80_CHARACTERS.said())));
        }
        if (request.siteCode() == null || !request.siteCode().matches("[a-z][a-z0-9]{1,11}")) {
            throw Refusal.fields(List.of(
                    new Refusal.FieldFault("siteCode", PrepareText.SITE_PREFIX_HAS_2_TO_12_LOWERCASE_LETTERS.said())));
        }
        if (request.siteName() != null
                && (request.siteName().length() > 80
                        || request.siteName().chars().anyMatch(Character::isISOControl))) {
            throw Refusal.fields(List.of(
                    new Refusal.FieldFault("siteName", PrepareText.SITE_NAME_HAS_AT_MOST_80_CHARACTERS.said())));
        }
        List<RackPosition> positions = positions(request.positions() == null ? List.of() : request.positions());
        Site site = sites.site(request.siteCode(), request.siteName());
        BringUp bringUp = new BringUp();
        bringUp.site = site;
        bringUp.realmId = sites.realm(site.id, Sites.REALM);
        bringUp.name = request.name().strip();
        Published usual = kinds.usual();
        bringUp.kind = usual.id();
        bringUp.due = request.due();
        bringUp.namePattern = usual.kind().names().unit().toString();
        try {
            db.persist(bringUp);
            db.flush();
        } catch (ConstraintViolationException e) {
            throw Refusal.conflict(PrepareText.ALREADY_A_BRING_UP_WITH_THIS_NAME.said());
        }
        for (int i = 0; i < positions.size(); i++) {
            Unit unit = new Unit();
            unit.kind = usual.id();
            unit.kindVersion = usual.version();
            unit.bringUpId = bringUp.id;
            unit.number = i + 1;
            unit.rack = positions.get(i).rack();
            unit.rackUnit = positions.get(i).unit();
            unit.model = "";
            db.persist(unit);
        }
        journal.write(
                person,
                bringUp.id,
                null,
                PrepareText.CREATED_BRING_UP_WITH_UNITS_EXPECTED.text(bringUp.name, positions.size()),
                null,
                request);
        return bringUp;
    }

    private static List<RackPosition> positions(List<String> texts) {
        if (texts.size() > MOST_UNITS) {
            throw Refusal.fields(
                    List.of(new Refusal.FieldFault("positions", PrepareText.AT_MOST_UNITS.said(MOST_UNITS))));
        }
        List<RackPosition> positions = new ArrayList<>();
        Set<RackPosition> seen = new HashSet<>();
        for (String text : texts) {
            try {
                RackPosition position = RackPosition.parse(text);
                if (!seen.add(position)) {
                    throw new IllegalArgumentException(PrepareText.IS_THERE_TWICE.text(position));
                }
                positions.add(position);
            } catch (IllegalArgumentException e) {
                throw Refusal.fields(List.of(new Refusal.FieldFault("positions", e.getMessage())));
            }
        }
        positions.sort(null);
        return positions;
    }
}
