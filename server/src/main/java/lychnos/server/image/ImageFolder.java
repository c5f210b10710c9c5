package lychnos.server.image;

import jakarta.enterprise.context.ApplicationScoped;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.stream.Stream;
import lychnos.server.LychnosConfig;

/**
 * The folder of this server's images: files that its operator put there, and below it those that were uploaded. Nothing
 * outside of it is ever read.
 */
@ApplicationScoped
class ImageFolder {

    private static final int MOST_LISTED = 500;

    private final Path folder;
    private final Path uploads;

    ImageFolder(LychnosConfig config) {
        folder = config.images().toAbsolutePath().normalize();
        uploads = folder.resolve(".uploads");
    }

    String path() {
        return folder.toString();
    }

    /** The files that lie there, by name. */
    List<String> names() {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(file -> Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS))
                    .map(file -> file.getFileName().toString())
                    .filter(name -> !name.startsWith("."))
                    .sorted()
                    .limit(MOST_LISTED)
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Where the bytes of an image are; there may be none on this server. */
    Path file(ImageRow image) {
        return image.inFolder ? folder.resolve(image.name) : uploads.resolve(String.valueOf(image.id));
    }

    /** How many bytes of an image are here; -1 if it is not here, or is a link to somewhere else. */
    long bytes(ImageRow image) {
        Path file = file(image);
        try {
            return Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS) ? Files.size(file) : -1;
        } catch (IOException e) {
            return -1;
        }
    }

    /** Bytes that are free where uploads go. */
    long free() throws IOException {
        Files.createDirectories(uploads);
        return Files.getFileStore(uploads).getUsableSpace();
    }

    /** Writes a piece where it belongs; what lies behind it from a broken attempt is cut off. */
    void write(ImageRow image, long at, byte[] piece) throws IOException {
        Files.createDirectories(uploads);
        try (FileChannel file = FileChannel.open(file(image), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            file.truncate(at);
            ByteBuffer rest = ByteBuffer.wrap(piece);
            long place = at;
            while (rest.hasRemaining()) {
                place += file.write(rest, place);
            }
            file.force(false);
        }
    }

    void delete(ImageRow image) throws IOException {
        if (!image.inFolder) {
            Files.deleteIfExists(file(image));
        }
    }
}
