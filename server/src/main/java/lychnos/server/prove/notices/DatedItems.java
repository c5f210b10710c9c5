package lychnos.server.prove.notices;

import jakarta.enterprise.context.ApplicationScoped;
import java.sql.Date;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.hibernate.Session;

/**
 * Open items whose day comes near, such as the end of a temporary licence: told two weeks, three days and one day
 * before.
 */
@ApplicationScoped
public class DatedItems {

    /** Days before the day of an item, farthest first. */
    private static final List<Integer> BEFORE = List.of(14, 3, 1);

    private final Session db;
    private final Clock clock;

    DatedItems(Session db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /**
     * An open item.
     *
     * @param unit its name; empty where it is about none
     * @param days from today to its day; negative once it has passed
     */
    public record DatedItem(long id, String unit, String text, LocalDate due, long days) {}

    /** Items whose day is near. Needs a transaction. */
    public List<DatedItem> near(long bringUpId) {
        LocalDate today = today();
        List<DatedItem> items = new ArrayList<>();
        for (Object[] row : db.createNativeQuery(
                        "select d.id, coalesce(l.label, ''), d.text, d.due from dated_item d left join unit_label l on "
                                + "l.id = d.unit_id where d.bring_up_id = :id and d.due <= :last order by d.due, d.id",
                        Object[].class)
                .setParameter("id", bringUpId)
                .setParameter("last", today.plusDays(BEFORE.get(0)))
                .getResultList()) {
            LocalDate due = row[3] instanceof Date date ? date.toLocalDate() : (LocalDate) row[3];
            items.add(new DatedItem(
                    ((Number) row[0]).longValue(),
                    (String) row[1],
                    (String) row[2],
                    due,
                    due.toEpochDay() - today.toEpochDay()));
        }
        return items;
    }

    /** Those that a target was not told of since the last of the days before came. */
    List<DatedItem> toTell(long targetId, long bringUpId) {
        return near(bringUpId).stream()
                .filter(item -> db.createNativeQuery(
                                        "select count(*) from told_item where target_id = :target and item_id = :item "
                                                + "and days_before <= :days",
                                        Long.class)
                                .setParameter("target", targetId)
                                .setParameter("item", item.id)
                                .setParameter("days", step(item.days))
                                .getSingleResult()
                        == 0)
                .toList();
    }

    /** Notes what a target was told of. */
    void told(long targetId, List<DatedItem> items) {
        items.forEach(item -> db.createNativeMutationQuery("insert into told_item (target_id, item_id, days_before) "
                        + "values (:target, :item, :days) on conflict do nothing")
                .setParameter("target", targetId)
                .setParameter("item", item.id)
                .setParameter("days", step(item.days))
                .executeUpdate());
    }

    /** Which of the days before has come. */
    static int step(long days) {
        return BEFORE.stream()
                .filter(before -> days <= before)
                .reduce((far, near) -> near)
                .orElse(BEFORE.get(0));
    }

    private LocalDate today() {
        return LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC);
    }
}
