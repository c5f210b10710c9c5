package lychnos.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;

/**
 * The machines of the demo hall's row B, with other quirks where a journey wants them, and the network they stand in.
 */
final class Machines {

    private Machines() {}

    static List<String> rowB() throws IOException {
        List<String> lines = Files.readAllLines(Path.of("../lab/halls/demo.txt")).stream()
                .filter(line -> !line.startsWith("#") && line.contains("10.40.9."))
                .toList();
        if (lines.size() != 12) {
            throw new IOException("the demo hall's row B has 12 machines, not " + lines.size());
        }
        return lines;
    }

    static String hallFile(List<String> lines) {
        return lines.stream().collect(Collectors.joining("\n", "", "\n"));
    }

    static List<String> serials() throws IOException {
        return rowB().stream().map(line -> line.split("\t")[0]).toList();
    }

    static Path labels() {
        return Path.of("../lab/labels/hall-2-row-b.csv");
    }
}
