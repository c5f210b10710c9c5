package lychnos.server.requests;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import lychnos.core.request.TeamRequest;
import lychnos.core.request.Tested;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.api.problem.Shapes;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.requests.RequestChange.OwnRequest;
import lychnos.server.requests.RequestChange.SeenRequest;
import lychnos.server.requests.RequestsView.RequestView;
import lychnos.server.text.RequestsText;
import lychnos.server.text.ShapeText;
import lychnos.server.units.BringUps;
import org.hibernate.Session;

/** What other teams are asked for, with what people have noted. */
@ApplicationScoped
public class Requests {

    /** A list of thousands of machines is read in the file for other teams. */
    private static final int EXAMPLES = 12;

    private final Session db;
    private final BringUps bringUps;
    private final AskedByPlan asked;
    private final Journal journal;
    private final Live live;
    private final Shapes shapes;
    private final Clock clock;

    Requests(Session db, BringUps bringUps, AskedByPlan asked, Journal journal, Live live, Shapes shapes, Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.asked = asked;
        this.journal = journal;
        this.live = live;
        this.shapes = shapes;
        this.clock = clock;
    }

    /**
     * A request, its measurement and the notes of people.
     *
     * @param plan null where the plan does not ask for it
     * @param noted null until somebody notes something
     */
    record KnownRequest(TeamRequest plan, Tested tested, NotedRequest noted) {

        String key() {
            return plan == null ? noted.key : plan.key();
        }

        String title() {
            return plan == null ? noted.title : plan.title();
        }

        List<String> machines() {
            return plan == null ? List.of() : plan.machines();
        }

        String fallback() {
            return plan == null ? "" : plan.fallback();
        }

        String why() {
            return plan == null || plan.purpose() == null ? "" : plan.purpose().text();
        }

        RequestState state() {
            return noted == null ? RequestState.TO_ASK : noted.state;
        }
    }

    /** Those of the plan in its order, then those that people have added or the plan no longer asks for. */
    @Transactional
    List<KnownRequest> known(long bringUpId) {
        AskedByPlan.Asked plan = asked.of(bringUps.get(bringUpId));
        Map<String, NotedRequest> noted = db.createQuery(
                        "from NotedRequest n where n.bringUpId = :id order by n.id", NotedRequest.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .collect(Collectors.toMap(row -> row.key, row -> row, (one, other) -> one, LinkedHashMap::new));
        List<KnownRequest> all = new ArrayList<>();
        for (TeamRequest request : plan.requests()) {
            all.add(new KnownRequest(request, plan.tested(request), noted.remove(request.key())));
        }
        noted.values().forEach(row -> all.add(new KnownRequest(null, Tested.NOTHING, row)));
        return all;
    }

    @Transactional
    public RequestsView of(long bringUpId) {
        List<RequestView> views = known(bringUpId).stream().map(this::view).toList();
        return new RequestsView(
                views,
                views.stream().filter(view -> view.state().open()).count(),
                views.stream().filter(RequestView::late).count());
    }

    private RequestView view(KnownRequest known) {
        NotedRequest noted = known.noted();
        TeamRequest plan = known.plan();
        return new RequestView(
                known.key(),
                plan == null ? null : plan.sort(),
                known.title(),
                known.machines().size(),
                known.machines().stream().limit(EXAMPLES).toList(),
                known.fallback(),
                known.why(),
                plan != null || noted.own,
                known.state(),
                noted == null ? "" : noted.person,
                noted == null ? null : noted.due,
                noted != null && noted.state.open() && noted.due != null && noted.due.isBefore(today()),
                noted == null ? "" : noted.note,
                known.tested().answer(),
                known.tested().seen(),
                noted == null ? null : noted.changedBy,
                noted == null ? null : noted.changedAt,
                noted == null ? 0 : noted.version);
    }

    private LocalDate today() {
        return LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC);
    }

