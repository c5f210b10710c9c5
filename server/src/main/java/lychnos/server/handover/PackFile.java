package lychnos.server.handover;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.time.LocalDateTime;
import java.util.HexFormat;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import lychnos.core.record.CanonicalJson;
import lychnos.core.text.Sha256;

/**
 * A pack: a ZIP file in which nothing is left to chance, so that it can be made again byte by byte from what it holds.
 * Entries are sorted, stored and of one time; {@code manifest.json} comes last and has the digest of every other one.
 */
final class PackFile {

    static final String MANIFEST = "manifest.json";
    private static final String FORMAT = "lychnos pack 1";
    private static final LocalDateTime NEVER = LocalDateTime.of(1980, 1, 1, 0, 0);

    private PackFile() {}

    /**
     * Writes one.
     *
     * @param files by the name in the pack, where the bytes lie; names have no manifest among them
     * @param chain the digest of the chain's last link
     * @return digest of the manifest
     */
    static String write(OutputStream out, SortedMap<String, Path> files, String chain) throws IOException {
        Map<String, Object> digests = new TreeMap<>();
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            for (Map.Entry<String, Path> each : files.entrySet()) {
                digests.put(each.getKey(), put(zip, each.getKey(), each.getValue()));
            }
            byte[] manifest = manifest(digests, chain);
            ZipEntry last = entry(MANIFEST, manifest.length);
            CRC32 crc = new CRC32();
            crc.update(manifest);
            last.setCrc(crc.getValue());
            zip.putNextEntry(last);
            zip.write(manifest);
            return Sha256.hex(manifest);
        }
    }

    /** What stands in the manifest: its canonical form, and no byte besides. */
    static byte[] manifest(Map<String, Object> digests, String chain) {
        return CanonicalJson.write(Map.of("format", FORMAT, "files", digests, "chain", chain))
                .getBytes(StandardCharsets.UTF_8);
    }

    private static ZipEntry entry(String name, long size) {
        ZipEntry entry = new ZipEntry(name);
        entry.setMethod(ZipEntry.STORED);
        entry.setSize(size);
        entry.setCompressedSize(size);
        entry.setTimeLocal(NEVER);
        return entry;
    }

    private static String put(ZipOutputStream zip, String name, Path file) throws IOException {
        ZipEntry entry = entry(name, Files.size(file));
        MessageDigest digest = Sha256.begin();
        entry.setCrc(crc(file, digest));
        zip.putNextEntry(entry);
        Files.copy(file, zip);
        zip.closeEntry();
        return HexFormat.of().formatHex(digest.digest());
    }

    private static long crc(Path file, MessageDigest digest) throws IOException {
        CRC32 crc = new CRC32();
        byte[] buffer = new byte[1 << 16];
        try (InputStream in = new DigestInputStream(new BufferedInputStream(Files.newInputStream(file)), digest)) {
            for (int count = in.read(buffer); count >= 0; count = in.read(buffer)) {
                crc.update(buffer, 0, count);
            }
        }
        return crc.getValue();
    }
}
