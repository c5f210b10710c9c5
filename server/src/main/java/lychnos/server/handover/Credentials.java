package lychnos.server.handover;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.List;
import java.util.TreeSet;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.record.CanonicalJson;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.secrets.SealedForKey;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.HandoverText;
import lychnos.server.units.BringUps;
import lychnos.server.units.OwnLogins;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** Exports the passwords of signed units, encrypted for a public key; packs and records contain none. */
@ApplicationScoped
public class Credentials {

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final OwnLogins ownLogins;
    private final SealedStore sealed;
    private final Journal journal;
    private final Clock clock;

    Credentials(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            OwnLogins ownLogins,
            SealedStore sealed,
            Journal journal,
            Clock clock) {
        this.ownLogins = ownLogins;
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.sealed = sealed;
        this.journal = journal;
        this.clock = clock;
    }

    /** Its line, where the kind says whose password it is; others are told by their names alone. */
    private static String account(Kind kind, String name) {
        boolean factorys = kind.driven()
                || kind.checks()
                        .signsIn()
                        .filter(way ->
                                way.phrase().equals(name) && way.user().text().equals("{factory.user}"))
                        .isPresent();
        return factorys ? "\n    account: " + CanonicalJson.write(kind.factory().user()) : "";
    }

    /** @return a message of OpenPGP in ASCII armour, which holds YAML */
    @Transactional
    public String sealedFor(long bringUpId, String key, Who.Person person) {
        bringUps.get(bringUpId);
        SealedForKey recipient;
        try {
            recipient = SealedForKey.read(key, clock.instant());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new Refusal.FieldFault("key", e.getMessage())));
        }
        StringBuilder text = new StringBuilder("credentials:\n");
        TreeSet<String> units = new TreeSet<>();
        int count = 0;
        for (SignedRecord record : db.createQuery(
                        "select r from SignedRecord r join Unit u on u.id = r.unitId where r.bringUpId = :id and "
                                + "r.endedAt is null order by u.number",
                        SignedRecord.class)
                .setParameter("id", bringUpId)
                .getResultList()) {
            Unit unit = bringUps.unit(record.unitId);
            for (String name : db.createNativeQuery(
                            "select distinct name from sealed_secret where unit_id = :unit and state = 'proven' "
                                    + "order by name",
                            String.class)
                    .setParameter("unit", unit.id)
                    .getResultList()) {
                Secret phrase = sealed.open(unit.id, name, SealedStore.SealedState.PROVEN)
                        .orElseThrow();
                text.append("  - unit: ")
                        .append(CanonicalJson.write(unit.label()))
                        .append("\n    name: ")
                        .append(CanonicalJson.write(name))
                        .append(account(ownLogins.with(kinds.of(unit), unit.id, ""), name))
                        .append("\n    password: ")
                        .append(phrase.use(CanonicalJson::write))
                        .append('\n');
                units.add(unit.label());
                count++;
            }
        }
        if (count == 0) {
            throw Refusal.conflict(HandoverText.NO_SIGNED_UNIT_HAS_A_PASSWORD_THAT_IS_KNOWN.said());
        }
        journal.write(
                person,
                bringUpId,
                null,
                HandoverText.EXPORTED_PASSWORDS.text(count, units.size(), recipient.user(), recipient.fingerprint()),
                null,
                units);
        return recipient.seal(text.toString(), "credentials.yaml");
    }
}
