package lychnos.server.prove;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;

/** What one of a unit's addresses is for; of both families, where it has both. */
@Embeddable
public record EndpointKey(@Column(name = "unit_id") Long unitId, String role) {}
