package lychnos.server.handover;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import lychnos.server.api.problem.Reason;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.api.problem.Shapes;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.text.HandoverText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Facts;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/**
 * Exceptions that were accepted, and what is still to come: each with a reason, a date and a lead who answers for it.
 */
@ApplicationScoped
public class OpenItems {

    /** Proposed where no end date of what bridges the time is known. */
    private static final int DAYS_FOR_WHAT_IS_LEFT = 30;

    private final Session db;
    private final BringUps bringUps;
    private final Facts facts;
    private final Shapes shapes;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    OpenItems(Session db, BringUps bringUps, Facts facts, Shapes shapes, Journal journal, Live live, Clock clock) {
        this.facts = facts;
        this.db = db;
        this.bringUps = bringUps;
        this.shapes = shapes;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** One of them. */
    public record OpenItemView(
            long id,
            Long unitId,
            String unit,
            String sort,
            String text,
            String reason,
            LocalDate due,
            String lead,
            boolean late) {

        Map<String, Object> body() {
            return new TreeMap<>(Map.of(
                    "unit", unit, "sort", sort, "text", text, "reason", reason, "due", due.toString(), "lead", lead));
        }

        /** In one sentence. */
        String sentence() {
            return (unit.isEmpty() ? "" : unit + ": ") + text + ", due " + due + ": " + reason + " (" + lead + ")";
        }
    }

    /** Something that should be noted before its unit is signed: what a machine was given for a time only. */
    public record OpenItemProposal(long unitId, String unit, String text, LocalDate due) {}

    /** What ends on a day or was left for later, of units for which nothing is noted. */
    @Transactional
    public List<OpenItemProposal> proposed(long bringUpId) {
        Set<Long> noted = new HashSet<>(db.createQuery(
                        "select i.unitId from OpenItem i where i.bringUpId = :id and i.unitId is not null and "
                                + "i.closedAt is null",
                        Long.class)
                .setParameter("id", bringUpId)
                .getResultList());
        Map<Long, List<String>> leftForLater = leftForLater(bringUpId);
        List<OpenItemProposal> proposals = new ArrayList<>();
        facts.of(bringUps.get(bringUpId)).forEach((unit, known) -> {
            if (!noted.contains(unit.id)) {
                known.ends()
                        .forEach((title, day) ->
                                proposals.add(new OpenItemProposal(unit.id, unit.label(), title + " " + day, day)));
                leftForLater
                        .getOrDefault(unit.id, List.of())
                        .forEach(page -> proposals.add(new OpenItemProposal(
                                unit.id,
                                unit.label(),
                                HandoverText.PAGE_IS_LEFT_FOR_LATER.text(page),
                                LocalDate.now(clock).plusDays(DAYS_FOR_WHAT_IS_LEFT))));
            }
        });
        return proposals;
    }

    /** By unit, the pages that its setup ended without, by title. */
    private Map<Long, List<String>> leftForLater(long bringUpId) {
        return db.createNativeQuery(
                        "select d.unit_id, s.title from dialogue_step s join dialogue d on d.id = s.dialogue_id and "
                                + "not d.earlier join run r on r.id = d.run_id and not r.earlier join unit u on "
                                + "u.id = d.unit_id where u.bring_up_id = :id and s.progress = 'LATER' order by "
                                + "d.id, s.place",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .collect(Collectors.groupingBy(
                        row -> ((Number) row[0]).longValue(),
                        Collectors.mapping(row -> (String) row[1], Collectors.toList())));
    }

    /** What is to be noted. */
    public record OpenItemNote(
            Long unit,
            String sort,
            @Reason(message = "SUMMARY") String text,
            @Reason String reason,
            @NotNull(message = "DUE_DATE") LocalDate due) {}

    /** Those that are not closed, the earliest first. */
    @Transactional
    public List<OpenItemView> of(long bringUpId) {
        LocalDate today = LocalDate.now(clock);
        return db.createNativeQuery(
                        "select i.id, i.unit_id, i.sort, i.text, i.reason, i.due, a.name from open_item i join "
                                + "account a on a.id = i.lead where i.bring_up_id = :id and i.closed_at is null "
                                + "order by i.due, i.id",
                        Object[].class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .map(row -> {
                    Long unit = row[1] == null ? null : ((Number) row[1]).longValue();
                    LocalDate due = row[5] instanceof LocalDate date ? date : ((java.sql.Date) row[5]).toLocalDate();
                    return new OpenItemView(
                            ((Number) row[0]).longValue(),
                            unit,
                            unit == null ? "" : bringUps.unit(unit).label(),
                            (String) row[2],
                            (String) row[3],
                            (String) row[4],
                            due,
                            (String) row[6],
                            due.isBefore(today));
                })
                .toList();
    }

    @Transactional
    public long note(long bringUpId, OpenItemNote note, Who.Person person) {
        bringUps.get(bringUpId);
        List<FieldFault> faults = shapes.faults(note);
        if (!List.of(OpenItem.EXCEPTION, OpenItem.OPEN).contains(String.valueOf(note.sort))) {
            throw Refusal.bad(HandoverText.TYPE_IS_AN_OPEN_ITEM_OR_AN_ACCEPTED.said());
        }
        if (note.due != null && note.due.isBefore(LocalDate.now(clock))) {
            faults.add(new FieldFault("due", HandoverText.HAS_PASSED.said(note.due)));
        }
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
        Unit unit = note.unit == null ? null : bringUps.unit(note.unit);
        if (unit != null && !unit.bringUpId.equals(bringUpId)) {
            throw Refusal.bad(HandoverText.UNIT_BELONGS_TO_ANOTHER_BRING_UP.said());
        }
        OpenItem item = new OpenItem();
        item.bringUpId = bringUpId;
        item.unitId = note.unit;
        item.sort = note.sort;
        item.text = note.text.strip();
        item.reason = note.reason.strip();
        item.due = note.due;
        item.lead = person.id();
        item.madeAt = clock.instant();
        db.persist(item);
        db.flush();
        journal.write(
                person,
                bringUpId,
                note.unit,
                (note.sort.equals(OpenItem.EXCEPTION)
                                ? HandoverText.ACCEPTED_FOR_THE_TIME_BEING
                                : HandoverText.NOTED_AS_OPEN)
                        .text(item.text, item.due),
                null,
                note);
        live.tell(bringUpId, "handover");
        return item.id;
    }

    @Transactional
    public void close(long id, Who.Person person) {
        OpenItem item = db.find(OpenItem.class, id);
        if (item == null) {
            throw Refusal.notFound(HandoverText.NO_SUCH_ITEM.said());
        }
        if (item.closedAt != null) {
            throw Refusal.conflict(HandoverText.ITEM_IS_ALREADY_CLOSED.said());
        }
        item.closedAt = clock.instant();
        item.closedBy = person.id();
        journal.write(person, item.bringUpId, item.unitId, HandoverText.CLOSED.text(item.text), null, null);
        live.tell(item.bringUpId, "handover");
    }
}
