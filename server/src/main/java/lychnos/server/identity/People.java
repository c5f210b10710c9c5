package lychnos.server.identity;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.server.api.problem.OneLine;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.api.problem.Shapes;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.secrets.Digest;
import lychnos.server.text.IdentityText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Accounts as leads look after them: invited by a link that works once, with a role, disabled and enabled again. */
@ApplicationScoped
public class People {

    private static final Duration INVITED = Duration.ofDays(3);

    private final Session db;
    private final Shapes shapes;
    private final Sessions sessions;
    private final Journal journal;
    private final Clock clock;

    People(Session db, Shapes shapes, Sessions sessions, Journal journal, Clock clock) {
        this.db = db;
        this.shapes = shapes;
        this.sessions = sessions;
        this.journal = journal;
        this.clock = clock;
    }

    /**
     * An account.
     *
     * @param invitedUntil until when its link works; null where none is open
     * @param hasPassword whether the person has set one
     * @param sessions how many are open
     */
    public record PersonView(
            long id,
            String login,
            String name,
            String role,
            @Nullable Instant disabledAt,
            @Nullable Instant invitedUntil,
            boolean hasPassword,
            int sessions,
            @Nullable Instant seenAt) {}

    /** A person to invite. */
    public record PersonWanted(
            @NotNull(message = "LOGIN") @Pattern(regexp = "[a-z][a-z0-9._-]{1,31}", message = "LOGIN") String login,
            @OneLine String name,
            @NotNull(message = "ROLE") @Pattern(regexp = "viewer|engineer|lead", message = "ROLE") String role) {}

    /** What is changed of an account; null leaves it. */
    public record PersonChange(String name, String role, Boolean disabled) {}

    /** A link that works once; it is shown this once. */
    public record NewInvitation(long id, String login, String token, Instant endsAt) {}

    @Transactional
    public List<PersonView> all() {
        return db.createNativeQuery(
                        "select a.id, a.login, a.name, a.role, a.disabled_at, (select i.ends_at from invitation i "
                                + "where i.account_id = a.id and i.ends_at > now()) as invited, a.password_hash is "
                                + "not null as has,"
                                + " (select count(*) from sign_in s where s.account_id = a.id and s.ends_at > now()) "
                                + "as open, (select max(s.seen_at) from sign_in s where s.account_id = a.id) "
                                + "as seen from account a order by a.disabled_at nulls first, "
                                + "a.name, a.id",
                        Object[].class)
                .getResultStream()
                .map(row -> new PersonView(
                        ((Number) row[0]).longValue(),
                        (String) row[1],
                        (String) row[2],
                        (String) row[3],
                        (Instant) row[4],
                        (Instant) row[5],
                        (Boolean) row[6],
                        ((Number) row[7]).intValue(),
                        (Instant) row[8]))
                .toList();
    }

    /** Invites a person: the account exists from now on, and has no password until the link was used. */
    @Transactional
    public NewInvitation invite(PersonWanted wanted, Who.Person by) {
        List<FieldFault> faults = shapes.faults(wanted);
        if (faults.isEmpty()
                && db.createQuery("select count(*) from Account where login = :login", Long.class)
                                .setParameter("login", wanted.login)
                                .getSingleResult()
                        > 0) {
            faults.add(new FieldFault("login", IdentityText.ALREADY_AN_ACCOUNT.said(wanted.login)));
        }
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
        Account account = new Account();
        account.login = wanted.login;
        account.name = wanted.name.strip();
        account.role = wanted.role;
        db.persist(account);
        db.flush();
        journal.write(
                by,
                null,
                null,
                IdentityText.INVITED.text(account.login, account.role),
                null,
                Map.of("login", account.login, "role", account.role));
        return link(account, by);
    }

    /**
     * A new link for a person whose password is forgotten or was never set. The old password works until the link is
     * used.
     */
    @Transactional
    public NewInvitation inviteAgain(long id, Who.Person by) {
        Account account = locked(id);
        if (account.disabledAt != null) {
            throw Refusal.conflict(IdentityText.IS_DISABLED_ENABLE_THE_ACCOUNT_FIRST.said(account.login));
        }
        journal.write(by, null, null, IdentityText.CREATED_A_PASSWORD_LINK.text(account.login), null, null);
        return link(account, by);
    }

    private NewInvitation link(Account account, Who.Person by) {
        String token = Digest.token();
        Instant ends = clock.instant().plus(INVITED);
        db.createNativeMutationQuery(
                        "insert into invitation (account_id, token_digest, made_by, ends_at) values (:account, "
                                + ":digest, :by, :ends)"
                                + " on conflict (account_id) do update set token_digest = excluded.token_digest, "
                                + "made_by = excluded.made_by, ends_at = excluded.ends_at")
                .setParameter("account", account.id)
                .setParameter("digest", Digest.of(token))
                .setParameter("by", by.id())
                .setParameter("ends", ends)
                .executeUpdate();
        return new NewInvitation(account.id, account.login, token, ends);
    }

