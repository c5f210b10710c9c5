package lychnos.server.image;

import java.io.ByteArrayOutputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.function.LongConsumer;
import lychnos.core.image.CheckedImage.ReadFile;
import lychnos.core.image.ImageFormat;
import lychnos.core.text.Sha256;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;

/**
 * Reads an image file once, from its first byte to its last: its digest, its format, and of a package the digests of
 * its files, its manifest and its description. Memory does not grow with the file.
 */
final class ImageFile {

    private static final int BUFFER = 1024 * 1024;
    private static final int MOST_FILES = 1000;
    /** Of a manifest and of a description; longer ones are none. */
    private static final int MOST_TEXT = 1_000_000;

    /**
     * What was read.
     *
     * @param manifest the text of the manifest in a package, or empty
     * @param description the text of the description in a package, or empty
     */
    record ImageContent(
            long bytes, String sha256, ImageFormat format, List<ReadFile> files, String manifest, String description) {}

    /** A package that cannot be read to its end. */
    static final class BrokenPackage extends IOException {
        BrokenPackage(IOException cause) {
            super(cause);
        }
    }

    private ImageFile() {}

    /**
     * Reads a file.
     *
     * @param progress is told how many bytes were read; may throw to end the reading
     * @throws BrokenPackage if it begins like a package and is none
     */
    static ImageContent read(Path file, LongConsumer progress) throws IOException {
        try (Digested whole = new Digested(Files.newInputStream(file), progress)) {
            byte[] head = whole.peek(ImageFormat.HEAD_BYTES);
            ImageFormat format = ImageFormat.of(head);
            List<ReadFile> files = new ArrayList<>();
            String[] texts = {"", ""};
            if (format == ImageFormat.OVA) {
                try {
                    unpack(whole, files, texts);
                } catch (IOException e) {
                    throw new BrokenPackage(e);
                }
            }
            whole.toTheEnd();
            return new ImageContent(whole.count(), whole.hex(), format, files, texts[0], texts[1]);
        }
    }

    private static void unpack(InputStream whole, List<ReadFile> files, String[] texts) throws IOException {
        // not closed: the rest of the file is read after the end of the archive
        TarArchiveInputStream tar = new TarArchiveInputStream(whole, StandardCharsets.UTF_8.name());
        for (TarArchiveEntry entry = tar.getNextEntry(); entry != null; entry = tar.getNextEntry()) {
            if (!entry.isFile()) {
                continue;
            }
            if (files.size() == MOST_FILES) {
                throw new IOException("more than " + MOST_FILES + " files");
            }
            String name = entry.getName().substring(entry.getName().lastIndexOf('/') + 1);
            String lower = name.toLowerCase(Locale.ROOT);
            int text = lower.endsWith(".mf") ? 0 : lower.endsWith(".ovf") ? 1 : -1;
            ByteArrayOutputStream kept = text >= 0 && entry.getSize() <= MOST_TEXT ? new ByteArrayOutputStream() : null;
            MessageDigest digest = Sha256.begin();
            byte[] buffer = new byte[BUFFER];
            long bytes = 0;
            for (int n = tar.read(buffer); n >= 0; n = tar.read(buffer)) {
                digest.update(buffer, 0, n);
                bytes += n;
                if (kept != null) {
                    kept.write(buffer, 0, n);
                }
            }
            files.add(new ReadFile(name, bytes, HexFormat.of().formatHex(digest.digest())));
            if (kept != null && texts[text].isEmpty()) {
                texts[text] = kept.toString(StandardCharsets.UTF_8);
            }
        }
    }

    /** Counts and digests what passes. */
    private static final class Digested extends FilterInputStream {

        private final MessageDigest digest = Sha256.begin();
        private final LongConsumer progress;
        private byte[] ahead = {};
        private int aheadAt;
        private long count;

        Digested(InputStream in, LongConsumer progress) {
            super(in);
            this.progress = progress;
        }

        /** The first bytes, which are read again afterwards. */
        byte[] peek(int most) throws IOException {
            ahead = in.readNBytes(most);
            return ahead.clone();
        }

        long count() {
            return count;
        }

        String hex() {
            return HexFormat.of().formatHex(digest.digest());
        }

        void toTheEnd() throws IOException {
            byte[] buffer = new byte[BUFFER];
            while (read(buffer, 0, buffer.length) >= 0) {
                // reading is what counts
            }
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] into, int at, int most) throws IOException {
            int n;
            if (aheadAt < ahead.length) {
                n = Math.min(most, ahead.length - aheadAt);
                System.arraycopy(ahead, aheadAt, into, at, n);
                aheadAt += n;
            } else {
                n = in.read(into, at, most);
            }
            if (n > 0) {
                digest.update(into, at, n);
                count += n;
                progress.accept(count);
            }
            return n;
        }

        @Override
        public long skip(long most) throws IOException {
            byte[] buffer = new byte[(int) Math.min(BUFFER, Math.max(1, most))];
            int n = read(buffer, 0, (int) Math.min(buffer.length, most));
            return Math.max(0, n);
        }

        @Override
        public boolean markSupported() {
            return false;
        }
    }
}
