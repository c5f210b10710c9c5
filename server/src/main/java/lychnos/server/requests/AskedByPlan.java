package lychnos.server.requests;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.export.Flow;
import lychnos.core.image.CheckedImage;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Rung;
import lychnos.core.request.TeamRequest;
import lychnos.core.request.TeamRequests;
import lychnos.core.request.Tested;
import lychnos.core.service.Measured;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.handover.Inventory;
import lychnos.server.handover.Inventory.InventoryEntry;
import lychnos.server.image.Images;
import lychnos.server.prove.Proof;
import lychnos.server.site.BringUp;
import lychnos.server.site.Measures;
import lychnos.server.units.Facts;
import org.hibernate.Session;

/** Works out from the plan what other teams are asked for, and reads what was measured. */
@ApplicationScoped
class AskedByPlan {

    private final Session db;
    private final Inventory inventory;
    private final Facts facts;
    private final Images images;
    private final Measures measures;

    AskedByPlan(Session db, Inventory inventory, Facts facts, Images images, Measures measures) {
        this.db = db;
        this.inventory = inventory;
        this.facts = facts;
        this.images = images;
        this.measures = measures;
    }

    /**
     * What the plan asks for.
     *
     * @param ports by address, whether the management port of a machine answered at its last check
     */
    record Asked(List<TeamRequest> requests, List<Measured> services, Map<String, Boolean> ports) {

        Tested tested(TeamRequest request) {
            return Tested.of(request, services, ports);
        }
    }

    /** Needs a transaction. */
    Asked of(BringUp bringUp) {
        List<InventoryEntry> entries = inventory.of(bringUp.id, null);
        List<Flow> flows = inventory.flows(bringUp.id, entries);
        Map<String, UnitFacts> units = new LinkedHashMap<>();
        facts.of(bringUp).forEach((unit, known) -> units.put(unit.label(), known));
        Set<String> checked =
                images.checked(bringUp.site.id).stream().map(CheckedImage::name).collect(Collectors.toSet());
        return new Asked(
                TeamRequests.of(flows, units, checked), measures.of(bringUp.site.id), ports(bringUp.id, entries));
    }

    private Map<String, Boolean> ports(long bringUpId, List<InventoryEntry> entries) {
        Map<Long, String> addresses = entries.stream()
                .filter(entry -> entry.endpoint().port() > 0)
                .collect(Collectors.toMap(
                        InventoryEntry::claimId,
                        entry -> entry.endpoint().address().toString()));
        Map<String, Boolean> ports = new HashMap<>();
        db.createQuery("select p from Proof p join Unit u on u.id = p.unitId where u.bringUpId = :id", Proof.class)
                .setParameter("id", bringUpId)
                .getResultStream()
                .filter(proof -> addresses.containsKey(proof.claimId))
                .forEach(proof -> proof.outcomes.stream()
                        .filter(outcome -> outcome.rung() == Rung.PORT)
                        .findFirst()
                        .ifPresent(outcome ->
                                ports.put(addresses.get(proof.claimId), outcome.standing() == Outcome.Standing.HOLDS)));
        return ports;
    }
}
