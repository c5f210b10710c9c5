package lychnos.server.handover;

import jakarta.annotation.security.RolesAllowed;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.core.Response;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lychnos.core.record.HandoverCsv;
import lychnos.core.record.HandoverLine;
import lychnos.server.allocate.Claims;
import lychnos.server.prepare.BringUps;
import lychnos.server.prove.Checks;
import lychnos.server.store.BringUp;
import lychnos.server.store.Claim;
import lychnos.server.store.KnownCertificate;
import lychnos.server.store.Proof;
import lychnos.server.store.Unit;

/** Stage 5: what is handed over. */
@Path("/api")
@RolesAllowed("viewer")
public class HandoverResource {

    private final BringUps bringUps;
    private final Claims claims;
    private final Checks checks;
    private final Session db;

    HandoverResource(BringUps bringUps, Claims claims, Checks checks, Session db) {
        this.bringUps = bringUps;
        this.claims = claims;
        this.checks = checks;
        this.db = db;
    }

    /** The lines, and how many units are not among them. */
    public record View(String name, List<HandoverLine> lines, int units, int proven) {}

    @GET
    @Path("bring-ups/{id}/handover")
    @Transactional
    public View view(long id) {
        BringUp bringUp = bringUps.get(id);
        List<HandoverLine> lines = lines(id);
        return new View(bringUp.name, lines, bringUps.units(id).size(), (int) lines.stream().filter(line -> line.provenAt() != null).count());
    }

    @GET
    @Path("bring-ups/{id}/handover/endpoints.csv")
    @Produces("text/csv; charset=UTF-8")
    @Transactional
    public Response csv(long id) {
        String file = bringUps.get(id).name.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "") + "-endpoints.csv";
        return Response.ok(HandoverCsv.write(lines(id))).header("Content-Disposition", "attachment; filename=\"" + file + "\"").build();
    }

    private List<HandoverLine> lines(long id) {
        Map<Long, Claim> placed = claims.primaries(id);
        Map<Long, Proof> proofs = checks.proofs(id);
        Map<Long, String> certificates = db.createQuery("select k from KnownCertificate k join Unit u on u.id = k.key.unitId join Claim c on c.unitId = u.id and c.role = k.key.role where u.bringUpId = :id and c.place = 0 and c.releasedAt is null", KnownCertificate.class)
                .setParameter("id", id)
                .getResultStream()
                .collect(Collectors.toMap(known -> known.key.unitId(), known -> known.fingerprint));
        return bringUps.units(id).stream()
                .filter(unit -> placed.containsKey(unit.id))
                .map(unit -> line(unit, placed.get(unit.id), proofs.get(unit.id), certificates.get(unit.id)))
                .toList();
    }

    /** A time of proof stands only while the newest check still holds. */
    private static HandoverLine line(Unit unit, Claim claim, Proof proof, String fingerprint) {
        return new HandoverLine(
                claim.fqdn(),
                claim.address.toString(),
                unit.serial,
                unit.mac == null ? "" : unit.mac.toString(),
                fingerprint,
                proof != null && proof.proven ? proof.provenAt : null);
    }
}
