package lychnos.server.handover.chain;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.record.CanonicalJson;
import lychnos.core.record.Chain;
import lychnos.core.record.Chain.Link;
import lychnos.core.text.Sha256;
import lychnos.server.database.Rows;
import lychnos.server.text.HandoverText;
import org.hibernate.Session;

/**
 * Puts the journal and what was signed into one chain, and looks whether it still holds. Only one server appends at a
 * time: the order in which transactions end is the order of the links.
 */
@ApplicationScoped
public class Chaining {

    static final String JOURNAL = "journal";
    /** An entry that has no canonical form: its link says so, and the chain goes on. */
    static final String UNLINKED = "unlinked";

    public static final String RECORD = "record";
    public static final String END = "end";
    public static final String PACK = "pack";

    /** Of the lock that appending takes for the rest of its transaction. */
    private static final long LOCK = 0x6c79636863686eL;

    private static final int AT_ONCE = 5000;

    /**
     * The forms in which an entry was written for its digest: links are never changed, so that the first one is still
     * read.
     */
    private static final int IDS_AS_NUMBERS = 1;

    private static final int IDS_AS_TEXT = 2;

    private final Session db;
    private final ChainHead head;

    Chaining(Session db, ChainHead head) {
        this.db = db;
        this.head = head;
    }

    /** What was found. */
    public record ChainLook(long links, long records, List<Chain.Break> breaks, String last) {}

    /** Appends the journal as far as it is not in the chain, and then this. */
    @Transactional(Transactional.TxType.MANDATORY)
    public Link append(String sort, long ref, String body) {
        lock();
        Link link = Link.after(journal(), sort, body);
        write(List.of(link), List.of(ref));
        head.remember(link);
        return link;
    }

    /** Appends the journal as far as it is not in the chain; gives the last link, or null where there is none yet. */
    @Transactional
    public Link appendJournal() {
        lock();
        return journal();
    }

    private void lock() {
        db.createNativeQuery("select cast(pg_advisory_xact_lock(:lock) as text)", String.class)
                .setParameter("lock", LOCK)
                .getSingleResult();
    }

    private Link journal() {
        Link last = last();
        List<Link> links = new ArrayList<>();
        List<Long> refs = new ArrayList<>();
        for (Object[] row : db.createNativeQuery(
                        "select id, at, actor, bring_up_id, unit_id, act, cast(before as text), cast(after as text) "
                                + "from journal j"
                                + " where not exists (select 1 from chain_link c where c.sort in ('journal', "
                                + "'unlinked') and c.ref = j.id) order by id",
                        Object[].class)
                .getResultList()) {
            Optional<String> digest = digest(row, IDS_AS_TEXT);
            last = Link.after(last, digest.isPresent() ? JOURNAL : UNLINKED, digest.orElseGet(() -> unlinked(row)));
            links.add(last);
            refs.add(((Number) row[0]).longValue());
        }
        write(links, refs);
        if (last != null) {
            head.remember(last);
        }
        return last;
    }

    private Link last() {
        return db.createNativeQuery(
                        "select number, sort, body, previous, digest from chain_link order by number desc limit 1",
                        Object[].class)
                .getResultStream()
                .findFirst()
                .map(Chaining::link)
                .orElse(null);
    }

    private static Link link(Object[] row) {
        return new Link(
                ((Number) row[0]).longValue(), (String) row[1], (String) row[2], (String) row[3], (String) row[4]);
    }

