package lychnos.server.kinds;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Adjustments;
import lychnos.core.kind.Kind;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.secrets.SealKeys;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.KindText;
import org.hibernate.Session;
import org.hibernate.exception.ConstraintViolationException;
import org.jspecify.annotations.Nullable;

/** What a site, or one bring-up of it, does otherwise than a kind describes. Leads decide, with a reason. */
@ApplicationScoped
public class KindAdjustments {

    /** A reason says something. */
    public static final int SHORTEST_REASON = 8;

    private static final int LONGEST_REASON = 400;
    private static final int LONGEST_PASSWORD = 128;

    private final Session db;
    private final Kinds kinds;
    private final KindMemory memory;
    private final SealedStore sealed;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    KindAdjustments(
            Session db, Kinds kinds, KindMemory memory, SealedStore sealed, Journal journal, Live live, Clock clock) {
        this.db = db;
        this.kinds = kinds;
        this.memory = memory;
        this.sealed = sealed;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /**
     * An adjustment as it is made.
     *
     * @param siteId the site that it holds for
     * @param bringUpId the one bring-up that it holds for, or null for the whole site
     * @param what the place, such as {@code login:redfish}
     * @param value as it is typed
     * @param password of a factory login; null or empty keeps the kind's
     */
    public record AdjustmentWanted(
            Long siteId, Long bringUpId, String what, String value, String password, String reason) {}

    /** An adjustment that counts; {@code hasPassword} where one is sealed with it. */
    public record AdjustmentRow(
            long id,
            long siteId,
            String site,
            @Nullable Long bringUpId,
            @Nullable String bringUp,
            String what,
            String value,
            boolean hasPassword,
            String reason,
            String by,
            Instant at) {}

    /** Something that can be adjusted, with what the kind says. */
    public record AdjustmentPlace(String what, String title, String value, String form, boolean secret) {}

    /** A site, and the bring-ups of it that something can be adjusted for. */
    public record AdjustmentSite(long id, String name, List<AdjustmentBringUp> bringUps) {}

    /** A bring-up that something can be adjusted for. */
    public record AdjustmentBringUp(long id, String name) {}

    static List<AdjustmentPlace> places(Kind kind) {
        return Adjustments.places(kind).stream()
                .map(place ->
                        new AdjustmentPlace(place.what(), place.title(), place.value(), place.form(), place.secret()))
                .toList();
    }

    List<AdjustmentSite> sites() {
        Map<Long, AdjustmentSite> sites = new LinkedHashMap<>();
        db.createNativeQuery(
                        "select s.id, s.name, b.id, b.name from site s left join bring_up b on b.site_id = "
                                + "s.id order by "
                                + "lower(s.name), b.id",
                        Object[].class)
                .getResultStream()
                .forEach(row -> {
                    AdjustmentSite site = sites.computeIfAbsent(
                            ((Number) row[0]).longValue(),
                            id -> new AdjustmentSite(id, (String) row[1], new java.util.ArrayList<>()));
                    if (row[2] != null) {
                        site.bringUps.add(new AdjustmentBringUp(((Number) row[2]).longValue(), (String) row[3]));
                    }
                });
        return List.copyOf(sites.values());
    }

    /** Those of a kind, the site's before those of single bring-ups. */
    List<AdjustmentRow> of(String kindId) {
        return db.createNativeQuery(
                        "select a.id, a.site_id, s.name, a.bring_up_id, b.name, a.what, a.value, a.sealed is not null, "
                                + "a.reason, p.name, a.made_at from kind_adjustment a join site s on s.id = a.site_id "
                                + "join account p on p.id = a.made_by left join bring_up b on b.id = a.bring_up_id "
                                + "where a.kind_id = :kind and a.removed_at is null order by s.name, a.bring_up_id "
                                + "nulls first, a.id",
                        Object[].class)
                .setParameter("kind", kindId)
                .getResultStream()
                .map(row -> new AdjustmentRow(
                        ((Number) row[0]).longValue(),
                        ((Number) row[1]).longValue(),
                        (String) row[2],
                        row[3] == null ? null : ((Number) row[3]).longValue(),
                        (String) row[4],
                        (String) row[5],
                        (String) row[6],
                        (Boolean) row[7],
                        (String) row[8],
                        (String) row[9],
                        (Instant) row[10]))
                .toList();
    }

    /** Makes an adjustment; one of the same place for the same site or bring-up gives way to it. */
    @Transactional
    public long make(String kindId, AdjustmentWanted wanted, Who.Person person) {
        Published published = kinds.newest(kindId);
        Kind kind = published.kind();
        String value = wanted.value() == null ? "" : wanted.value().strip();
        String password = wanted.password() == null ? "" : wanted.password();
        Optional<Secret> secret = password.isEmpty() ? Optional.empty() : Optional.of(Secret.of(password));
        Adjustments.Place place = check(kind, wanted);
        long bringUp = wanted.bringUpId() == null ? 0 : wanted.bringUpId();
        refuseElsewhere(wanted);
        agree(published, wanted, value, secret);
        remove(kindId, wanted, person);
        SealKeys.Box box = secret.map(word ->
                        sealed.sealText(SealKeys.ofAdjustment(kindId, wanted.siteId(), bringUp, wanted.what()), word))
                .orElse(null);
        long id;
        try {
            id = db.createNativeQuery(
                            "insert into kind_adjustment (kind_id, site_id, bring_up_id, what, value, key_id, nonce, "
                                    + "sealed, reason, made_by, made_at) values (:kind, :site, cast(:bringUp as "
                                    + "bigint), :what, :value, cast(:key as text), cast(:nonce as bytea), "
                                    + "cast(:sealed as bytea), :reason, :by, :now) returning id",
                            Long.class)
                    .setParameter("kind", kindId)
                    .setParameter("site", wanted.siteId())
                    .setParameter("bringUp", wanted.bringUpId())
                    .setParameter("what", wanted.what())
                    .setParameter("value", value)
                    .setParameter("key", box == null ? null : box.keyId())
                    .setParameter("nonce", box == null ? null : box.nonce())
                    .setParameter("sealed", box == null ? null : box.sealed())
                    .setParameter("reason", wanted.reason().strip())
                    .setParameter("by", person.id())
                    .setParameter("now", clock.instant())
                    .getSingleResult();
        } catch (ConstraintViolationException e) {
            throw Refusal.conflict(KindText.ANOTHER_LEAD_HAS_JUST_ADJUSTED_THE_SAME_VALUE.said());
        }
        memory.changes();
        journal.write(
                person,
                wanted.bringUpId(),
                null,
                KindText.ADJUSTED_OF_THE_KIND.text(
                        place.title(), kind.title(), wanted.reason().strip()),
                Map.of("value", place.value()),
                Map.of("value", value, "password", secret.isPresent() ? "set" : KindText.THE_KIND.text()));
        live.tell(KindMemory.EVERY_BRING_UP, "kinds");
        return id;
    }

    private static Adjustments.Place check(Kind kind, AdjustmentWanted wanted) {
        Adjustments.Place place = Adjustments.places(kind).stream()
                .filter(each -> each.what().equals(wanted.what()))
                .findFirst()
                .orElseThrow(() -> fault("what", KindText.HAS_NO_VALUE_OF_THAT_NAME.text(kind.title())));
        if (wanted.siteId() == null) {
            throw fault("siteId", KindText.CHOOSE_THE_SITE.text());
        }
        String reason = wanted.reason() == null ? "" : wanted.reason().strip();
        if (reason.length() < SHORTEST_REASON || reason.length() > LONGEST_REASON) {
            throw fault("reason", KindText.REASON_HAS_TO_CHARACTERS.text(SHORTEST_REASON, LONGEST_REASON));
        }
        if (wanted.password() != null && !wanted.password().isEmpty() && !place.secret()) {
            throw fault("password", KindText.VALUE_HAS_NO_PASSWORD.text());
        }
        if (wanted.password() != null && wanted.password().length() > LONGEST_PASSWORD) {
            throw fault("password", KindText.PASSWORD_HAS_AT_MOST_CHARACTERS.text(LONGEST_PASSWORD));
        }
        return place;
    }

    /** A value must be one in itself, and agree with what else is adjusted there. */
    private void agree(Published published, AdjustmentWanted wanted, String value, Optional<Secret> secret) {
        Kind others = kinds.adjustedBut(published, wanted.siteId(), wanted.bringUpId(), wanted.what());
        try {
            Adjustments.apply(others, wanted.what(), value, secret);
        } catch (IllegalArgumentException e) {
            throw fault("value", e.getMessage());
        }
    }

    private static Refusal fault(String field, String reason) {
        return Refusal.fields(List.of(new FieldFault(field, reason)));
    }

    /** A bring-up belongs to its site. */
    private void refuseElsewhere(AdjustmentWanted wanted) {
        boolean right = !db.createNativeQuery(
                        "select 1 from site s where s.id = :site and (cast(:bringUp as bigint) is null or "
                                + "exists (select "
                                + "1 from bring_up b where b.id = :bringUp and b.site_id = s.id))",
                        Integer.class)
                .setParameter("site", wanted.siteId())
                .setParameter("bringUp", wanted.bringUpId())
                .getResultList()
                .isEmpty();
        if (!right) {
            throw fault("siteId", KindText.NO_SUCH_SITE.text());
        }
    }

    private void remove(String kindId, AdjustmentWanted wanted, Who.Person person) {
        db.createNativeMutationQuery(
                        "update kind_adjustment set removed_by = :by, removed_at = :now where kind_id = :kind and "
                                + "site_id = :site and coalesce(bring_up_id, 0) = coalesce(cast(:bringUp as "
                                + "bigint), 0) "
                                + "and what = :what and removed_at is null")
                .setParameter("by", person.id())
                .setParameter("now", clock.instant())
                .setParameter("kind", kindId)
                .setParameter("site", wanted.siteId())
                .setParameter("bringUp", wanted.bringUpId())
                .setParameter("what", wanted.what())
                .executeUpdate();
    }

    /** From now on the kind's own value counts again. */
    @Transactional
    public void remove(String kindId, long id, Who.Person person) {
        int done = db.createNativeMutationQuery(
                        "update kind_adjustment set removed_by = :by, removed_at = :now where id = :id and kind_id = "
                                + ":kind and removed_at is null")
                .setParameter("by", person.id())
                .setParameter("now", clock.instant())
                .setParameter("id", id)
                .setParameter("kind", kindId)
                .executeUpdate();
        if (done == 0) {
            throw Refusal.notFound(KindText.NO_SUCH_ADJUSTMENT.said());
        }
        memory.changes();
        journal.write(
                person, null, null, KindText.REMOVED_AN_ADJUSTMENT_OF_THE_KIND.text(kindId), Map.of("id", id), null);
        live.tell(KindMemory.EVERY_BRING_UP, "kinds");
    }
}
