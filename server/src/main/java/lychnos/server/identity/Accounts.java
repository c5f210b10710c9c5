package lychnos.server.identity;

import io.quarkus.runtime.StartupEvent;
import jakarta.annotation.Priority;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import jakarta.transaction.Transactional;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Map;
import lychnos.server.LychnosConfig;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.secrets.Digest;
import lychnos.server.text.IdentityText;
import org.hibernate.Session;
import org.jboss.logging.Logger;

/** The accounts that a server begins with, and the one-time code of the first lead. */
@ApplicationScoped
public class Accounts {

    private static final Logger LOG = Logger.getLogger(Accounts.class);

    private final Session db;
    private final LychnosConfig config;
    private final Journal journal;
    private final PasswordHashes hashes;

    Accounts(Session db, LychnosConfig config, Journal journal, PasswordHashes hashes) {
        this.db = db;
        this.config = config;
        this.journal = journal;
        this.hashes = hashes;
    }

    @Transactional
    void open(@Observes @Priority(10) StartupEvent event) throws IOException {
        if (count() > 0) {
            return;
        }
        if (config.demoAccounts().isPresent()) {
            for (String account : config.demoAccounts().get().split(";")) {
                String[] parts = account.split(":");
                add(parts[0], parts[1], parts[2], hashes.hash(parts[3]));
            }
            return;
        }
        String code = Digest.token().substring(0, 20);
        db.createNativeMutationQuery(
                        "insert into first_lead (code_digest) values (:digest) on conflict (only_one) do update set "
                                + "code_digest = excluded.code_digest")
                .setParameter("digest", Digest.of(code))
                .executeUpdate();
        if (config.firstLeadFile().isPresent()) {
            Path file = config.firstLeadFile().get();
            Files.deleteIfExists(file);
            Files.createFile(file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.writeString(file, code + "\n");
        }
        LOG.infof(
                "No account exists yet. Open the web page; the one-time code of the first lead is %s",
                config.firstLeadFile().map(file -> "in " + file).orElse(code));
    }

    private long count() {
        return db.createQuery("select count(*) from Account", Long.class).getSingleResult();
    }

    private Account add(String login, String name, String role, String hash) {
        Account account = new Account();
        account.login = login;
        account.name = name;
        account.role = role;
        account.passwordHash = hash;
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
    public void firstLead(String code, String login, String name, String hash) {
        int used = db.createNativeMutationQuery("delete from first_lead where code_digest = :digest")
                .setParameter("digest", Digest.of(code.strip()))
                .executeUpdate();
        if (used == 0 || count() > 0) {
            throw Refusal.bad(IdentityText.CODE_DOES_NOT_MATCH_THE_SERVER_LOG.said());
        }
        Account account = add(login, name.strip(), "lead", hash);
        config.firstLeadFile().ifPresent(file -> file.toFile().delete());
        journal.write(
                new Who.Person(account.id, login, account.name, account.role),
                null,
                null,
                IdentityText.SET_UP_THE_FIRST_LEAD.text(),
                null,
                Map.of("login", login));
    }
}
