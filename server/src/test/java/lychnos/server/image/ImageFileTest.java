package lychnos.server.image;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;
import lychnos.core.image.CheckedImage.ReadFile;
import lychnos.core.image.ImageFormat;
import lychnos.server.image.ImageFile.ImageContent;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ImageFileTest {

    @TempDir
    Path folder;

    static String sha256(byte[] bytes) throws Exception {
        return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
    }

    static byte[] tar(Map<String, byte[]> files) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(out)) {
            for (Map.Entry<String, byte[]> file : files.entrySet()) {
                TarArchiveEntry entry = new TarArchiveEntry(file.getKey());
                entry.setSize(file.getValue().length);
                tar.putArchiveEntry(entry);
                tar.write(file.getValue());
                tar.closeArchiveEntry();
            }
        }
        return out.toByteArray();
    }

    private ImageContent read(byte[] bytes) throws IOException {
        Path file = folder.resolve("image");
        Files.write(file, bytes);
        return ImageFile.read(file, read -> {});
    }

    @Test
    void aDiskIsReadToItsLastByte() throws Exception {
        for (int size : List.of(1, 511, 512, 40_000, 3 * 1024 * 1024 + 17)) {
            byte[] bytes = new byte[size];
            new Random(size).nextBytes(bytes);
            ImageContent content = read(bytes);
            assertEquals(size, content.bytes());
            assertEquals(sha256(bytes), content.sha256());
            assertEquals(List.of(), content.files());
        }
    }

    @Test
    void eachFileOfAPackageHasADigestOfItsOwn() throws Exception {
        byte[] disk = new byte[2 * 1024 * 1024 + 5];
        new Random(7).nextBytes(disk);
        byte[] ovf = "<Envelope/>".getBytes(StandardCharsets.UTF_8);
        byte[] manifest = ("SHA256(disk.img)= " + sha256(disk)).getBytes(StandardCharsets.UTF_8);
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("ard.ovf", ovf);
        files.put("ard.mf", manifest);
        files.put("disk.img", disk);
        byte[] whole = tar(files);
        ImageContent content = read(whole);
        assertEquals(ImageFormat.OVA, content.format());
        assertEquals(sha256(whole), content.sha256(), "what stands behind the last entry counts");
        assertEquals(whole.length, content.bytes());
        assertEquals(
                List.of(
                        new ReadFile("ard.ovf", ovf.length, sha256(ovf)),
                        new ReadFile("ard.mf", manifest.length, sha256(manifest)),
                        new ReadFile("disk.img", disk.length, sha256(disk))),
                content.files());
        assertEquals("<Envelope/>", content.description());
        assertTrue(content.manifest().startsWith("SHA256(disk.img)"));
    }

    /** Whatever is cut off or turned over: it is read to its end, or it is a broken package, and nothing else. */
    @Test
    void aDamagedPackageIsToldFromADiskThatCannotBeRead() throws Exception {
        byte[] whole = tar(Map.of("disk.img", new byte[5000]));
        assertThrows(ImageFile.BrokenPackage.class, () -> read(Arrays.copyOf(whole, 3000)));
        Random random = new Random(20261130);
        int broken = 0;
        for (int i = 0; i < 300; i++) {
            byte[] damaged = whole.clone();
            damaged[random.nextInt(512)] ^= (byte) (1 << random.nextInt(8));
            try {
                assertEquals(sha256(damaged), read(damaged).sha256());
            } catch (ImageFile.BrokenPackage e) {
                broken++;
            }
        }
        assertTrue(broken > 0, "some are told");
    }

    /** It compares each digest with that of another program. */
    @Test
    void theBenchCanBeRun() throws Exception {
        System.setProperty("lychnos.bench.small", "true");
        try {
            ImagesBench.main(new String[0]);
        } finally {
            System.clearProperty("lychnos.bench.small");
        }
    }

    @Test
    void progressIsToldAndMayEndIt() throws Exception {
        AtomicLong last = new AtomicLong();
        Path file = folder.resolve("large");
        Files.write(file, new byte[5 * 1024 * 1024]);
        ImageFile.read(file, last::set);
        assertEquals(5 * 1024 * 1024, last.get());
        assertThrows(
                IllegalStateException.class,
                () -> ImageFile.read(file, bytes -> {
                    throw new IllegalStateException("removed");
                }));
    }
}
