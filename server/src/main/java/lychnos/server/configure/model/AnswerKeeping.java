package lychnos.server.configure.model;

import jakarta.enterprise.context.ApplicationScoped;
import lychnos.server.jobs.Held;
import lychnos.server.journal.Journal;
import lychnos.server.secrets.SealedStore;
import lychnos.server.site.SiteResources;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** Keeps what an answer means beyond its step: terms that were agreed to, and passwords that were tried or work. */
@ApplicationScoped
class AnswerKeeping {

    private final Session db;
    private final SealedStore sealed;
    private final SiteResources siteResources;
    private final Journal journal;

    AnswerKeeping(Session db, SealedStore sealed, SiteResources siteResources, Journal journal) {
        this.db = db;
        this.sealed = sealed;
        this.siteResources = siteResources;
        this.journal = journal;
    }

    /** In the transaction of the step. */
    void keep(Held held, Change change) {
        passwords(held, change);
        terms(held, change);
    }

    private void terms(Held held, Change change) {
        if (change.answered().agreed() != null) {
            Unit unit = db.find(Unit.class, held.unitId());
            siteResources.accepted(
                    new SiteResources.ShownBy(held.bringUpId(), unit.id, unit.label(), unit.kind),
                    change.answered().agreed(),
                    change.answered().by(),
                    change.at());
        }
    }

    private void passwords(Held held, Change change) {
        if (change.answered().tries().isEmpty() && change.answered().proven().isEmpty()) {
            return;
        }
        String member = db.find(MemberDialogue.class, change.dialogueId()).member;
        change.answered().tries().forEach(name -> db.createNativeMutationQuery(
                        "insert into credential_try (unit_id, member, way, credential, at) values (:unit, :member, "
                                + ":way, :name, :at)")
                .setParameter("unit", held.unitId())
                .setParameter("member", member)
                .setParameter("way", change.answered().way())
                .setParameter("name", name)
                .setParameter("at", change.at())
                .executeUpdate());
        change.answered().proven().forEach(name -> {
            sealed.proven(held.unitId(), name);
            journal.writeWork(
                    held.bringUpId(),
                    held.unitId(),
                    ConfigureText.NEW_PASSWORD_HAS_LOGGED_IN.text(name, ConsoleStore.of(member)));
        });
    }
}
