package lychnos.server.board;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import java.util.List;
import lychnos.server.database.ReadsOnly;
import lychnos.server.live.SharedViews;
import org.eclipse.microprofile.openapi.annotations.media.Content;
import org.eclipse.microprofile.openapi.annotations.media.Schema;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponse;
import org.hibernate.Session;

/** The Board, and the find box. */
@Path("/api")
@RolesAllowed("viewer")
public class BoardResource {

    private static final int MOST_FOUND = 12;

    private final Board board;
    private final SharedViews shared;
    private final Session db;

    BoardResource(Board board, SharedViews shared, Session db) {
        this.shared = shared;
        this.board = board;
        this.db = db;
    }

    /** Something that was looked for. */
    public record SearchResult(long bringUpId, String bringUp, long unitId, String name, String text) {}

    @GET
    @Path("bring-ups/{id}/board")
    @Transactional
    @ReadsOnly
    @APIResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_JSON,
                            schema = @Schema(implementation = Board.BoardView.class)))
    public Response view(
            long id,
            @QueryParam("rows") @DefaultValue("true") boolean rows,
            @Context Request request,
            @Context HttpHeaders headers) {
        return shared.of(
                "board " + id,
                id,
                request,
                headers,
                () -> board.view(id),
                rows ? "" : "course",
                view -> rows ? view : view.withoutRows());
    }

    /** Looks for a unit by name, address, serial, MAC address in any notation, or position. */
    @GET
    @Path("find")
    @Transactional
    public List<SearchResult> find(@QueryParam("q") String query) {
        String text = query == null ? "" : query.strip().toLowerCase(java.util.Locale.ROOT);
        if (text.length() < 2 || text.length() > 100) {
            return List.of();
        }
        String hex = text.replaceAll("[^0-9a-f]", "");
        boolean macLike = hex.length() >= 4 && text.matches("[0-9a-f:.-]+");
        String sql =
                "select u.bring_up_id, b.name as bring_up, u.id, coalesce(u.name, c.host_name, u.serial, u.rack || ' "
                        + "u' || u.rack_unit, 'unit ' || u.number) as name,"
                        + " concat_ws(' · ', u.serial, host(c.address), u.rack || ' u' || u.rack_unit) as text"
                        + " from unit u join bring_up b on b.id = u.bring_up_id left join claim c on c.unit_id = "
                        + "u.id and c.released_at is null and c.place = 0"
                        + " where position(:text in lower(coalesce(c.host_name || '.' || c.domain, ''))) > 0 or "
                        + "position(:text in coalesce(host(c.address), '')) > 0"
                        + " or exists (select 1 from claim d where d.unit_id = u.id and d.released_at is null and "
                        + "(position(:text in lower(d.host_name || '.' || d.domain)) > 0 or position(:text "
                        + "in host(d.address)) > 0))"
                        + " or exists (select 1 from fact f where f.unit_id = u.id and f.sealed is null and "
                        + "position(:text in lower(f.value)) > 0) or position(:text in coalesce(u.name, "
                        + "'')) > 0"
                        + " or position(:text in lower(coalesce(u.serial, ''))) > 0 or position(:text in "
                        + "lower(coalesce(u.rack || ' u' || u.rack_unit, ''))) > 0"
                        + " or (:macLike and position(:hex in replace(cast(u.mac as text), ':', '')) > 0)"
                        + " order by u.bring_up_id, u.number limit " + MOST_FOUND;
        return db.createNativeQuery(sql, Object[].class)
                .setParameter("text", text)
                .setParameter("macLike", macLike)
                .setParameter("hex", hex)
                .getResultStream()
                .map(columns -> {
                    return new SearchResult(
                            ((Number) columns[0]).longValue(),
                            (String) columns[1],
                            ((Number) columns[2]).longValue(),
                            (String) columns[3],
                            (String) columns[4]);
                })
                .toList();
    }
}
