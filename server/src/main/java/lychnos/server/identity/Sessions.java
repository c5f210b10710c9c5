package lychnos.server.identity;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import lychnos.server.LychnosConfig;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Credential;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.secrets.Digest;
import lychnos.server.text.IdentityText;
import org.hibernate.Session;

/**
 * Sessions of people who are signed in. One ends when nothing was asked in it for a time, and at the latest after a
 * day's work.
 */
@ApplicationScoped
public class Sessions {

    /** The topic by which servers tell each other that sessions or tokens have ended; of no bring-up. */
    public static final String TOPIC = "sessions";

    static final long NO_BRING_UP = -1;

    private static final int LONGEST_AGENT = 200;

    private final Session db;
    private final LychnosConfig config;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    Sessions(Session db, LychnosConfig config, Journal journal, Live live, Clock clock) {
        this.db = db;
        this.config = config;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** A session as its owner sees it. */
    public record SessionView(
            long id, String agent, String source, Instant createdAt, Instant seenAt, Instant endsAt, boolean own) {}

    /** Who is signed in, and by which session. */
    record SessionHolder(Who.Person person, Credential credential) {}

    /** Begins a session; gives the token for the cookie. */
    @Transactional(Transactional.TxType.MANDATORY)
    String begin(Account account, SignIns.Origin origin) {
        db.createNativeMutationQuery("delete from sign_in where ends_at < now()")
                .executeUpdate();
        String token = Digest.token();
        String agent = origin.agent() == null ? "" : origin.agent().replaceAll("\\p{Cntrl}", " ");
        db.createNativeMutationQuery(
                        "insert into sign_in (account_id, token_digest, ends_at, agent, source) values (:account, "
                                + ":digest, now() + make_interval(secs => :longest), :agent, :source)")
                .setParameter("account", account.id)
                .setParameter("digest", Digest.of(token))
                .setParameter("longest", (double) config.session().longest().toSeconds())
                .setParameter("agent", agent.substring(0, Math.min(LONGEST_AGENT, agent.length())))
                .setParameter("source", origin.source())
                .executeUpdate();
        journal.write(
                new Who.Person(account.id, account.login, account.name, account.role),
                null,
                null,
                IdentityText.SIGNED_IN.text(origin.source()),
                null,
                null);
        return token;
    }

    /** Who holds this token, if it is good. That it was used is written down once a minute. */
    @Transactional
    Optional<SessionHolder> holder(String token) {
        List<Object[]> rows = db.createNativeQuery(
                        "select a.id, a.login, a.name, a.role, s.id as session, s.password_at, s.seen_at < now() - "
                                + "interval '1 minute' as old from sign_in s join account a on a.id = s.account_id"
                                + " where s.token_digest = :digest and s.ends_at > now() and s.seen_at > now() - "
                                + "make_interval(secs => :idle) and a.disabled_at is null",
                        Object[].class)
                .setParameter("digest", Digest.of(token))
                .setParameter("idle", (double) config.session().idle().toSeconds())
                .getResultList();
        return rows.stream().findFirst().map(row -> {
            long session = ((Number) row[4]).longValue();
            if ((Boolean) row[6]) {
                db.createNativeMutationQuery("update sign_in set seen_at = now() where id = :id")
                        .setParameter("id", session)
                        .executeUpdate();
            }
            return new SessionHolder(
                    new Who.Person(((Number) row[0]).longValue(), (String) row[1], (String) row[2], (String) row[3]),
                    new Credential(Credential.Sort.SESSION, session, (Instant) row[5]));
        });
    }

    @Transactional
    public List<SessionView> of(Who.Person person, Credential own) {
        return db.createNativeQuery(
                        "select id, agent, source, created_at, seen_at, ends_at from sign_in where account_id = "
                                + ":account and ends_at > now() and seen_at > now() - make_interval(secs => :idle) "
                                + "order by seen_at desc",
                        Object[].class)
                .setParameter("account", person.id())
                .setParameter("idle", (double) config.session().idle().toSeconds())
                .getResultStream()
                .map(row -> new SessionView(
                        ((Number) row[0]).longValue(),
                        (String) row[1],
                        (String) row[2],
                        (Instant) row[3],
                        (Instant) row[4],
                        (Instant) row[5],
                        own.sort() == Credential.Sort.SESSION && own.id() == ((Number) row[0]).longValue()))
                .toList();
    }

    /** Ends one session of a person. */
    @Transactional
    public void end(long session, Who.Person person) {
        int ended = db.createNativeMutationQuery("delete from sign_in where id = :id and account_id = :account")
                .setParameter("id", session)
                .setParameter("account", person.id())
                .executeUpdate();
        if (ended == 0) {
            throw Refusal.notFound(IdentityText.YOU_HAVE_NO_SUCH_SESSION.said());
        }
        live.tell(NO_BRING_UP, TOPIC);
    }

    /**
     * Ends every session of an account.
     *
     * @param but one that goes on; 0 for none
     */
    @Transactional(Transactional.TxType.MANDATORY)
    public int endAll(long account, long but) {
        int ended = db.createNativeMutationQuery("delete from sign_in where account_id = :account and id <> :but")
                .setParameter("account", account)
                .setParameter("but", but)
                .executeUpdate();
        live.tell(NO_BRING_UP, TOPIC);
        return ended;
    }

    /** Signs a person out everywhere. */
    @Transactional
    public void signOutEverywhere(Who.Person person) {
        int ended = endAll(person.id(), 0);
        journal.write(person, null, null, IdentityText.SIGNED_OUT.text(ended), null, null);
    }

    /** The password of this session's person was typed again. */
    @Transactional
    public void confirmed(long session) {
        db.createNativeMutationQuery("update sign_in set password_at = now() where id = :id")
                .setParameter("id", session)
                .executeUpdate();
    }

    /** The time by which passwords that were typed are judged. */
    Instant now() {
        return clock.instant();
    }

    /** Whether what opened a connection is still good. */
    @Transactional
    public boolean good(Credential credential) {
        String rows = credential.sort() == Credential.Sort.SESSION
                ? "select 1 from sign_in s join account a on a.id = s.account_id where s.id = :id and s.ends_at > "
                        + "now() and s.seen_at > now() - make_interval(secs => :idle) and a.disabled_at is null"
                : "select 1 from api_token t join account a on a.id = t.account_id where t.id = :id and t.revoked_at "
                        + "is null and t.ends_at > now() and :idle > 0 and a.disabled_at is null";
        return !db.createNativeQuery(rows, Integer.class)
                .setParameter("id", credential.id())
                .setParameter("idle", (double) config.session().idle().toSeconds())
                .getResultList()
                .isEmpty();
    }
}
