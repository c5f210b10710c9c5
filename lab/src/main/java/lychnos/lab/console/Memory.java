package lychnos.lab.console;

import java.io.IOException;
import java.io.InputStream;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Properties;
import java.util.stream.Collectors;
import lychnos.lab.WholeFile;

/**
 * What a machine keeps while it has no power. Each change is written at once, so that a stand-in that is killed comes
 * up as it was: a line is added to the file, and of several lines with one name the last one counts. An empty value is
 * none.
 */
final class Memory {

    private final Path file;
    private final Properties kept = new Properties();

    /** @param file where it is kept; null where it need not outlive the process */
    Memory(Path file) {
        this.file = file;
        if (file != null && Files.exists(file)) {
            try (InputStream input = Files.newInputStream(file)) {
                kept.load(input);
                kept.values().removeIf(value -> value.toString().isEmpty());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    /** Where something else is kept that outlives the process when this does; null where it does not. */
    Path beside(String what) {
        return file == null ? null : file.resolveSibling(file.getFileName() + "." + what);
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
        add(name, value);
    }

    synchronized void drop(String name) {
        kept.remove(name);
        add(name, "");
    }

    void add(String name) {
        put(name, String.valueOf(count(name) + 1));
    }

    /** Forgets everything but what is counted for checks from outside. */
    synchronized void forget() {
        kept.keySet().removeIf(name -> !name.toString().startsWith("seen."));
        write();
    }

    private void add(String name, String value) {
        if (file == null) {
            return;
        }
        Properties one = new Properties();
        one.setProperty(name, value);
        try {
            Files.writeString(file, text(one), StandardOpenOption.CREATE, StandardOpenOption.APPEND);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void write() {
        if (file != null) {
            WholeFile.write(file, text(kept));
        }
    }

    /** Line by line, without the date that comes first. */
    private static String text(Properties properties) {
        StringWriter text = new StringWriter();
        try {
            properties.store(text, null);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString()
                .lines()
                .filter(line -> !line.startsWith("#"))
                .map(line -> line + "\n")
                .collect(Collectors.joining());
    }
}
