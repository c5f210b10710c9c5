package lychnos.server.units;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.MediaType;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;

/** Moves units to another version of their kind. */
@Path("/api")
@RolesAllowed("viewer")
public class KindMovesResource {

    private final KindMoves moves;
    private final Who who;

    KindMovesResource(KindMoves moves, Who who) {
        this.moves = moves;
        this.who = who;
    }

    /**
     * Moves every unit of a bring-up from one version of a kind to another, and tells which stay as they are and why.
     */
    @POST
    @Path("catalogue/{kind}/move")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public KindMoves.KindMoved moveAll(String kind, KindMoves.KindMoveAll move) {
        return moves.moveAll(kind, Refusal.required(move), who.person());
    }

    /** Moves a unit to another version of its kind. */
    @POST
    @Path("units/{id}/kind-version")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public void move(long id, KindMoves.KindMove move) {
        moves.move(id, Refusal.required(move), who.person());
    }
}