    private Account locked(long id) {
        Account account = db.find(Account.class, id, LockModeType.PESSIMISTIC_WRITE);
        if (account == null) {
            throw Refusal.notFound(IdentityText.NO_SUCH_ACCOUNT.said());
        }
        return account;
    }

    /** Changes name or role, disables or enables. One lead who can sign in always remains. */
    @Transactional
    public void change(long id, PersonChange change, Who.Person by) {
        // two leads who disable each other wait for each other
        db.createNativeQuery("select id from account where role = 'lead' order by id for update", Long.class)
                .getResultList();
        Account account = locked(id);
        db.refresh(account);
        if (change == null) {
            throw Refusal.bad(IdentityText.WHAT_IS_CHANGED.said());
        }
        String name = change.name == null ? account.name : change.name.strip();
        String role = change.role == null ? account.role : change.role;
        boolean disabled = change.disabled == null ? account.disabledAt != null : change.disabled;
        List<FieldFault> faults = shapes.faults(new PersonWanted(account.login, name, role));
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
        boolean leads = account.role.equals("lead") && account.disabledAt == null;
        if (leads && (disabled || !role.equals("lead")) && otherLeads(id) == 0) {
            throw Refusal.conflict(IdentityText.IS_THE_ONLY_LEAD.said(account.login));
        }
        Map<String, Object> before =
                Map.of("name", account.name, "role", account.role, "disabled", account.disabledAt != null);
        boolean fewerRights = disabled && account.disabledAt == null
                || SignInMechanism.ROLES.indexOf(role) < SignInMechanism.ROLES.indexOf(account.role);
        account.name = name;
        account.role = role;
        account.disabledAt = !disabled ? null : account.disabledAt == null ? clock.instant() : account.disabledAt;
        db.flush();
        if (fewerRights) {
            sessions.endAll(id, 0);
        }
        if (disabled) {
            db.createNativeMutationQuery("delete from invitation where account_id = :id")
                    .setParameter("id", id)
                    .executeUpdate();
        }
        journal.write(
                by,
                null,
                null,
                IdentityText.CHANGED_THE_ACCOUNT.text(account.login),
                before,
                Map.of("name", name, "role", role, "disabled", disabled));
    }

    private long otherLeads(long but) {
        return db.createQuery(
                        "select count(*) from Account where role = 'lead' and disabledAt is null and passwordHash is "
                                + "not null and id <> :but",
                        Long.class)
                .setParameter("but", but)
                .getSingleResult();
    }

    /** Ends every session of an account at once. */
    @Transactional
    public void endSessions(long id, Who.Person by) {
        Account account = locked(id);
        int ended = sessions.endAll(id, 0);
        journal.write(by, null, null, IdentityText.ENDED_SESSIONS.text(ended, account.login), null, null);
    }

    /** Whose link this is; nothing where it was used or is too old. */
    @Transactional
    public Optional<Account> invited(String token) {
        return db.createNativeQuery(
                        "select a.* from invitation i join account a on a.id = i.account_id where i.token_digest = "
                                + ":digest and i.ends_at > now() and a.disabled_at is null",
                        Account.class)
                .setParameter("digest", Digest.of(token))
                .getResultStream()
                .findFirst();
    }

    /** A person has used the link; it works no more, and sessions from before end. */
    @Transactional
    public void accepted(String token, String hash) {
        Account account = invited(token).orElseThrow(People::usedUp);
        int used = db.createNativeMutationQuery("delete from invitation where token_digest = :digest")
                .setParameter("digest", Digest.of(token))
                .executeUpdate();
        if (used == 0) {
            throw usedUp();
        }
        set(account, hash, 0, IdentityText.SET_A_PASSWORD_BY_A_LINK.text());
    }

    static Refusal usedUp() {
        return Refusal.bad(IdentityText.LINK_HAS_BEEN_USED_ALREADY_OR_HAS_EXPIRED.said());
    }

    /** A person has changed the own password; other sessions end. */
    @Transactional
    public void changed(Who.Person person, String hash, long session) {
        set(locked(person.id()), hash, session, IdentityText.CHANGED_THE_PASSWORD.text());
    }

    private void set(Account account, String hash, long session, String act) {
        account.passwordHash = hash;
        db.flush();
        sessions.endAll(account.id, session);
        if (session != 0) {
            sessions.confirmed(session);
        }
        journal.write(
                new Who.Person(account.id, account.login, account.name, account.role), null, null, act, null, null);
    }
}
