package lychnos.server.handover;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import lychnos.core.export.Cabling.Cable;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.units.BringUps;
import lychnos.server.units.Facts;
import org.jspecify.annotations.Nullable;

/** The cables of a bring-up: those of the management ports, and those to console servers. */
@ApplicationScoped
public class Cables {

    private final BringUps bringUps;
    private final Facts facts;

    Cables(BringUps bringUps, Facts facts) {
        this.bringUps = bringUps;
        this.facts = facts;
    }

    /** @param only the units that are told of; null for all */
    @Transactional
    List<Cable> of(long bringUpId, @Nullable Set<Long> only) {
        List<Cable> cables = new ArrayList<>();
        facts.of(bringUps.get(bringUpId)).forEach((unit, known) -> {
            if (only == null || only.contains(unit.id)) {
                for (String member : known.kind().members().of(unit.members)) {
                    Cable cable = new Cable(
                            unit.label(),
                            member,
                            unit.kind,
                            typed(known, member, FactType.POSITION, unit.place()),
                            value(known, member, Kind.SWITCH_PORT, ""),
                            value(known, member, Kind.CABLE, ""),
                            typed(known, member, FactType.LINE, ""));
                    if (cable.known()) {
                        cables.add(cable);
                    }
                }
            }
        });
        return cables;
    }

    private static String typed(UnitFacts known, String member, FactType type, String otherwise) {
        return known.kind().facts().stream()
                .filter(fact -> fact.type() == type)
                .findFirst()
                .map(FactSpec::name)
                .map(name -> value(known, member, name, otherwise))
                .orElse(otherwise);
    }

    /** A member's value, or the one of its unit. */
    private static String value(UnitFacts known, String member, String name, String otherwise) {
        return known.fact(member, name)
                .or(() -> known.fact("", name))
                .map(Fact::value)
                .orElse(otherwise);
    }
}
