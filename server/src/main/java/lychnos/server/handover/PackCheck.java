package lychnos.server.handover;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import lychnos.core.record.CanonicalJson;
import lychnos.core.record.Chain;
import lychnos.core.text.Sha256;
import lychnos.server.text.HandoverText;

/**
 * Looks whether a pack is as it was made, without a server: every file, every record, the chain, and the pack itself
 * byte by byte.
 */
final class PackCheck {

    private static final long LARGEST = 2_000_000_000;
    private static final TypeReference<Map<String, Object>> MAP = new TypeReference<>() {};

    private final ObjectMapper json = new ObjectMapper();
    private final List<String> faults = new ArrayList<>();
    private int records;
    private String last = "";

    /** What was found: faults in sentences, none where it holds. */
    record PackFault(List<String> faults, int files, int records, String manifest, String chain) {}

    /** @throws IOException where the file cannot be read at all */
    PackFault check(Path pack) throws IOException {
        Path directory = Files.createTempDirectory("lychnos-verify");
        SortedMap<String, Path> files = new TreeMap<>();
        try {
            unpack(pack, directory, files);
            Path manifest = files.remove(PackFile.MANIFEST);
            if (manifest == null) {
                faults.add(HandoverText.PACK_HAS_NO_MANIFEST_JSON.text());
                return new PackFault(faults, files.size(), 0, "", "");
            }
            manifest(manifest, files);
            if (files.containsKey(Packs.RECORDS)) {
                records(files.get(Packs.RECORDS), files);
            } else {
                faults.add(HandoverText.PACK_LACKS.text(Packs.RECORDS));
            }
            if (faults.isEmpty() && !same(pack, files)) {
                faults.add(HandoverText.ZIP_FILE_WAS_CHANGED_OUTSIDE.text());
            }
            return new PackFault(faults, files.size(), records, Sha256.hex(Files.readAllBytes(manifest)), last);
        } finally {
            // what was broken off in the middle is among no files
            try (Stream<Path> left = Files.list(directory)) {
                for (Path each : left.toList()) {
                    Files.delete(each);
                }
            }
            Files.delete(directory);
        }
    }

