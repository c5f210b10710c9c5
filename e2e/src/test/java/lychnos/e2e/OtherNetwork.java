package lychnos.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;

/** A network namespace beside the one of the tests, with nothing in it yet. */
final class OtherNetwork implements AutoCloseable {

    private final Process holder;

    OtherNetwork() throws IOException {
        holder = new ProcessBuilder("unshare", "--net", "sleep", "infinity").start();
        Path own = Path.of("/proc/self/ns/net");
        Path its = Path.of("/proc", String.valueOf(holder.pid()), "ns", "net");
        Stage.until("the other network is there", Duration.ofSeconds(10), () -> {
            try {
                return !Files.readSymbolicLink(its).equals(Files.readSymbolicLink(own));
            } catch (IOException e) {
                return false;
            }
        });
    }

    /** The process that keeps it there. */
    long pid() {
        return holder.pid();
    }

    /** What a command begins with that is to run there. */
    String inside() {
        return "nsenter --target " + holder.pid() + " --net";
    }

    @Override
    public void close() throws InterruptedException {
        holder.destroyForcibly().waitFor();
    }
}
