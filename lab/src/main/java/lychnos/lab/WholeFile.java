package lychnos.lab;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/**
 * Writes a text file that is never seen half written: neither by who reads it meanwhile, nor after the stand-in was
 * killed.
 */
public final class WholeFile {

    private WholeFile() {}

    /** @throws UncheckedIOException if it cannot be written; what was there before is there still */
    public static void write(Path file, String text) {
        Path half = file.resolveSibling(file.getFileName() + ".half");
        try {
            Files.writeString(half, text);
            Files.move(half, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
