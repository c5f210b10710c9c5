package lychnos.server.prove.notices;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Secret;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.secrets.Digest;
import lychnos.server.secrets.SealKeys;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.NoticeText;
import lychnos.server.units.BringUps;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Who is told of changes: shown, added and removed. */
@ApplicationScoped
public class NoticeTargets {

    private final Session db;
    private final BringUps bringUps;
    private final SealedStore sealed;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    NoticeTargets(Session db, BringUps bringUps, SealedStore sealed, Journal journal, Live live, Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.sealed = sealed;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** One as it is shown; {@code fault} is why it could not be told the last time. */
    public record NoticeTargetView(
            long id, String sort, String to, @Nullable String fingerprint, @Nullable Instant sentAt, String fault) {

        /** For those who may not know more than where it goes: the path of a webhook often is its password. */
        NoticeTargetView withoutPath() {
            return new NoticeTargetView(id, sort, shown(sort, to), fingerprint, sentAt, fault);
        }
    }

    /** A target without what may be secret in it. */
    private static String shown(String sort, String target) {
        return NoticeTarget.WEBHOOK.equals(sort)
                ? "https://" + URI.create(target).getRawAuthority() + "/…"
                : target;
    }

    @Transactional
    public List<NoticeTargetView> of(long bringUpId) {
        bringUps.get(bringUpId);
        return db.createQuery("from NoticeTarget where bringUpId = :id order by id", NoticeTarget.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .map(row -> new NoticeTargetView(row.id, row.sort, row.target, row.fingerprint, row.sentAt, row.fault))
                .toList();
    }

    /** One that was added; the secret is shown this once, and empty for mail. */
    public record NewNoticeTarget(long id, String secret) {}

    @Transactional
    public NewNoticeTarget add(long bringUpId, String sort, String to, Who.Person person) {
        bringUps.get(bringUpId);
        String target = to == null ? "" : to.strip();
        boolean mail = NoticeTarget.MAIL.equals(sort);
        if (mail) {
            try {
                target = FactType.MAIL.read(target);
            } catch (IllegalArgumentException e) {
                throw wrong(e.getMessage());
            }
        } else if (!isHttps(target)) {
            throw wrong(NoticeText.WEBHOOK_URL_STARTS_WITH_HTTPS.text());
        }
        if (!db.createQuery(
                        "select t.id from NoticeTarget t where t.bringUpId = :id and t.sort = :sort and t.target = "
                                + ":target",
                        Long.class)
                .setParameter("id", bringUpId)
                .setParameter("sort", mail ? NoticeTarget.MAIL : NoticeTarget.WEBHOOK)
                .setParameter("target", target)
                .getResultList()
                .isEmpty()) {
            throw Refusal.conflict(NoticeText.ALREADY_RECEIVES_NOTICES.said(target));
        }
        NoticeTarget row = new NoticeTarget();
        row.bringUpId = bringUpId;
        row.sort = mail ? NoticeTarget.MAIL : NoticeTarget.WEBHOOK;
        row.target = target;
        row.madeBy = person.id();
        // from now on: what was before is nobody's news
        row.toldTrait = clock.instant();
        row.toldChange = db.createNativeQuery("select coalesce(max(id), 0) from proof_change", Long.class)
                .getSingleResult();
        db.persist(row);
        String secret = mail ? "" : Digest.token();
        if (!mail) {
            SealKeys.Box box = sealed.sealText(SealKeys.ofNotice(row.id), Secret.of(secret));
            row.keyId = box.keyId();
            row.nonce = box.nonce();
            row.sealed = box.sealed();
        }
        journal.write(person, bringUpId, null, NoticeText.SENDS_NOTICES.text(shown(row.sort, target)), null, null);
        live.tell(bringUpId, "prove");
        return new NewNoticeTarget(row.id, secret);
    }

    private static Refusal wrong(String reason) {
        return Refusal.fields(List.of(new Refusal.FieldFault("to", reason)));
    }

    private static boolean isHttps(String text) {
        try {
            URI url = new URI(text);
            return "https".equals(url.getScheme())
                    && url.getHost() != null
                    && url.getUserInfo() == null
                    && url.getFragment() == null;
        } catch (URISyntaxException e) {
            return false;
        }
    }

    @Transactional
    public void remove(long id, Who.Person person) {
        NoticeTarget row = db.find(NoticeTarget.class, id, jakarta.persistence.LockModeType.PESSIMISTIC_WRITE);
        if (row == null) {
            throw Refusal.notFound(NoticeText.RECIPIENT_NO_LONGER_RECEIVES_NOTICES.said());
        }
        db.remove(row);
        journal.write(
                person, row.bringUpId, null, NoticeText.STOPPED_NOTICES.text(shown(row.sort, row.target)), null, null);
        live.tell(row.bringUpId, "prove");
    }
}
