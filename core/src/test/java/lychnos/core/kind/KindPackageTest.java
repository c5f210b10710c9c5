package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

class KindPackageTest {

    private static KindPackage ofConsoleManager() {
        return new KindPackage(
                KindReader.asWritten("console-manager"),
                new TreeMap<>(Map.of(
                        "as-shipped", Recording.shippedText("console-manager").orElseThrow())));
    }

    private static byte[] zip(Map<String, byte[]> entries) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            for (Map.Entry<String, byte[]> entry : entries.entrySet()) {
                zip.putNextEntry(new ZipEntry(entry.getKey()));
                zip.write(entry.getValue());
            }
        }
        return bytes.toByteArray();
    }

    private static byte[] text(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static Map<String, byte[]> entries(String description) {
        Map<String, byte[]> entries = new LinkedHashMap<>();
        entries.put("format", text("lychnos-kind 1\n"));
        entries.put("kind.yaml", text(description));
        entries.put(
                "digests",
                text(KindPackage.digest("lychnos-kind 1\n") + "  format\n" + KindPackage.digest(description)
                        + "  kind.yaml\n"));
        return entries;
    }

    private static String refused(byte[] archive) {
        return assertThrows(IllegalArgumentException.class, () -> KindPackage.read(archive))
                .getMessage();
    }

    @Test
    void isReadAsItWasWritten() {
        assertEquals(ofConsoleManager(), KindPackage.read(ofConsoleManager().write()));
    }

    @Test
    void theSameContentGivesTheSameBytes() {
        assertArrayEquals(ofConsoleManager().write(), ofConsoleManager().write());
    }

    @Test
    void anotherProgramMayPackIt() throws IOException {
        assertEquals("text: 1\n", KindPackage.read(zip(entries("text: 1\n"))).description());
    }

    @Tag("wording")
    @Test
    void whatWasChangedIsRefusedByName() throws IOException {
        Map<String, byte[]> entries = entries("text: 1\n");
        entries.put("kind.yaml", text("text: 2\n"));
        assertTrue(refused(zip(entries)).equals(KindFileText.ENTRY_CHANGED.text("kind.yaml")));
        entries = entries("text: 1\n");
        entries.put("recordings/more.cast", text("{}"));
        assertTrue(refused(zip(entries)).equals(KindFileText.ENTRY_CHANGED.text("recordings/more.cast")));
        entries = entries("text: 1\n");
        entries.remove("kind.yaml");
        assertTrue(refused(zip(entries)).contains("kind.yaml"));
    }

    @Test
    void anythingElseInItIsRefused() throws IOException {
        for (String name : new String[] {
            "../kind.yaml",
            "recordings/../../x.cast",
            "recordings/deep/x.cast",
            "run.sh",
            "recordings/more.zip",
            "/etc/x"
        }) {
            Map<String, byte[]> entries = entries("text: 1\n");
            entries.put(name, text("x"));
            assertTrue(Texts.says(KindFileText.UNKNOWN_ENTRY, refused(zip(entries))), name);
        }
    }

    @Test
    void aPackageInAPackageIsNoText() throws IOException {
        Map<String, byte[]> entries = entries("text: 1\n");
        byte[] inner = zip(entries("text: 1\n"));
        entries.put("recordings/inner.cast", inner);
        String reason = refused(zip(entries));
        assertTrue(reason.contains("recordings/inner.cast"), reason);
    }

    @Test
    void whatUnpacksToTooMuchIsGivenUp() throws IOException {
        Map<String, byte[]> entries = entries("text: 1\n");
        entries.put("recordings/large.cast", new byte[KindPackage.MOST_BYTES + 1]);
        byte[] small = zip(entries);
        assertTrue(small.length < 100_000, "it is small as long as it is packed");
        assertTrue(refused(small).contains("recordings/large.cast"));
    }

    @Test
    void tooManyEntriesAreRefused() throws IOException {
        Map<String, byte[]> entries = entries("text: 1\n");
        for (int i = 0; i < KindPackage.MOST_ENTRIES; i++) {
            entries.put("recordings/r" + i + ".cast", text("x"));
        }
        assertTrue(refused(zip(entries)).equals(KindFileText.TOO_MANY_ENTRIES.text(200)));
    }

    @Test
    void aBrokenArchiveIsRefusedWithoutAnotherError() {
        byte[] whole = ofConsoleManager().write();
        assertTrue(Texts.says(KindFileText.NOT_A_ZIP, refused(new byte[0])));
        assertTrue(Texts.says(KindFileText.NOT_A_ZIP, refused(text("kind: x\n"))));
        Random random = new Random(7);
        for (int i = 0; i < 300; i++) {
            readsWholeOrRefuses(Arrays.copyOf(whole, random.nextInt(whole.length)));
            byte[] flipped = whole.clone();
            flipped[random.nextInt(flipped.length)] ^= (byte) (1 + random.nextInt(255));
            readsWholeOrRefuses(flipped);
        }
    }

    /** What is missing or wrong behind the last entry does not change what is in the package. */
    private static void readsWholeOrRefuses(byte[] broken) {
        try {
            assertEquals(ofConsoleManager(), KindPackage.read(broken));
        } catch (IllegalArgumentException e) {
            assertTrue(e.getMessage() != null && !e.getMessage().isBlank());
        }
    }

    @Test
    void aNameBecomesOneOfAnEntry() {
        assertEquals("ard-con-1-left-07-12", KindPackage.name("ard-con-1 left, 07:12"));
        assertEquals("recording", KindPackage.name("…"));
    }
}