    private void unpack(Path pack, Path directory, SortedMap<String, Path> files) throws IOException {
        long total = 0;
        try (InputStream in = Files.newInputStream(pack);
                ZipInputStream zip = new ZipInputStream(in)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                Path to = directory.resolve(
                        entry.getName().equals(PackFile.MANIFEST) ? "manifest" : String.valueOf(files.size()));
                total += Files.copy(zip, to);
                files.put(entry.getName(), to);
                if (total > LARGEST) {
                    throw new IOException("it holds more than " + LARGEST + " bytes");
                }
            }
        } catch (java.util.zip.ZipException
                | java.io.EOFException
                | IllegalArgumentException
                | java.nio.file.FileAlreadyExistsException e) {
            faults.add(HandoverText.PACK_CANNOT_BE_READ_TO_ITS_END.text(e.getMessage()));
        }
    }

    private void manifest(Path file, SortedMap<String, Path> files) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        Map<String, Object> manifest;
        try {
            manifest = json.readValue(bytes, MAP);
        } catch (IOException e) {
            faults.add(HandoverText.MANIFEST_JSON_IS_NO_JSON.text());
            return;
        }
        if (!(manifest.get("files") instanceof Map<?, ?> digests) || !(manifest.get("chain") instanceof String chain)) {
            faults.add(HandoverText.MANIFEST_JSON_IS_NOT_THAT_OF_A_PACK.text());
            return;
        }
        last = chain;
        Map<String, Object> named = new TreeMap<>();
        digests.forEach((name, digest) -> named.put(String.valueOf(name), digest));
        if (!java.util.Arrays.equals(bytes, PackFile.manifest(named, chain))) {
            faults.add(HandoverText.MANIFEST_JSON_IS_NOT_IN_THE_FORM.text());
        }
        Set<String> all = new HashSet<>(named.keySet());
        all.addAll(files.keySet());
        for (String name : new java.util.TreeSet<>(all)) {
            if (!files.containsKey(name)) {
                faults.add(HandoverText.IS_MISSING.text(name));
            } else if (!named.containsKey(name)) {
                faults.add(HandoverText.IS_NOT_IN_THE_MANIFEST.text(name));
            } else if (!Sha256.hex(Files.readAllBytes(files.get(name))).equals(named.get(name))) {
                faults.add(HandoverText.IS_NOT_AS_IT_WAS_MADE.text(name));
            }
        }
    }

    private void records(Path file, SortedMap<String, Path> files) throws IOException {
        Map<String, Object> whole;
        try {
            whole = json.readValue(Files.readAllBytes(file), MAP);
        } catch (IOException e) {
            faults.add(HandoverText.IS_NO_JSON.text(Packs.RECORDS));
            return;
        }
        List<Chain.Link> links = new ArrayList<>();
        Set<String> chained = new HashSet<>();
        for (Map<String, Object> each : maps(whole.get("chain"))) {
            links.add(new Chain.Link(
                    each.get("number") instanceof Number number ? number.longValue() : 0,
                    text(each, "sort"),
                    text(each, "body"),
                    text(each, "previous"),
                    text(each, "digest")));
            if (text(each, "sort").equals("record")) {
                chained.add(text(each, "body"));
            }
        }
        Chain.broken(links)
                .ifPresent(broken -> faults.add(HandoverText.CHAIN_BREAKS_AT_LINK.text(broken.number(), broken.why())));
        if (links.isEmpty() || !links.get(links.size() - 1).digest().equals(last)) {
            faults.add(HandoverText.CHAIN_DOES_NOT_END_AS_THE_MANIFEST_SAYS.text());
        }
        for (Map<String, Object> each : maps(whole.get("records"))) {
            records++;
            Map<String, Object> body = each.get("body") instanceof Map<?, ?> map
                    ? new LinkedHashMap<>(json.convertValue(map, MAP))
                    : Map.of();
            String unit = text(body, "unit");
            String digest;
            try {
                digest = CanonicalJson.digest(body);
            } catch (IllegalArgumentException e) {
                digest = "";
            }
            if (!digest.equals(text(each, "digest"))) {
                faults.add(HandoverText.RECORD_OF_IS_NOT_AS_IT_WAS_SIGNED.text(unit));
            } else if (!chained.contains(digest)) {
                faults.add(HandoverText.RECORD_OF_IS_NOT_IN_THE_CHAIN.text(unit));
            }
            for (Map<String, Object> recording : maps(body.get("recordings"))) {
                Path cast = files.get("recordings/" + text(recording, "file"));
                if (cast == null || !Sha256.hex(Files.readAllBytes(cast)).equals(text(recording, "sha256"))) {
                    faults.add(
                            HandoverText.RECORDING_IS_NOT_THE_ONE_THAT_WAS_SIGNED.text(text(recording, "file"), unit));
                }
            }
        }
    }

    private List<Map<String, Object>> maps(Object list) {
        List<Map<String, Object>> maps = new ArrayList<>();
        if (list instanceof List<?> all) {
            all.forEach(each -> maps.add(each instanceof Map<?, ?> map ? json.convertValue(map, MAP) : Map.of()));
        }
        return maps;
    }

    private static String text(Map<String, Object> of, String name) {
        Object value = of.get(name);
        return value == null ? "" : value.toString();
    }

    /** Made again from what it holds, it must be the same file. */
    private boolean same(Path pack, SortedMap<String, Path> files) throws IOException {
        Path again = Files.createTempFile("lychnos-verify", ".zip");
        try {
            try (var out = Files.newOutputStream(again)) {
                PackFile.write(out, files, last);
            }
            return Files.mismatch(pack, again) < 0;
        } finally {
            Files.delete(again);
        }
    }
}
