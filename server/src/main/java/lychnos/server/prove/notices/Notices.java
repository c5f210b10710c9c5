package lychnos.server.prove.notices;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import lychnos.server.LychnosConfig;
import lychnos.server.live.Live;
import lychnos.server.text.NoticeText;
import lychnos.server.time.Clockwork;
import lychnos.server.units.BringUps;
import lychnos.wire.fault.WireFault;
import org.hibernate.Session;

/**
 * Tells people of changes, many at once: the first change waits a minute for further ones. What did not
 * come through is told with the next; of several servers one tells.
 */
@ApplicationScoped
public class Notices {

    private static final long SHORTEST_LOOK_MILLIS = 200;
    private static final Duration AFTER_A_FAULT = Duration.ofMinutes(5);
    private static final int MOST = 500;

    private final Session db;
    private final BringUps bringUps;
    private final NoticeCarrier carrier;
    private final DatedItems dated;
    private final LychnosConfig config;
    private final Live live;
    private final Clock clock;

    Notices(
            Session db,
            BringUps bringUps,
            NoticeCarrier carrier,
            DatedItems dated,
            LychnosConfig config,
            Live live,
            Clock clock) {
        this.dated = dated;
        this.db = db;
        this.bringUps = bringUps;
        this.carrier = carrier;
        this.config = config;
        this.live = live;
        this.clock = clock;
    }

    void start(@Observes StartupEvent event, Clockwork clockwork) {
        Duration look = Duration.ofMillis(
                Math.max(SHORTEST_LOOK_MILLIS, config.notices().toMillis() / 10));
        clockwork.every(look, "Notices cannot be sent now", this::look);
    }

    private void look() {
        List<Long> all = QuarkusTransaction.requiringNew()
                .call(() -> db.createQuery("select t.id from NoticeTarget t", Long.class)
                        .getResultList());
        all.forEach(this::tell);
    }

    /**
     * One thing that has changed.
     *
     * @param endpoint its name
     * @param was what it came to, or the value, before; empty where nothing is known
     * @param proven whether it is proven now
     */
    public record NoticeItem(
            Instant at, String endpoint, String address, String what, String was, String now, boolean proven) {}

    /** What is told at once. */
    public record NoticeBatch(
            String bringUp, String site, List<NoticeItem> changes, long more, List<DatedItems.DatedItem> due) {}

    private record Due(NoticeTarget target, NoticeBatch batch, long upTo, Instant traitsUpTo) {}

    private void tell(long targetId) {
        // the row stays locked while it is told, so that no other server tells it too
        QuarkusTransaction.requiringNew().timeout(120).run(() -> {
            List<NoticeTarget> free = db.createNativeQuery(
                            "select * from notice_target where id = :id for update skip locked", NoticeTarget.class)
                    .setParameter("id", targetId)
                    .getResultList();
            if (free.isEmpty()) {
                return;
            }
            NoticeTarget target = free.get(0);
            db.refresh(target);
            Due due = due(target);
            if (due == null) {
                return;
            }
            target.triedAt = clock.instant();
            try {
                carrier.carry(target, due.batch);
                target.toldChange = due.upTo;
                target.toldTrait = due.traitsUpTo;
                dated.told(target.id, due.batch.due());
                target.sentAt = clock.instant();
                target.fault = "";
            } catch (WireFault e) {
                target.fault = NoticeText.NOT_TOLD.text(e.getMessage());
            }
            live.tell(target.bringUpId, "prove");
        });
    }

    /** What there is to tell, or null where it is not time yet. */
    private Due due(NoticeTarget target) {
        Instant now = clock.instant();
        if (!target.fault.isEmpty()
                && target.triedAt != null
                && Duration.between(target.triedAt, now).compareTo(AFTER_A_FAULT) < 0) {
            return null;
        }
        List<NoticeItem> items = new ArrayList<>();
        long upTo = target.toldChange;
        // the first look at an endpoint is no change
        for (Object[] row : db.createNativeQuery(
                        "select p.id, p.at, c.host_name, host(c.address), p.sentence, p.proven, b.sentence from "
                                + "proof_change p join claim c on c.id = p.claim_id join unit u on u.id = c.unit_id"
                                + " join lateral (select sentence from proof_change o where o.claim_id = p.claim_id "
                                + "and o.id < p.id order by o.id desc limit 1) b on true"
                                + " where u.bring_up_id = :bringUp and p.id > :from and c.released_at is null order "
                                + "by p.id",
                        Object[].class)
                .setParameter("bringUp", target.bringUpId)
                .setParameter("from", target.toldChange)
                .getResultList()) {
            upTo = ((Number) row[0]).longValue();
            if (!row[4].equals(row[6])) {
                items.add(new NoticeItem(
                        instant(row[1]),
                        (String) row[2],
                        (String) row[3],
                        "ladder",
                        (String) row[6],
                        (String) row[4],
                        (Boolean) row[5]));
            }
        }
        Instant traits = target.toldTrait;
        for (Object[] row : db.createNativeQuery(
                        "select t.since, c.host_name, host(c.address), t.what, t.before, t.now, coalesce(p.proven, "
                                + "false) from trait_change t join claim c on c.id = t.claim_id join unit u on u.id "
                                + "= c.unit_id"
                                + " left join proof p on p.claim_id = c.id where u.bring_up_id = :bringUp and "
                                + "t.since > :from and t.state in ('OPEN', 'FAULT') order by t.since",
                        Object[].class)
                .setParameter("bringUp", target.bringUpId)
                .setParameter("from", target.toldTrait)
                .getResultList()) {
            traits = instant(row[0]);
            items.add(new NoticeItem(
                    traits,
                    (String) row[1],
                    (String) row[2],
                    (String) row[3],
                    (String) row[4],
                    (String) row[5],
                    (Boolean) row[6]));
        }
        List<DatedItems.DatedItem> dates = dated.toTell(target.id, target.bringUpId);
        if (items.isEmpty() && dates.isEmpty()) {
            target.toldChange = upTo;
            return null;
        }
        items.sort(java.util.Comparator.comparing(NoticeItem::at));
        if (!items.isEmpty() && Duration.between(items.get(0).at, now).compareTo(config.notices()) < 0) {
            return null; // others may follow within the minute
        }
        BringUps.BringUpName named = bringUps.named(target.bringUpId);
        List<NoticeItem> shown = items.size() > MOST ? items.subList(0, MOST) : items;
        return new Due(
                target,
                new NoticeBatch(named.name(), named.site(), List.copyOf(shown), items.size() - shown.size(), dates),
                upTo,
                traits);
    }

    private static Instant instant(Object value) {
        return value instanceof Instant instant ? instant : ((java.time.OffsetDateTime) value).toInstant();
    }
}
