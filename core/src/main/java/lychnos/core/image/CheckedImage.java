package lychnos.core.image;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lychnos.core.fact.DataSize;
import lychnos.core.image.Manifest.ManifestLine;
import org.jspecify.annotations.Nullable;

/**
 * An image file whose every byte was read once.
 *
 * @param name of the file
 * @param bytes its size
 * @param sha256 64 hexadecimal digits in lower case (FIPS 180-4)
 * @param files the files of a package; empty for an image that is one disk
 * @param manifest what the maker states, from the package or given with it; empty where there is none
 * @param description null where there is none
 */
public record CheckedImage(
        String name,
        long bytes,
        String sha256,
        ImageFormat format,
        List<ReadFile> files,
        List<ManifestLine> manifest,
        @Nullable ImageDescription description) {

    private static final long MEBIBYTE = 1024L * 1024;

    public CheckedImage {
        files = List.copyOf(files);
        manifest = List.copyOf(manifest);
    }

    /** A file that was read. */
    public record ReadFile(String name, long bytes, String sha256) {}

    /** A stated digest that does not hold, or of a file that is not there. */
    public sealed interface Contradiction {

        String file();

        record OtherDigest(String file, String stated, String read) implements Contradiction {}

        record OtherSize(String file, long stated, long read) implements Contradiction {}

        record FileMissing(String file) implements Contradiction {}
    }

    /** Its size in whole mebibytes, rounded up. */
    public DataSize size() {
        return new DataSize(Math.max(1, (bytes + MEBIBYTE - 1) / MEBIBYTE));
    }

    private Map<String, ReadFile> read() {
        Map<String, ReadFile> read = new HashMap<>();
        files.forEach(file -> read.put(file.name(), file));
        read.put(name, new ReadFile(name, bytes, sha256));
        return read;
    }

    /**
     * Where the file is not what its manifest and its description state, in their order. A file that a manifest names
     * is missing only inside of a package: a list that came with an image names the files beside it as well.
     */
    public List<Contradiction> contradictions() {
        Map<String, ReadFile> read = read();
        boolean ofInside = !files.isEmpty()
                && manifest.stream().noneMatch(line -> line.file().equals(name));
        List<Contradiction> wrong = new ArrayList<>();
        for (ManifestLine line : manifest) {
            ReadFile file = read.get(line.file());
            if (file == null) {
                if (ofInside) {
                    wrong.add(new Contradiction.FileMissing(line.file()));
                }
            } else if (line.comparable() && !line.digest().equals(file.sha256())) {
                wrong.add(new Contradiction.OtherDigest(line.file(), line.digest(), file.sha256()));
            }
        }
        if (description != null) {
            description.files().stream()
                    .map(stated -> of(stated, read.get(stated.name())))
                    .filter(Objects::nonNull)
                    .filter(each -> wrong.stream().noneMatch(one -> one.file().equals(each.file())))
                    .forEach(wrong::add);
        }
        return wrong;
    }

    private @Nullable Contradiction of(ImageDescription.DescribedFile stated, @Nullable ReadFile file) {
        if (file == null) {
            return files.isEmpty() ? null : new Contradiction.FileMissing(stated.name());
        }
        return stated.bytes() >= 0 && stated.bytes() != file.bytes()
                ? new Contradiction.OtherSize(stated.name(), stated.bytes(), file.bytes())
                : null;
    }

    /** Whether the manifest states a SHA-256 of the image, or of a file inside. */
    public boolean isStated() {
        Map<String, ReadFile> read = read();
        return manifest.stream().anyMatch(line -> line.comparable() && read.containsKey(line.file()));
    }
}
