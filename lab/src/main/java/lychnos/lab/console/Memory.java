package lychnos.lab.console;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Properties;

/** What a machine keeps while it has no power. Written at each change, so that a stand-in that is killed comes up as it was. */
final class Memory {

    private final Path file;
    private final Properties kept = new Properties();

    /** @param file where it is kept; null where it need not outlive the process */
    Memory(Path file) {
        this.file = file;
        if (file != null && Files.exists(file)) {
            try (InputStream input = Files.newInputStream(file)) {
                kept.load(input);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    synchronized String get(String name) {
        return kept.getProperty(name, "");
    }

    synchronized boolean has(String name) {
        return kept.containsKey(name);
    }

    synchronized int count(String name) {
        return Integer.parseInt(kept.getProperty(name, "0"));
    }

    synchronized void put(String name, String value) {
        kept.setProperty(name, value);
        write();
    }

    synchronized void drop(String name) {
        kept.remove(name);
        write();
    }

    void add(String name) {
        put(name, String.valueOf(count(name) + 1));
    }

    /** Forgets everything but what is counted for whoever looks from outside. */
    synchronized void forget() {
        kept.keySet().removeIf(name -> !name.toString().startsWith("seen."));
        write();
    }

    private void write() {
        if (file == null) {
            return;
        }
        try {
            Path half = file.resolveSibling(file.getFileName() + ".half");
            try (Writer writer = Files.newBufferedWriter(half)) {
                kept.store(writer, null);
            }
            Files.move(half, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