    /** The digest of a journal entry; nothing where it has no canonical form. */
    private static Optional<String> digest(Object[] row, int form) {
        try {
            return Optional.of(CanonicalJson.digest(entry(row, form)));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** What stands for an entry without a canonical form: its number and its moment. */
    private static String unlinked(Object[] row) {
        return CanonicalJson.digest(Map.of("number", row[0].toString(), "at", row[1]));
    }

    private static Object id(Object number, int form) {
        return number == null ? null : form == IDS_AS_TEXT ? number.toString() : (Object) ((Number) number).longValue();
    }

    /** What stands in the journal, without its number: that is the database's own. */
    private static Map<String, Object> entry(Object[] row, int form) {
        Map<String, Object> entry = new LinkedHashMap<>();
        entry.put("at", (Instant) row[1]);
        entry.put("actor", row[2]);
        entry.put("bringUp", id(row[3], form));
        entry.put("unit", id(row[4], form));
        entry.put("act", row[5]);
        entry.put("before", row[6]);
        entry.put("after", row[7]);
        return entry;
    }

    private void write(List<Link> links, List<Long> refs) {
        if (links.isEmpty()) {
            return;
        }
        Map<Link, Long> byLink = new LinkedHashMap<>();
        for (int i = 0; i < links.size(); i++) {
            byLink.put(links.get(i), refs.get(i));
        }
        Rows.of(List.copyOf(byLink.entrySet()))
                .column("bigint", each -> each.getKey().number())
                .column("text", each -> each.getKey().sort())
                .column("bigint", Map.Entry::getValue)
                .column("text", each -> each.getKey().body())
                .column("text", each -> each.getKey().previous())
                .column("text", each -> each.getKey().digest())
                .write(
                        db,
                        "insert into chain_link (number, sort, ref, body, previous, digest, form) select *, "
                                + IDS_AS_TEXT + " from %s");
    }

    /** The links from the first one of a bring-up's records on, to the last. */
    @Transactional
    public List<Link> since(long bringUpId) {
        return db.createNativeQuery(
                        "select number, sort, body, previous, digest from chain_link where number >= (select "
                                + "min(c.number) from chain_link c join chained_record r on r.id = c.ref and c.sort = "
                                + "'record' where r.bring_up_id = :id) order by number",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .map(Chaining::link)
                .toList();
    }

    public static String end(Instant at, long by, String why) {
        return CanonicalJson.digest(Map.of("at", at, "by", by, "why", why));
    }

    /** What this server has seen as the end of the chain must still stand in it. */
    private Optional<Chain.Break> notAnAncestor() {
        try {
            Optional<ChainHead.Seen> seen = head.seen();
            if (seen.isEmpty()) {
                return Optional.empty();
            }
            List<String> now = db.createNativeQuery(
                            "select digest from chain_link where number = :number", String.class)
                    .setParameter("number", seen.get().number())
                    .getResultList();
            return now.contains(seen.get().digest())
                    ? Optional.empty()
                    : Optional.of(new Chain.Break(
                            seen.get().number(), HandoverText.SERVER_HAS_SEEN_ANOTHER_LINK_HERE_BEFORE.text()));
        } catch (IOException e) {
            return Optional.of(new Chain.Break(0, HandoverText.FILE_WITH_THE_END_OF_THE_CHAIN.text(e.getMessage())));
        }
    }

    /** Looks at the whole chain, and whether what it was made of is still as it was. */
    @Transactional
    public ChainLook look() {
        appendJournal();
        List<Chain.Break> breaks = new ArrayList<>();
        notAnAncestor().ifPresent(breaks::add);
        long records = 0;
        long count = 0;
        Link before = null;
        List<Object[]> rows = page(0);
        while (!rows.isEmpty()) {
            List<Link> links = new ArrayList<>(before == null ? List.of() : List.of(before));
            rows.forEach(row -> links.add(link(row)));
            Chain.broken(links).ifPresent(breaks::add);
            for (Object[] row : rows) {
                String what = source(row);
                if (what != null) {
                    breaks.add(new Chain.Break(((Number) row[0]).longValue(), what));
                }
                records += row[1].equals(RECORD) ? 1 : 0;
            }
            count += rows.size();
            before = links.get(links.size() - 1);
            rows = page(before.number());
        }
        return new ChainLook(
                count,
                records,
                breaks.size() > 20 ? breaks.subList(0, 20) : breaks,
                before == null ? Chain.BEGINNING : before.digest());
    }

    private List<Object[]> page(long after) {
        return db.createNativeQuery(
                        "select c.number, c.sort, c.body, c.previous, c.digest, c.ref, j.at, j.actor, j.bring_up_id, "
                                + "j.unit_id, j.act, cast(j.before as text), cast(j.after as text), r.body as "
                                + "record, r.ended_at, r.ended_by, r.ended_why, p.manifest, c.form from "
                                + "chain_link c"
                                + " left join journal j on c.sort in ('journal', 'unlinked') and j.id = c.ref left "
                                + "join chained_record r on c.sort in ('record', 'end') and r.id = c.ref left join "
                                + "chained_pack p on c.sort = 'pack' and p.id = c.ref where c.number > "
                                + ":after order by c.number limit "
                                + AT_ONCE,
                        Object[].class)
                .setParameter("after", after)
                .getResultList();
    }

    /** What does not fit of the thing that a link was made of; null where it fits. */
    private static String source(Object[] row) {
        String body = (String) row[2];
        Object[] entry = {row[5], row[6], row[7], row[8], row[9], row[10], row[11], row[12]};
        Optional<String> now =
                switch ((String) row[1]) {
                    case JOURNAL -> row[6] == null ? Optional.empty() : digest(entry, ((Number) row[18]).intValue());
                    case UNLINKED -> row[6] == null ? Optional.empty() : Optional.of(unlinked(entry));
                    case RECORD -> Optional.ofNullable((String) row[13]).map(text -> Sha256.hex(text));
                    case END ->
                        row[14] == null
                                ? Optional.empty()
                                : Optional.of(end((Instant) row[14], ((Number) row[15]).longValue(), (String) row[16]));
                    default -> Optional.ofNullable((String) row[17]);
                };
        String what = row[1].equals(JOURNAL) || row[1].equals(UNLINKED)
                ? HandoverText.JOURNAL_ENTRY.text()
                : row[1].equals(PACK) ? "A pack's digest" : "A record";
        return now.isEmpty()
                ? HandoverText.THAT_IT_WAS_MADE_OF_IS_GONE.text(what)
                : now.get().equals(body) ? null : HandoverText.WAS_CHANGED_AFTER_IT_WAS_PUT_IN.text(what);
    }
}
