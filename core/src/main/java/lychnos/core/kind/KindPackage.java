package lychnos.core.kind;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import lychnos.core.text.Sha256;

/**
 * A kind with its recordings in one file, to be used elsewhere. It is a ZIP archive with these entries: {@code format},
 * which says {@code lychnos-kind 1}; {@code kind.yaml}, the description; {@code recordings/NAME.cast}, one for each
 * recording; {@code digests}, a line for each other entry with its SHA-256 in hexadecimal, two spaces and its name.
 * Everything is text in UTF-8. Nothing in it is ever executed or written to a file.
 *
 * @param description the text of the kind
 * @param recordings by name, in asciicast version 2
 */
public record KindPackage(String description, SortedMap<String, String> recordings) {

    /** The most bytes of an archive, and of everything in it together. */
    public static final int MOST_BYTES = 10 * 1024 * 1024;

    public static final int MOST_ENTRIES = 200;

    private static final String FORMAT = "format";
    private static final String FORMAT_1 = "lychnos-kind 1\n";
    private static final String DESCRIPTION = "kind.yaml";
    private static final String DIGESTS = "digests";
    private static final String RECORDINGS = "recordings/";
    private static final String CAST = ".cast";
    private static final Pattern RECORDING = Pattern.compile("recordings/[a-z0-9][a-z0-9.-]{0,79}\\.cast");
    private static final int BUFFER = 8192;

    public KindPackage {
        recordings = java.util.Collections.unmodifiableSortedMap(new TreeMap<>(recordings));
    }

    /** A recording's name as an entry may have it. */
    public static String name(String text) {
        String plain = text.toLowerCase(java.util.Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        return plain.isEmpty() ? "recording" : plain.substring(0, Math.min(plain.length(), 60));
    }

    /** The same bytes for the same content. */
    public byte[] write() {
        SortedMap<String, String> entries = new TreeMap<>();
        entries.put(FORMAT, FORMAT_1);
        entries.put(DESCRIPTION, description);
        recordings.forEach((name, text) -> entries.put(RECORDINGS + name + CAST, text));
        StringBuilder digests = new StringBuilder();
        entries.forEach((name, text) ->
                digests.append(digest(text)).append("  ").append(name).append('\n'));
        entries.put(DIGESTS, digests.toString());
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes, StandardCharsets.UTF_8)) {
            for (Map.Entry<String, String> entry : entries.entrySet()) {
                ZipEntry header = new ZipEntry(entry.getKey());
                // the first moment that the format knows, so that equal packages are equal byte by byte
                header.setTimeLocal(java.time.LocalDateTime.of(1980, 1, 1, 0, 0));
                zip.putNextEntry(header);
                zip.write(entry.getValue().getBytes(StandardCharsets.UTF_8));
            }
        } catch (IOException e) {
            throw new UncheckedIOException("memory can be written to", e);
        }
        return bytes.toByteArray();
    }

    /**
     * Reads an archive.
     *
     * @throws IllegalArgumentException for one that is none, is too large, or holds anything else; it names the entry
     */
    public static KindPackage read(byte[] archive) {
        if (archive.length > MOST_BYTES) {
            throw new IllegalArgumentException(KindFileText.PACKAGE_TOO_LARGE.text());
        }
        SortedMap<String, String> entries = entries(archive);
        if (!FORMAT_1.strip().equals(entries.getOrDefault(FORMAT, "").strip())) {
            throw new IllegalArgumentException(KindFileText.NOT_A_PACKAGE.text());
        }
        if (!entries.containsKey(DESCRIPTION)) {
            throw new IllegalArgumentException(KindFileText.NO_DESCRIPTION.text());
        }
        compareDigests(entries);
        SortedMap<String, String> recordings = new TreeMap<>();
        entries.forEach((name, text) -> {
            if (name.startsWith(RECORDINGS)) {
                recordings.put(name.substring(RECORDINGS.length(), name.length() - CAST.length()), text);
            }
        });
        return new KindPackage(entries.get(DESCRIPTION), recordings);
    }

    private static SortedMap<String, String> entries(byte[] archive) {
        SortedMap<String, String> entries = new TreeMap<>();
        int left = MOST_BYTES;
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(archive), StandardCharsets.UTF_8)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                String name = entry.getName();
                if (!name.equals(FORMAT)
                        && !name.equals(DESCRIPTION)
                        && !name.equals(DIGESTS)
                        && !RECORDING.matcher(name).matches()) {
                    throw new IllegalArgumentException(KindFileText.UNKNOWN_ENTRY.text(shortened(name)));
                }
                if (entries.size() == MOST_ENTRIES) {
                    throw new IllegalArgumentException(KindFileText.TOO_MANY_ENTRIES.text(MOST_ENTRIES));
                }
                byte[] bytes = bounded(zip, left, name);
                left -= bytes.length;
                if (entries.put(name, text(bytes, name)) != null) {
                    throw new IllegalArgumentException(KindFileText.ENTRY_TWICE.text(name));
                }
            }
        } catch (ZipException e) {
            throw new IllegalArgumentException(KindFileText.BROKEN_ZIP.text(e.getMessage()), e);
        } catch (IOException e) {
            throw new IllegalArgumentException(KindFileText.ZIP_ENDS_EARLY.text(), e);
        }
        if (entries.isEmpty()) {
            throw new IllegalArgumentException(KindFileText.NOT_A_ZIP.text());
        }
        return entries;
    }

    /** What a header says about sizes is not relied on: bytes are counted as they come. */
    private static byte[] bounded(ZipInputStream zip, int most, String name) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        byte[] buffer = new byte[BUFFER];
        for (int read = zip.read(buffer); read >= 0; read = zip.read(buffer)) {
            if (bytes.size() + read > most) {
                throw new IllegalArgumentException(KindFileText.TOO_LARGE_UNPACKED.text(name));
            }
            bytes.write(buffer, 0, read);
        }
        return bytes.toByteArray();
    }

    private static String text(byte[] bytes, String name) {
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
        } catch (CharacterCodingException e) {
            throw new IllegalArgumentException(KindFileText.ENTRY_NOT_UTF_8.text(name), e);
        }
    }

    private static void compareDigests(SortedMap<String, String> entries) {
        Map<String, String> stated = new TreeMap<>();
        entries.getOrDefault(DIGESTS, "").lines().forEach(line -> {
            String[] parts = line.split("  ", 2);
            if (parts.length == 2) {
                stated.put(parts[1], parts[0]);
            }
        });
        entries.forEach((name, text) -> {
            if (!name.equals(DIGESTS) && !digest(text).equals(stated.get(name))) {
                throw new IllegalArgumentException(KindFileText.ENTRY_CHANGED.text(name));
            }
        });
        stated.keySet().stream()
                .filter(name -> !entries.containsKey(name))
                .findFirst()
                .ifPresent(name -> {
                    throw new IllegalArgumentException(KindFileText.ENTRY_MISSING.text(shortened(name)));
                });
    }

    private static String shortened(String name) {
        return name.length() > 80 ? name.substring(0, 80) + "…" : name;
    }

    /** SHA-256 of a text in UTF-8, in hexadecimal. */
    static String digest(String text) {
        return Sha256.hex(text);
    }
}
