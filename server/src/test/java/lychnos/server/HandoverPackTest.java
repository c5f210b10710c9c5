package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import lychnos.server.handover.HandoverTestAccess;
import lychnos.server.text.HandoverText;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The pack of a hand-over. */
@QuarkusTest
class HandoverPackTest extends HandoverStage {

    private static Map<String, byte[]> entries(byte[] pack) throws IOException {
        Map<String, byte[]> entries = new LinkedHashMap<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(pack))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                entries.put(entry.getName(), zip.readAllBytes());
            }
        }
        return entries;
    }

    private List<String> faults(byte[] pack) throws IOException {
        return HandoverTestAccess.check(Files.write(directory.resolve("pack.zip"), pack));
    }

    @Test
    void oneByteChangedAnywhereInAPackIsCaught() throws IOException {
        client.post("/api/bring-ups/" + id + "/packs", Map.of()).statusCode(409);
        sign().statusCode(200);
        byte[] pack = pack("a4");
        assertEquals(List.of(), faults(pack));
        Map<String, byte[]> entries = entries(pack);
        assertTrue(
                entries.keySet()
                        .containsAll(List.of(
                                "cabling.csv",
                                "certificates.pem",
                                "endpoints.csv",
                                "flows.csv",
                                "hosts",
                                "inventory.yaml",
                                "known_hosts",
                                "manifest.json",
                                "pack.pdf",
                                "records.json",
                                "records.schema.json",
                                "reservations.json",
                                "targets.json")),
                entries.keySet()::toString);
        // one in each file, and every hundredth of the whole
        entries.forEach((name, bytes) -> {
            if (bytes.length > 0) {
                int at = indexOf(pack, bytes);
                assertTrue(at > 0, name);
                changed(pack, at + bytes.length / 2, name);
            }
        });
        for (int at = 0; at < pack.length; at += Math.max(1, pack.length / 100)) {
            changed(pack, at, "byte " + at);
        }
        assertFalse(faults(java.util.Arrays.copyOf(pack, pack.length - 30)).isEmpty(), "cut off");
        assertTrue(verify().getList("breaks").isEmpty());
    }

    private void changed(byte[] pack, int at, String what) {
        byte[] other = pack.clone();
        other[at] ^= 1;
        try {
            assertFalse(faults(other).isEmpty(), what);
        } catch (IOException e) {
            // it cannot even be read
        }
    }

    private static int indexOf(byte[] all, byte[] part) {
        for (int at = 0; at <= all.length - part.length; at++) {
            if (java.util.Arrays.equals(all, at, at + part.length, part, 0, part.length)) {
                return at;
            }
        }
        return -1;
    }

    @Tag("wording")
    @Test
    void thePdfIsTaggedAndReadsLikeThePage() throws IOException {
        sign().statusCode(200);
        for (String paper : List.of("a4", "letter")) {
            try (PDDocument pdf = Loader.loadPDF(entries(pack(paper)).get("pack.pdf"))) {
                assertTrue(pdf.getDocumentCatalog().getMarkInfo().isMarked());
                assertEquals("en", pdf.getDocumentCatalog().getLanguage());
                assertEquals(
                        paper.equals("a4") ? 842 : 792,
                        Math.round(pdf.getPage(0).getMediaBox().getHeight()));
                String text = new PDFTextStripper().getText(pdf);
                assertTrue(
                        text.contains(serial())
                                && text.contains(at(101))
                                && text.contains(HandoverText.UNITS_SIGNED.text("1"))
                                && text.contains("Signed by"),
                        text);
                assertFalse(pdf.getPage(0).getAnnotations().isEmpty(), "links inside");
            }
        }
    }
}
