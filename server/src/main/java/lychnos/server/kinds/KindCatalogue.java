package lychnos.server.kinds;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.kind.KindDifference;
import lychnos.core.kind.KindSummary;
import lychnos.server.api.problem.Refusal;
import lychnos.server.text.KindText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** The kinds as people look at them: the list, and the page of one kind. */
@ApplicationScoped
public class KindCatalogue {

    /** How many setups the page of a kind lists. */
    private static final int MOST_SETUPS = 12;

    private final Session db;
    private final Kinds kinds;
    private final KindDrafts drafts;
    private final KindAdjustments adjustments;

    KindCatalogue(Session db, Kinds kinds, KindDrafts drafts, KindAdjustments adjustments) {
        this.drafts = drafts;
        this.db = db;
        this.kinds = kinds;
        this.adjustments = adjustments;
    }

    /**
     * A kind in the list.
     *
     * @param version its newest version, or null while it has only a draft
     * @param way how its first setup is done, such as {@code redfish}; empty while it has only a draft
     * @param shipped whether that version came with the program
     * @param update whether this program ships another text than any version has
     * @param units that use it, of any version
     * @param older how many of them use an earlier version
     * @param done setups that came to their end
     * @param usualSeconds how long half of them took at most, from the first step to the last; null where there is none
     * @param last how the newest setup that has ended came out, and when; null where there is none
     */
    public record KindLine(
            String id,
            String title,
            @Nullable Integer version,
            String way,
            boolean shipped,
            boolean retired,
            boolean draft,
            boolean update,
            long units,
            long older,
            long done,
            @Nullable Long usualSeconds,
            @Nullable LastSetup last) {}

    /** How a setup came out. */
    public record LastSetup(String state, Instant at) {}

    /**
     * A version in the history.
     *
     * @param despite why it was published although a recording did not agree, or empty
     */
    public record KindVersionLine(
            int version,
            String digest,
            String note,
            String despite,
            boolean shipped,
            String by,
            Instant at,
            long units) {}

    /**
     * A setup that has ended.
     *
     * @param seconds from its first step to the last
     */
    public record KindSetupLine(
            long bringUpId, long unitId, String unit, int version, String state, Instant endedAt, long seconds) {}

    /** Where a version is used. */
    public record KindUse(long bringUpId, String bringUp, int version, long units) {}

    /**
     * The page of a kind.
     *
     * @param fault why its newest version cannot be read by this program; null where it can
     * @param summary what its newest version says; null while it has only a draft
     * @param draft what somebody is writing for the next version; null where nobody is
     * @param adjustments what its site does otherwise, by site
     */
    public record KindView(
            KindLine line,
            String about,
            String shortName,
            @Nullable String fault,
            @Nullable KindSummary summary,
            KindDrafts.@Nullable KindDraftView draft,
            List<KindVersionLine> history,
            List<KindUse> uses,
            List<KindSetupLine> setups,
            List<KindAdjustments.AdjustmentRow> adjustments,
            List<KindAdjustments.AdjustmentPlace> places,
            List<KindAdjustments.AdjustmentSite> sites) {}

    /** Every kind, in the order of titles; retired ones too. */
    @Transactional
    public List<KindLine> lines() {
        return lines(null);
    }

    private List<KindLine> lines(String only) {
        Map<String, KindSetups> setups = setups();
        return db.createNativeQuery(
                        "select k.id, coalesce(v.title, k.id), v.version, coalesce(v.way, ''), "
                                + "coalesce(v.shipped, false), "
                                + "k.retired_at is not null, exists (select 1 from kind_draft d where "
                                + "d.kind_id = k.id), "
                                + "array_to_string(array(select digest from kind_version where kind_id = k.id), ' '), "
                                + "(select count(*) from unit_kind u where u.kind = k.id and u.in_use), "
                                + "(select count(*) from unit_kind u where u.kind = k.id and u.in_use and "
                                + "u.kind_version < v.version) from kind k left join lateral (select version, title, "
                                + "way, shipped from kind_version where kind_id = k.id order by version desc limit 1) "
                                + "v on true where cast(:only as text) is null or k.id = :only "
                                + "order by lower(coalesce(v.title, k.id)), k.id",
                        Object[].class)
                .setParameter("only", only)
                .getResultStream()
                .map(row -> {
                    String id = (String) row[0];
                    KindSetups done = setups.getOrDefault(id, KindSetups.NONE);
                    return new KindLine(
                            id,
                            (String) row[1],
                            (Integer) row[2],
                            (String) row[3],
                            (Boolean) row[4],
                            (Boolean) row[5],
                            (Boolean) row[6],
                            row[2] != null && shipsAnother(id, (String) row[7]),
                            ((Number) row[8]).longValue(),
                            ((Number) row[9]).longValue(),
                            done.done,
                            done.usualSeconds,
                            done.last);
                })
                .toList();
    }

    private static boolean shipsAnother(String id, String digests) {
        return ShippedKinds.text(id)
                .map(text -> !digests.contains(KindVersion.digest(text)))
                .orElse(false);
    }

    private record KindSetups(long done, Long usualSeconds, LastSetup last) {

