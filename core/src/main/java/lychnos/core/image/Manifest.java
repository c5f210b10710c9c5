package lychnos.core.image;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The digests that a maker states for the files of an image. Two forms are read: {@code SHA256(name)= digest} (DMTF
 * DSP0243, section 5.1, also with spaces), and {@code digest  name}, as checksum programs write it.
 *
 * @param lines in the order of the text, at least one
 */
public record Manifest(List<ManifestLine> lines) {

    private static final int MOST_LINES = 1000;
    private static final Pattern NAMED = Pattern.compile(
            "([A-Za-z0-9-]{3,12})\\s*\\((?<name>[^)]{1,255})\\)\\s*=\\s*(?<digest>[0-9A-Fa-f]{32,128})");
    private static final Pattern LISTED = Pattern.compile("(?<digest>[0-9A-Fa-f]{32,128})\\s+\\*?(?<name>\\S.{0,254})");
    private static final int SHA_256_DIGITS = 64;

    public Manifest {
        lines = List.copyOf(lines);
    }

    /**
     * What is stated of one file.
     *
     * @param file its name without folders
     * @param digest hexadecimal digits in lower case
     */
    public record ManifestLine(String file, String digest) {

        /** Whether it is a digest that we calculate; older makers state SHA-1, which proves little. */
        public boolean comparable() {
            return digest.length() == SHA_256_DIGITS;
        }
    }

    /**
     * Reads a manifest; lines that state no digest, such as comments, are passed over.
     *
     * @throws IllegalArgumentException with a sentence, if no line states a digest
     */
    public static Manifest parse(String text) {
        List<ManifestLine> lines = new ArrayList<>();
        text.lines().limit(MOST_LINES).map(String::strip).forEach(line -> read(line)
                .ifPresent(lines::add));
        if (lines.isEmpty()) {
            throw new IllegalArgumentException(ImageText.MANIFEST_EMPTY.text());
        }
        return new Manifest(lines);
    }

    private static Optional<ManifestLine> read(String line) {
        for (Pattern form : List.of(NAMED, LISTED)) {
            Matcher matcher = form.matcher(line);
            if (matcher.matches()) {
                String name = matcher.group("name").strip();
                return Optional.of(new ManifestLine(
                        name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1),
                        matcher.group("digest").toLowerCase(Locale.ROOT)));
            }
        }
        return Optional.empty();
    }
}
