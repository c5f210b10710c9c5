package lychnos.server.prove;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;

/** One trait of what one of a unit's addresses is for. */
@Embeddable
public record TraitKey(@Column(name = "unit_id") Long unitId, String role, String what) {}
