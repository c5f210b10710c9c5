package lychnos.server.prove.notices;

import com.fasterxml.jackson.annotation.JsonIgnore;
import jakarta.enterprise.context.ApplicationScoped;
import java.sql.Date;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import lychnos.server.text.NoticeText;
import org.hibernate.Session;

/**
 * What has a day that comes near: open items, such as the end of a temporary licence, certificates and requests to other
 * teams. Told two weeks,
 * three days and one day before.
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

    /** What an item is about. */
    public enum DaySort {
        OPEN_ITEM,
        /** Certificates that end on the same day. */
        CERTIFICATE,
        /** What another team was asked for, or is to be. */
        REQUEST
    }

    /**
     * Something with a day.
     *
     * @param subject names it for {@code told_day}
     * @param unit its name; empty where it is about none, or about several
     * @param days from today to its day; negative once it has passed
     */
    public record DatedItem(
            DaySort sort, @JsonIgnore String subject, String unit, String text, LocalDate due, long days) {}

    /** Items whose day is near, the nearest first. Needs a transaction. */
    public List<DatedItem> near(long bringUpId) {
        List<DatedItem> items = openItems(bringUpId);
        items.addAll(certificates(bringUpId));
        items.addAll(requests(bringUpId));
        items.sort(Comparator.comparing(DatedItem::due));
        return items;
    }

    private List<DatedItem> openItems(long bringUpId) {
        LocalDate today = today();
        List<DatedItem> items = new ArrayList<>();
        for (Object[] row : db.createNativeQuery(
                        "select d.id, coalesce(l.label, ''), d.text, d.due from dated_item d left join unit_label l on "
                                + "l.id = d.unit_id where d.bring_up_id = :id and d.due <= :last order by d.due, d.id",
                        Object[].class)
                .setParameter("id", bringUpId)
                .setParameter("last", today.plusDays(BEFORE.get(0)))
                .getResultList()) {
            LocalDate due = day(row[3]);
            items.add(new DatedItem(
                    DaySort.OPEN_ITEM,
                    "item " + row[0],
                    (String) row[1],
                    (String) row[2],
                    due,
                    due.toEpochDay() - today.toEpochDay()));
        }
        return items;
    }

    private List<DatedItem> requests(long bringUpId) {
        LocalDate today = today();
        return db.createNativeQuery(
                        "select id, title, person, due from due_request where bring_up_id = :id and due <= :last "
                                + "order by due, id",
                        Object[].class)
                .setParameter("id", bringUpId)
                .setParameter("last", today.plusDays(BEFORE.get(0)))
                .getResultStream()
                .map(row -> {
                    LocalDate due = day(row[3]);
                    String person = (String) row[2];
                    return new DatedItem(
                            DaySort.REQUEST,
                            "request " + row[0],
                            "",
                            person.isEmpty()
                                    ? NoticeText.REQUEST.text(row[1])
                                    : NoticeText.REQUEST_BY.text(row[1], person),
                            due,
                            due.toEpochDay() - today.toEpochDay());
                })
                .toList();
    }

    /** A certificate that has ended is a fault of its endpoint, and shown there. */
    private List<DatedItem> certificates(long bringUpId) {
        LocalDate today = today();
        return db.createNativeQuery(
                        "select p.certificate_ends, count(*), min(c.host_name) from proof p join claim c on c.id = "
                                + "p.claim_id and c.released_at is null join unit u on u.id = p.unit_id and "
                                + "u.retired_at is null where u.bring_up_id = :id and p.certificate_ends between "
                                + ":today and :last group by p.certificate_ends",
                        Object[].class)
                .setParameter("id", bringUpId)
                .setParameter("today", today)
                .setParameter("last", today.plusDays(BEFORE.get(0)))
                .getResultStream()
                .map(row -> {
                    LocalDate ends = day(row[0]);
                    long others = ((Number) row[1]).longValue() - 1;
                    return new DatedItem(
                            DaySort.CERTIFICATE,
                            "certificates " + ends,
                            "",
                            others == 0
                                    ? NoticeText.CERTIFICATE_ENDS.text(row[2])
                                    : NoticeText.CERTIFICATES_END.text(row[2], others),
                            ends,
                            ends.toEpochDay() - today.toEpochDay());
                })
                .toList();
    }

    private static LocalDate day(Object column) {
        return column instanceof Date date ? date.toLocalDate() : (LocalDate) column;
    }

    /** Those that a target was not told of since the last of the days before came. */
    List<DatedItem> toTell(long targetId, long bringUpId) {
        return near(bringUpId).stream()
                .filter(item -> db.createNativeQuery(
                                        "select count(*) from told_day where target_id = :target and subject = "
                                                + ":subject and days_before <= :days",
                                        Long.class)
                                .setParameter("target", targetId)
                                .setParameter("subject", item.subject)
                                .setParameter("days", step(item.days))
                                .getSingleResult()
                        == 0)
                .toList();
    }

    /** Notes what a target was told of. */
    void told(long targetId, List<DatedItem> items) {
        items.forEach(item -> db.createNativeMutationQuery("insert into told_day (target_id, subject, days_before) "
                        + "values (:target, :subject, :days) on conflict do nothing")
                .setParameter("target", targetId)
                .setParameter("subject", item.subject)
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