        static final KindSetups NONE = new KindSetups(0, null, null);
    }

    /** By kind, what became of the setups of its units. */
    private Map<String, KindSetups> setups() {
        Map<String, KindSetups> all = new HashMap<>();
        db.createNativeQuery(
                        "select u.kind, count(*) filter (where r.state = 'DONE'), cast(percentile_cont(0.5) "
                                + "within group "
                                + "(order by extract(epoch from r.ended_at - r.started_at)) filter (where r.state = "
                                + "'DONE') as bigint), (array_agg(r.state order by r.ended_at desc))[1], "
                                + "max(r.ended_at) from unit_run r join unit_kind u on u.unit_id = r.unit_id where "
                                + "r.purpose in "
                                + "('configure', 'console') and r.ended_at is not null and r.started_at is not null "
                                + "group by u.kind",
                        Object[].class)
                .getResultStream()
                .forEach(row -> all.put(
                        (String) row[0],
                        new KindSetups(
                                ((Number) row[1]).longValue(),
                                row[2] == null ? null : ((Number) row[2]).longValue(),
                                new LastSetup((String) row[3], (Instant) row[4]))));
        return all;
    }

    /** @throws Refusal if there is no such kind */
    @Transactional
    public KindView page(String id) {
        KindLine line = lines(id).stream().findFirst().orElseThrow(() -> Refusal.notFound(KindText.NO_KIND.said(id)));
        String fault =
                line.version == null ? null : kinds.fault(id, line.version).orElse(null);
        Optional<Published> newest = fault == null
                ? Optional.ofNullable(line.version).map(version -> kinds.version(id, version))
                : Optional.empty();
        return new KindView(
                line,
                newest.map(each -> each.kind().about()).orElse(""),
                newest.map(each -> each.kind().shortName()).orElse(""),
                fault,
                newest.map(each -> KindSummary.of(each.kind())).orElse(null),
                line.draft ? drafts.get(id) : null,
                history(id),
                uses(id),
                lastSetups(id),
                adjustments.of(id),
                newest.map(each -> KindAdjustments.places(each.kind())).orElse(List.of()),
                adjustments.sites());
    }

    private List<KindSetupLine> lastSetups(String id) {
        return db.createNativeQuery(
                        "select u.bring_up_id, u.unit_id, u.label, u.kind_version, r.state, r.ended_at, "
                                + "cast(extract(epoch from "
                                + "r.ended_at - r.started_at) as bigint) from unit_run r join unit_kind u on "
                                + "u.unit_id = r.unit_id "
                                + "where u.kind = :kind and r.purpose in ('configure', 'console') and r.ended_at is "
                                + "not null and r.started_at is not null order by r.ended_at desc limit "
                                + MOST_SETUPS,
                        Object[].class)
                .setParameter("kind", id)
                .getResultStream()
                .map(row -> new KindSetupLine(
                        ((Number) row[0]).longValue(),
                        ((Number) row[1]).longValue(),
                        (String) row[2],
                        (Integer) row[3],
                        (String) row[4],
                        (Instant) row[5],
                        ((Number) row[6]).longValue()))
                .toList();
    }

    private List<KindVersionLine> history(String id) {
        return db.createNativeQuery(
                        "select v.version, v.digest, v.note, v.despite, v.shipped, coalesce(a.name, ''), "
                                + "v.published_at, "
                                + "(select count(*) from unit_kind u where u.kind = v.kind_id and u.kind_version = "
                                + "v.version and u.in_use) from kind_version v left join account a on a.id = "
                                + "v.published_by where v.kind_id = :id order by v.version desc",
                        Object[].class)
                .setParameter("id", id)
                .getResultStream()
                .map(row -> new KindVersionLine(
                        (Integer) row[0],
                        (String) row[1],
                        (String) row[2],
                        (String) row[3],
                        (Boolean) row[4],
                        (String) row[5],
                        (Instant) row[6],
                        ((Number) row[7]).longValue()))
                .toList();
    }

    private List<KindUse> uses(String id) {
        return db.createNativeQuery(
                        "select b.id, b.name, u.kind_version, count(*) from unit_kind u join bring_up b on b.id = "
                                + "u.bring_up_id where u.kind = :id and u.in_use group by b.id, b.name, "
                                + "u.kind_version order by b.id, u.kind_version",
                        Object[].class)
                .setParameter("id", id)
                .getResultStream()
                .map(row -> new KindUse(
                        ((Number) row[0]).longValue(),
                        (String) row[1],
                        (Integer) row[2],
                        ((Number) row[3]).longValue()))
                .toList();
    }

    /** What differs between two versions of a kind; version 0 of the newer side is what this program ships. */
    @Transactional
    public List<KindDifference.KindChange> difference(String id, int from, int to) {
        return KindDifference.between(
                kinds.version(id, from).kind(),
                to == 0
                        ? ShippedKinds.text(id)
                                .map(lychnos.core.kind.KindReader::read)
                                .orElseThrow(() -> Refusal.notFound(KindText.PROGRAM_SHIPS_NO_KIND.said(id)))
                        : kinds.version(id, to).kind());
    }
}
