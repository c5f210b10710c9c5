package lychnos.server.handover;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** Lets tests of other packages look at a pack as the command line does. */
public final class HandoverTestAccess {

    private HandoverTestAccess() {}

    /** What does not hold, in sentences. */
    public static List<String> check(Path pack) throws IOException {
        return new PackCheck().check(pack).faults();
    }
}
