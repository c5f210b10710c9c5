package lychnos.server.kinds;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFault;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.KindSummary;
import lychnos.server.api.problem.IfMatch;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.text.KindText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Drafts of kinds, and what becomes of them: published as the next version, or thrown away. */
@ApplicationScoped
public class KindDrafts {

    /** Where the form for a new kind has its place among the pages of kinds. */
    private static final String FORM = "new";

    private static final int LONGEST_NOTE = 400;
    private static final int LONGEST_TEXT = 100_000;

    private final Session db;
    private final KindMemory memory;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    KindDrafts(Session db, KindMemory memory, Journal journal, Live live, Clock clock) {
        this.db = db;
        this.memory = memory;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /**
     * A draft as it stands.
     *
     * @param faults everything that is wrong in it
     * @param title of the kind, or empty while there are faults
     * @param summary what it says, or null while there are faults
     */
    public record KindDraftView(
            String kindId,
            String text,
            String version,
            List<KindFault> faults,
            String title,
            @Nullable KindSummary summary) {

        static KindDraftView of(KindDraft draft) {
            List<KindFault> faults = wrongIn(draft);
            Kind kind = faults.isEmpty() ? KindReader.read(draft.text) : null;
            return new KindDraftView(
                    draft.kindId,
                    draft.text,
                    String.valueOf(draft.revision),
                    faults,
                    kind == null ? "" : kind.title(),
                    kind == null ? null : KindSummary.of(kind));
        }
    }

    /** What is wrong in a draft; its id must be that of the kind it is a draft of. */
    private static List<KindFault> wrongIn(KindDraft draft) {
        try {
            Kind kind = KindReader.read(draft.text);
            return kind.id().equals(draft.kindId)
                    ? List.of()
                    : List.of(
                            new KindFault(1, 1, "kind", KindText.DESCRIPTION_HAS_THE_ID.text(kind.id(), draft.kindId)));
        } catch (KindFaults e) {
            return e.faults();
        }
    }

    @Transactional
    Optional<KindDraftView> find(String id) {
        return Optional.ofNullable(db.find(KindDraft.class, id)).map(KindDraftView::of);
    }

    /** @throws Refusal if there is none */
    @Transactional
    public KindDraftView get(String id) {
        return KindDraftView.of(draft(id, LockModeType.NONE));
    }

    private KindDraft draft(String id, LockModeType lock) {
        KindDraft draft = db.find(KindDraft.class, id, lock);
        if (draft == null) {
            throw Refusal.notFound(KindText.NO_DRAFT.said(id));
        }
        return draft;
    }

    /**
     * Saves a draft as it is typed, faults and all. The kind becomes known with its first draft.
     *
     * @param seen the version of the draft that was changed, or null; where there is no draft yet, anything but null is
     * outdated
     */
    @Transactional
    public KindDraftView save(String id, String text, String seen, Who.Person person) {
        if (!id.matches("[a-z][a-z0-9-]{0,39}") || id.equals(FORM)) {
            throw Refusal.bad(KindText.IS_NOT_A_VALID_ID.said(id));
        }
        if (text.length() > LONGEST_TEXT) {
            throw Refusal.bad(KindText.DESCRIPTION_HAS_AT_MOST_CHARACTERS.said(LONGEST_TEXT, text.length()));
        }
        boolean fresh = db.createNativeMutationQuery("insert into kind (id) values (:id) on conflict do nothing")
                        .setParameter("id", id)
                        .executeUpdate()
                > 0;
        lock(id);
        KindDraft draft = db.find(KindDraft.class, id, LockModeType.PESSIMISTIC_WRITE);
        IfMatch.require(seen, draft == null ? "0" : String.valueOf(draft.revision), KindText.DRAFT_OF.text(id));
        boolean begun = draft == null;
        if (begun) {
            draft = new KindDraft();
            draft.kindId = id;
        }
        draft.text = text;
        draft.revision++;
        draft.editedBy = person.id();
        draft.editedAt = clock.instant();
        if (begun) {
            db.persist(draft);
        }
        db.flush();
        journal.write(
                person,
                null,
                null,
                fresh
                        ? KindText.BEGAN_THE_KIND.text(id)
                        : begun
                                ? KindText.BEGAN_A_DRAFT_OF_THE_KIND.text(id)
                                : KindText.CHANGED_THE_DRAFT_OF_THE_KIND.text(id),
                null,
                Map.of("digest", KindVersion.digest(text)));
        live.tell(KindMemory.EVERY_BRING_UP, "kinds");
        return KindDraftView.of(draft);
    }

    /** Throws a draft away; a kind that never had a version goes with it. */
    @Transactional
    public void discard(String id, String seen, Who.Person person) {
        lock(id);
        KindDraft draft = draft(id, LockModeType.PESSIMISTIC_WRITE);
        IfMatch.require(seen, String.valueOf(draft.revision), KindText.DRAFT_OF.text(id));
        db.remove(draft);
        db.flush();
        db.createNativeMutationQuery("delete from kind where id = :id and not exists (select 1 from kind_version where "
                        + "kind_id = :id)")
                .setParameter("id", id)
                .executeUpdate();
        journal.write(person, null, null, KindText.DELETED_THE_DRAFT_OF_THE_KIND.text(id), null, null);
        live.tell(KindMemory.EVERY_BRING_UP, "kinds");
    }

    /**
     * Makes the draft the next version.
     *
     * @param despite why it is published although a recording does not agree, or empty
     */
    @Transactional
    int publish(String id, String note, String despite, String seen, Who.Person person) {
        lock(id);
        KindDraft draft = draft(id, LockModeType.PESSIMISTIC_WRITE);
        IfMatch.require(seen, String.valueOf(draft.revision), KindText.DRAFT_OF.text(id));
        List<KindFault> faults = wrongIn(draft);
        if (!faults.isEmpty()) {
            throw Refusal.conflict(
                    KindText.DRAFT_HAS_FAULTS_TO_CORRECT.said(faults.size()), Map.of("kindFaults", faults));
        }
        int version = add(id, draft.text, false, note, despite, person);
        db.remove(draft);
        return version;
    }

    /** Takes what a newer program ships as the next version. */
    @Transactional
    public int takeShipped(String id, Who.Person person) {
        lock(id);
        String text =
                ShippedKinds.text(id).orElseThrow(() -> Refusal.notFound(KindText.PROGRAM_SHIPS_NO_KIND.said(id)));
        return add(id, text, true, KindText.AS_IT_IS_SHIPPED_WITH_THIS_VERSION.text(), "", person);
    }

    private int add(String id, String text, boolean shipped, String note, String despite, Who.Person person) {
        String said = note == null ? "" : note.strip();
        notTooLong("note", "A note", said);
        notTooLong("despite", "A reason", despite.strip());
        Kind kind = KindReader.read(text);
        String digest = KindVersion.digest(text);
        KindVersion newest = newest(id);
        if (newest != null && newest.digest.equals(digest)) {
            throw Refusal.conflict(KindText.VERSION_SAYS_THE_SAME.said(newest.key.version()));
        }
        KindVersion version = new KindVersion();
        version.key = new KindVersion.KindVersionKey(id, newest == null ? 1 : newest.key.version() + 1);
        version.text = text;
        version.digest = digest;
        version.title = kind.title();
        version.way = kind.setup().by();
        version.shipped = shipped;
        version.note = said;
        version.despite = despite.strip();
        version.publishedBy = person.id();
        version.publishedAt = clock.instant();
        db.persist(version);
        db.flush();
        memory.changes();
        journal.write(
                person,
                null,
                null,
                KindText.PUBLISHED_VERSION_OF_THE_KIND.text(version.key.version(), kind.title()),
                newest == null ? null : Map.of("version", newest.key.version(), "digest", newest.digest),
                despite.isBlank()
                        ? Map.of("kind", id, "version", version.key.version(), "digest", digest)
                        : Map.of(
                                "kind",
                                id,
                                "version",
                                version.key.version(),
                                "digest",
                                digest,
                                "despite",
                                version.despite));
        live.tell(KindMemory.EVERY_BRING_UP, "kinds");
        return version.key.version();
    }

    private static void notTooLong(String field, String what, String text) {
        if (text.length() > LONGEST_NOTE) {
            throw Refusal.fields(
                    List.of(new Refusal.FieldFault(field, KindText.HAS_AT_MOST_CHARACTERS.said(what, LONGEST_NOTE))));
        }
    }

    private KindVersion newest(String id) {
        return db.createQuery("from KindVersion where key.kindId = :id order by key.version desc", KindVersion.class)
                .setParameter("id", id)
                .setMaxResults(1)
                .getResultStream()
                .findFirst()
                .orElse(null);
    }

    /** No new unit takes a kind that is retired; those that have it keep it. */
    @Transactional
    public void retire(String id, boolean retired, Who.Person person) {
        lock(id);
        int done = db.createNativeMutationQuery(
                        "update kind set retired_at = case when :retired then cast(:now as timestamptz) end "
                                + "where id = :id and (retired_at "
                                + "is null) = :retired and exists (select 1 from kind_version where kind_id = :id)")
                .setParameter("id", id)
                .setParameter("retired", retired)
                .setParameter("now", clock.instant())
                .executeUpdate();
        if (done == 0) {
            throw Refusal.conflict(
                    retired ? KindText.KIND_IS_ALREADY_RETIRED.said() : KindText.KIND_IS_NOT_RETIRED.said());
        }
        memory.changes();
        journal.write(
                person, null, null, KindText.CHANGED_KIND.text((retired ? "retired" : "reinstated"), id), null, null);
        live.tell(KindMemory.EVERY_BRING_UP, "kinds");
    }

    /** Locks a kind: one change at a time. */
    private void lock(String id) {
        boolean there = !db.createNativeQuery("select 1 from kind where id = :id for update", Integer.class)
                .setParameter("id", id)
                .getResultList()
                .isEmpty();
        if (!there) {
            throw Refusal.notFound(KindText.NO_KIND.said(id));
        }
    }
}
