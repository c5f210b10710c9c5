package lychnos.server.handover;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.Response;
import jakarta.ws.rs.core.UriInfo;
import java.net.URI;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import lychnos.core.export.Endpoint;
import lychnos.server.api.problem.Refusal;
import lychnos.server.text.HandoverText;
import lychnos.server.units.BringUps;
import org.eclipse.microprofile.openapi.annotations.parameters.Parameter;
import org.hibernate.Session;
import org.jboss.resteasy.reactive.RestQuery;

/**
 * Long lists, page by page, for programs. A page begins after the last entry of the one before, so that nothing is left
 * out or told twice while entries are added; where the next one is found stands in the header Link (RFC 8288).
 */
@Path("/api")
@RolesAllowed("viewer")
public class ListsResource {

    private static final int MOST = 1000;
    private static final String DEFAULT = "200";

    private final Session db;
    private final BringUps bringUps;
    private final Inventory inventory;

    ListsResource(Session db, BringUps bringUps, Inventory inventory) {
        this.db = db;
        this.bringUps = bringUps;
        this.inventory = inventory;
    }

    private static int most(int limit) {
        if (limit < 1 || limit > MOST) {
            throw Refusal.bad(HandoverText.PAGE_HAS_1_TO_ENTRIES.said(MOST, limit));
        }
        return limit;
    }

    /** @param next the last entry of this page; null where no other follows */
    private static Response page(List<?> entries, Long next, int limit, UriInfo uri) {
        Response.ResponseBuilder answer = Response.ok(entries);
        if (next != null) {
            URI at = uri.getRequestUriBuilder()
                    .replaceQueryParam("limit", limit)
                    .replaceQueryParam("after", next)
                    .build();
            answer.header("Link", "<" + at.getRawPath() + "?" + at.getRawQuery() + ">; rel=\"next\"");
        }
        return answer.build();
    }

    private static Long next(List<Long> ids, int limit) {
        return ids.size() < limit ? null : ids.get(ids.size() - 1);
    }

    /** An endpoint with the numbers of its unit and of its address. */
    public record EndpointEntry(long unit, long claim, Endpoint endpoint) {}

    @GET
    @Path("bring-ups/{id}/endpoints")
    @Transactional
    public Response endpoints(
            long id,
            @RestQuery @jakarta.ws.rs.DefaultValue(DEFAULT) int limit,
            @RestQuery @Parameter(description = "the last address of the page before, as its Link gives it") Long after,
            @Context UriInfo uri) {
        bringUps.get(id);
        List<Object[]> rows = db.createQuery(
                        "select c.id, c.unitId from Claim c join Unit u on u.id = c.unitId where u.bringUpId = :id "
                                + "and c.releasedAt is null and c.id > :after order by c.id",
                        Object[].class)
                .setParameter("id", id)
                .setParameter("after", after == null ? 0L : after)
                .setMaxResults(most(limit))
                .getResultList();
        List<Long> claims = rows.stream().map(row -> (Long) row[0]).toList();
        Set<Long> units = new TreeSet<>(rows.stream().map(row -> (Long) row[1]).toList());
        Set<Long> wanted = new TreeSet<>(claims);
        List<EndpointEntry> lines = inventory.of(id, units).stream()
                .filter(entry -> wanted.contains(entry.claimId()))
                .map(entry -> new EndpointEntry(entry.unitId(), entry.claimId(), entry.endpoint()))
                .sorted(java.util.Comparator.comparing(EndpointEntry::claim))
                .toList();
        return page(lines, next(claims, limit), limit, uri);
    }

    /**
     * A signed record.
     *
     * @param body canonical JSON (RFC 8785), as it was signed: its SHA-256 is the digest
     * @param endedAt null where it counts
     */
    public record SignedEntry(
            long id,
            long unit,
            String digest,
            String signedBy,
            Instant signedAt,
            Instant endedAt,
            String endedWhy,
            String body) {}

    @GET
    @Path("bring-ups/{id}/records")
    @Transactional
    public Response records(
            long id,
            @RestQuery @jakarta.ws.rs.DefaultValue(DEFAULT) int limit,
            @RestQuery Long after,
            @Context UriInfo uri) {
        bringUps.get(id);
        List<SignedEntry> records = db.createQuery(
                        "select r.id, r.unitId, r.digest, a.name, r.signedAt, r.endedAt, r.endedWhy, r.body from "
                                + "SignedRecord r join Account a on a.id = r.signedBy where r.bringUpId = :id and "
                                + "r.id > :after order by r.id",
                        Object[].class)
                .setParameter("id", id)
                .setParameter("after", after == null ? 0L : after)
                .setMaxResults(most(limit))
                .getResultStream()
                .map(row -> new SignedEntry(
                        (Long) row[0],
                        (Long) row[1],
                        (String) row[2],
                        (String) row[3],
                        (Instant) row[4],
                        (Instant) row[5],
                        (String) row[6],
                        (String) row[7]))
                .toList();
        return page(records, next(records.stream().map(SignedEntry::id).toList(), limit), limit, uri);
    }

    /** An entry of the journal. */
    public record JournalEntryView(long id, Instant at, String actor, Long unit, String act) {}

    @GET
    @Path("bring-ups/{id}/journal")
    @Transactional
    public Response journal(
            long id,
            @RestQuery @jakarta.ws.rs.DefaultValue(DEFAULT) int limit,
            @RestQuery Long after,
            @Context UriInfo uri) {
        bringUps.get(id);
        List<JournalEntryView> acts = db.createNativeQuery(
                        "select id, at, actor, unit_id, act from journal where bring_up_id = :id and id > :after "
                                + "order by id limit :most",
                        Object[].class)
                .setParameter("id", id)
                .setParameter("after", after == null ? 0L : after)
                .setParameter("most", most(limit))
                .getResultStream()
                .map(row -> new JournalEntryView(
                        (Long) row[0], (Instant) row[1], (String) row[2], (Long) row[3], (String) row[4]))
                .toList();
        return page(acts, next(acts.stream().map(JournalEntryView::id).toList(), limit), limit, uri);
    }
}
