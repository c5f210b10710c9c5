package lychnos.core.kind;

import java.util.List;
import java.util.stream.Collectors;

/** A description that cannot be used, with everything that is wrong in it. */
public class KindFaults extends IllegalArgumentException {

    private final List<KindFault> faults;

    KindFaults(List<KindFault> faults) {
        super(faults.stream().map(KindFault::toString).collect(Collectors.joining("\n")));
        this.faults = List.copyOf(faults);
    }

    public List<KindFault> faults() {
        return faults;
    }
}
