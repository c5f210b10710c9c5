package lychnos.server.account;

import io.quarkus.elytron.security.common.BcryptUtil;
import io.quarkus.runtime.StartupEvent;
import jakarta.annotation.Priority;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.server.LychnosConfig;
import lychnos.server.journal.Journal;
import lychnos.server.problem.Refusal;
import lychnos.server.store.Account;
import org.jboss.logging.Logger;

/** Local accounts, sign-ins, and the one-time code of the first lead. */
@ApplicationScoped
public class Accounts {

    /** How long a sign-in lasts: one shift and the next morning. */
    static final Duration SIGN_IN = Duration.ofHours(20);

    private static final Logger LOG = Logger.getLogger(Accounts.class);
    private static final int BCRYPT_COST = 11;
    private static final int SHORTEST_PASSWORD = 12;
    private static final int LONGEST_PASSWORD = 72;
    private static final int TRIES_A_MINUTE = 10;

    /** Compared against where there is no such account, so that the answer takes as long. */
    private static final String NOBODY = BcryptUtil.bcryptHash("nobody has this password", BCRYPT_COST);

    private final Session db;
    private final LychnosConfig config;
    private final Journal journal;
    private final Clock clock;
    private final Map<String, Tries> tries = new ConcurrentHashMap<>();

    private record Tries(Instant since, int count) {}

    Accounts(Session db, LychnosConfig config, Journal journal, Clock clock) {
        this.db = db;
        this.config = config;
        this.journal = journal;
        this.clock = clock;
    }

    @Transactional
    void open(@Observes @Priority(10) StartupEvent event) throws IOException {
        if (count() > 0) {
            return;
        }
        if (config.demoAccounts().isPresent()) {
            for (String account : config.demoAccounts().get().split(";")) {
                String[] parts = account.split(":");
                add(parts[0], parts[1], parts[2], parts[3]);
            }
            return;
        }
        String code = Digest.token().substring(0, 20);
        db.createNativeMutationQuery("insert into first_lead (code_digest) values (:digest) on conflict (only_one) do update set code_digest = excluded.code_digest")
                .setParameter("digest", Digest.of(code))
                .executeUpdate();
        if (config.firstLeadFile().isPresent()) {
            Path file = config.firstLeadFile().get();
            Files.deleteIfExists(file);
            Files.createFile(file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.writeString(file, code + "\n");
        }
        LOG.infof("There is no account yet. Open the web page; the first lead's one-time code is %s", code);
    }

    private long count() {
        return db.createQuery("select count(*) from Account", Long.class).getSingleResult();
    }

    private Account add(String login, String name, String role, String password) {
        Account account = new Account();
        account.login = login;
        account.name = name;
        account.role = role;
        account.passwordHash = BcryptUtil.bcryptHash(password, BCRYPT_COST);
        db.persist(account);
        return account;
    }

    /** Whether the first lead is still to set a password. */
    @Transactional
    public boolean firstLeadWanted() {
        return count() == 0;
    }

    /** Makes the first lead's account. The code works once. */
    @Transactional
    public void firstLead(String code, String login, String name, String password) {
        int used = db.createNativeMutationQuery("delete from first_lead where code_digest = :digest")
                .setParameter("digest", Digest.of(code.strip()))
                .executeUpdate();
        if (used == 0 || count() > 0) {
            throw Refusal.bad("That code is not the one in the server's log, or it was used already.");
        }
        if (!login.matches("[a-z][a-z0-9._-]{1,31}")) {
            throw Refusal.bad("A login has 2 to 32 small letters, digits, dots and hyphens, and begins with a letter.");
        }
        if (name.isBlank() || name.length() > 80) {
            throw Refusal.bad("A name has 1 to 80 letters.");
        }
        int bytes = password.getBytes(java.nio.charset.StandardCharsets.UTF_8).length;
        if (password.length() < SHORTEST_PASSWORD || bytes > LONGEST_PASSWORD) {
            throw Refusal.bad("A password has at least " + SHORTEST_PASSWORD + " letters and at most " + LONGEST_PASSWORD + " bytes.");
        }
        Account account = add(login, name.strip(), "lead", password);
        config.firstLeadFile().ifPresent(file -> file.toFile().delete());
        journal.write(new Who.Person(account.id, login, account.name, account.role), null, null, "set up the first lead's account", null, Map.of("login", login));
    }

    /**
     * Signs somebody in.
     *
     * @return the token for the cookie
     */
    @Transactional
    public String signIn(String login, String password) {
        limit(login);
        Optional<Account> account = db.createQuery("from Account where login = :login", Account.class).setParameter("login", login).getResultStream().findFirst();
        boolean right = BcryptUtil.matches(password, account.map(found -> found.passwordHash).orElse(NOBODY));
        if (account.isEmpty() || !right) {
            throw Refusal.unauthorised("Login or password is wrong.");
        }
        tries.remove(login);
        db.createNativeMutationQuery("delete from sign_in where ends_at < now()").executeUpdate();
        String token = Digest.token();
        db.createNativeMutationQuery("insert into sign_in (account_id, token_digest, ends_at) values (:account, :digest, :ends)")
                .setParameter("account", account.get().id)
                .setParameter("digest", Digest.of(token))
                .setParameter("ends", clock.instant().plus(SIGN_IN))
                .executeUpdate();
        return token;
    }

    private void limit(String login) {
        if (tries.size() > 10_000) {
            tries.clear();
        }
        Instant now = clock.instant();
        Tries counted = tries.merge(
                login,
                new Tries(now, 1),
                (old, fresh) -> old.since.plusSeconds(60).isBefore(now) ? fresh : new Tries(old.since, old.count + 1));
        if (counted.count > TRIES_A_MINUTE) {
            throw Refusal.tooMany("Too many tries for this login. Wait a minute.");
        }
    }

    /** Who holds this token, if it is good. */
    @Transactional
    public Optional<Who.Person> holder(String token) {
        List<Object[]> rows = db.createNativeQuery("select a.id, a.login, a.name, a.role from sign_in s join account a on a.id = s.account_id"
                        + " where s.token_digest = :digest and s.ends_at > now()", Object[].class)
                .setParameter("digest", Digest.of(token))
                .getResultList();
        return rows.stream().findFirst().map(row -> new Who.Person(((Number) row[0]).longValue(), (String) row[1], (String) row[2], (String) row[3]));
    }

    @Transactional
    public void signOut(String token) {
        db.createNativeMutationQuery("delete from sign_in where token_digest = :digest").setParameter("digest", Digest.of(token)).executeUpdate();
    }
}
