package lychnos.server.image;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Random;

/**
 * Measures how fast an image is read to its end, against {@code sha256sum} on the same file. Run with a heap of 64 MB,
 * which shows that it needs no more.
 */
final class ImagesBench {

    private static final int MEBIBYTE = 1024 * 1024;
    private static final int ROUNDS = 3;

    private ImagesBench() {}

    public static void main(String[] args) throws Exception {
        int mebibytes = Boolean.getBoolean("lychnos.bench.small") ? 4 : 3 * 1024;
        Path file = Files.createTempFile("image", ".img");
        try {
            write(file, mebibytes);
            long ours = Long.MAX_VALUE;
            long plain = Long.MAX_VALUE;
            // in turns, so that both see the same machine; the first round fills the caches
            for (int round = 0; round < ROUNDS; round++) {
                long before = System.nanoTime();
                String expected = sha256sum(file);
                plain = Math.min(plain, System.nanoTime() - before);
                before = System.nanoTime();
                String read = ImageFile.read(file, bytes -> {}).sha256();
                ours = Math.min(ours, System.nanoTime() - before);
                if (!read.equals(expected)) {
                    throw new IllegalStateException("read " + read + ", sha256sum says " + expected);
                }
            }
            System.out.printf(
                    Locale.ROOT,
                    "an image of %d MiB: %.2f s, sha256sum %.2f s: %.2f of its speed, with a heap of at most %d MB%n",
                    mebibytes,
                    ours / 1e9,
                    plain / 1e9,
                    (double) plain / ours,
                    Runtime.getRuntime().maxMemory() / MEBIBYTE);
        } finally {
            Files.delete(file);
        }
    }

    private static void write(Path file, int mebibytes) throws IOException {
        byte[] block = new byte[MEBIBYTE];
        new Random(1).nextBytes(block);
        try (OutputStream out = Files.newOutputStream(file)) {
            for (int i = 0; i < mebibytes; i++) {
                block[0] = (byte) i;
                out.write(block);
            }
        }
    }

    private static String sha256sum(Path file) throws IOException, InterruptedException {
        Process process = new ProcessBuilder("sha256sum", file.toString()).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IOException("sha256sum ended with " + process.exitValue());
        }
        return said.substring(0, said.indexOf(' ')).replace("\\", "");
    }
}