    /**
     * Changes all of them, or none.
     *
     * @throws Refusal 404 for a request that is not there, 412 for one that somebody has changed
     */
    @Transactional
    public void change(long bringUpId, RequestChange change, Who.Person person) {
        shapes.refuse(change);
        Optional<LocalDate> due = due(change.due());
        Map<String, KnownRequest> byKey = new HashMap<>();
        known(bringUpId).forEach(known -> byKey.put(known.key(), known));
        for (SeenRequest seen : change.requests()) {
            KnownRequest known = byKey.get(seen == null ? null : seen.key());
            if (known == null) {
                throw Refusal.notFound(RequestsText.NO_SUCH_REQUEST.said());
            }
            NotedRequest row = locked(bringUpId, seen, known, person);
            if (change.state() != null) {
                row.state = change.state();
            }
            if (change.person() != null) {
                row.person = change.person().strip();
            }
            if (change.due() != null) {
                row.due = due.orElse(null);
            }
            if (change.note() != null) {
                row.note = change.note().strip();
            }
            row.title = known.title();
            row.changedBy = person.login();
            row.changedAt = clock.instant();
            row.version = seen.version() + 1;
        }
        db.flush();
        String first = byKey.get(change.requests().get(0).key()).title();
        int others = change.requests().size() - 1;
        journal.write(
                person,
                bringUpId,
                null,
                others == 0
                        ? RequestsText.CHANGED_REQUEST.text(first, said(change))
                        : RequestsText.CHANGED_REQUESTS.text(first, others, said(change)),
                null,
                null);
        live.tell(bringUpId, "prepare");
    }

    private static Optional<LocalDate> due(String text) {
        if (text == null || text.isEmpty()) {
            return Optional.empty();
        }
        try {
            return Optional.of(LocalDate.parse(text));
        } catch (DateTimeParseException e) {
            throw Refusal.fields(List.of(new FieldFault("due", ShapeText.DAY.said())));
        }
    }

    /** The row of a request, made where there is none, and no one else's until the transaction ends. */
    private NotedRequest locked(long bringUpId, SeenRequest seen, KnownRequest known, Who.Person person) {
        if (known.noted() == null) {
            // two people may note something first at the same moment: the second one sees the row of the first
            db.createNativeMutationQuery("insert into team_request (bring_up_id, key, title, changed_by, changed_at, "
                            + "version) values (:id, :key, :title, :by, :at, 0) on conflict do nothing")
                    .setParameter("id", bringUpId)
                    .setParameter("key", seen.key())
                    .setParameter("title", known.title())
                    .setParameter("by", person.login())
                    .setParameter("at", clock.instant())
                    .executeUpdate();
        }
        NotedRequest row = db.createQuery(
                        "from NotedRequest n where n.bringUpId = :id and n.key = :key", NotedRequest.class)
                .setParameter("id", bringUpId)
                .setParameter("key", seen.key())
                .setLockMode(LockModeType.PESSIMISTIC_WRITE)
                .getSingleResult();
        db.refresh(row);
        if (row.version != seen.version()) {
            throw Refusal.outdated(
                    RequestsText.REQUEST_WAS_CHANGED.said(row.changedBy, row.title), Map.of("version", row.version));
        }
        return row;
    }

    /** What a change sets, for the journal. */
    private static String said(RequestChange change) {
        List<String> parts = new ArrayList<>();
        if (change.state() != null) {
            parts.add(change.state().word());
        }
        if (change.person() != null) {
            parts.add(
                    change.person().isBlank()
                            ? RequestsText.NO_PERSON.text()
                            : RequestsText.BY_PERSON.text(change.person().strip()));
        }
        if (change.due() != null) {
            parts.add(change.due().isEmpty() ? RequestsText.NO_DAY.text() : RequestsText.UNTIL_DAY.text(change.due()));
        }
        if (change.note() != null) {
            parts.add(RequestsText.NOTED.text(change.note().strip()));
        }
        return String.join(", ", parts);
    }

    /** Adds what the plan does not tell. */
    @Transactional
    public void add(long bringUpId, OwnRequest request, Who.Person person) {
        shapes.refuse(request);
        if (request.title() == null) {
            throw Refusal.fields(List.of(new FieldFault("title", ShapeText.REQUEST.said())));
        }
        bringUps.get(bringUpId);
        NotedRequest row = new NotedRequest();
        row.bringUpId = bringUpId;
        row.key = "OWN|" + UUID.randomUUID();
        row.title = request.title().strip();
        row.own = true;
        row.changedBy = person.login();
        row.changedAt = clock.instant();
        db.persist(row);
        db.flush();
        journal.write(person, bringUpId, null, RequestsText.ADDED_REQUEST.text(row.title), null, null);
        live.tell(bringUpId, "prepare");
    }
}
