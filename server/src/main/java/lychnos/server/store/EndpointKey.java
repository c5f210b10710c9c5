package lychnos.server.store;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;

/** An endpoint: one of a unit's addresses, told by what it is for. */
@Embeddable
public record EndpointKey(@Column(name = "unit_id") Long unitId, String role) {}
