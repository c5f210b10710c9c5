package lychnos.server.handover;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Verifies a pack from a command line, without a server or a database. */
public final class VerifyMain {

    private VerifyMain() {}

    /** @param args the pack */
    public static void main(String[] args) throws IOException {
        Path pack = Path.of(args[0]);
        if (!Files.isRegularFile(pack)) {
            System.err.println(pack + " is no file.");
            System.exit(2);
        }
        PackCheck.PackFault found = new PackCheck().check(pack);
        if (found.faults().isEmpty()) {
            System.out.printf(
                    "%s holds: %d files, %d records.%nmanifest %s%nchain    %s%nCompare these two with what the "
                            + "server shows, or with a pack that came another way.%n",
                    pack, found.files(), found.records(), found.manifest(), found.chain());
        } else {
            System.out.println(pack + " does not hold:");
            found.faults().forEach(fault -> System.out.println("  " + fault));
            System.exit(1);
        }
    }
}
