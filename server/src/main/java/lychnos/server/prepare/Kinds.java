package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import lychnos.server.LychnosConfig;
import lychnos.server.problem.Refusal;
import lychnos.server.store.Unit;

/** The kinds of equipment that are known. */
@ApplicationScoped
public class Kinds {

    private final Map<String, Kind> byId = new LinkedHashMap<>();

    Kinds(LychnosConfig config) {
        for (Kind kind : KindReader.allShipped()) {
            byId.put(
                    kind.id(),
                    config.labPort().isPresent()
                            ? kind.withPort(config.labPort().get())
                            : kind);
        }
    }

    public List<Kind> all() {
        return List.copyOf(byId.values());
    }

    /** @throws Refusal if there is none */
    public Kind get(String id) {
        Kind kind = byId.get(id);
        if (kind == null) {
            throw Refusal.bad("There is no kind “" + id + "”. Known are " + String.join(", ", byId.keySet()) + ".");
        }
        return kind;
    }

    public Kind of(Unit unit) {
        return get(unit.kind);
    }
}
