package lychnos.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** What the processes of a stage leave behind, and what they hold. */
final class StageHall {

    private StageHall() {}

    /** A hall that has ended leaves its interfaces behind, and these would go on answering. */
    static void unplug(Path log) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(Stage.env("HALL").split(" ")));
        command.addAll(List.of(
                "sh",
                "-c",
                "ip -o link show type macvlan | sed 's/^[0-9]*: \\([^@:]*\\).*/\\1/' | xargs -r -n1 ip link del"));
        Process gone = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile()))
                .start();
        if (!gone.waitFor(20, TimeUnit.SECONDS) || gone.exitValue() != 0) {
            throw new IllegalStateException("the hall's interfaces stay: " + Stage.text(log));
        }
    }

    /** The memory that a process holds. */
    static long residentMegabytes(Process process) throws IOException {
        String line = Files.readAllLines(Path.of("/proc", String.valueOf(process.pid()), "status")).stream()
                .filter(text -> text.startsWith("VmRSS"))
                .findFirst()
                .orElse("VmRSS: 0 kB");
        return Long.parseLong(line.replaceAll("\\D", "")) / 1024;
    }
}
