package lychnos.core.image;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ImageFormatTest {

    @ParameterizedTest
    @CsvSource({
        "OVA, 257, ustar",
        "VMDK, 0, KDMV",
        "VHDX, 0, vhdxfile",
        "ISO, 32769, CD001",
        "QCOW2, 0, QFI\u00fb",
        "RAW, 510, U\u00aa"
    })
    void isToldByItsFirstBytes(ImageFormat format, int at, String mark) {
        byte[] head = new byte[ImageFormat.HEAD_BYTES];
        byte[] bytes = mark.getBytes(StandardCharsets.ISO_8859_1);
        System.arraycopy(bytes, 0, head, at, bytes.length);
        assertEquals(format, ImageFormat.of(head));
        head[at] ^= 1;
        assertEquals(ImageFormat.UNKNOWN, ImageFormat.of(head), "one bit is another format");
    }

    @Test
    void aFileThatIsShorterThanItsMarkIsUnknown() {
        assertEquals(ImageFormat.UNKNOWN, ImageFormat.of(new byte[0]));
        assertEquals(ImageFormat.UNKNOWN, ImageFormat.of(new byte[] {'K', 'D', 'M'}));
        assertEquals(ImageFormat.VMDK, ImageFormat.of(new byte[] {'K', 'D', 'M', 'V'}));
    }

    @Test
    void isNamedByItsWordInAnyCase() {
        assertEquals(Optional.of(ImageFormat.QCOW2), ImageFormat.named(" QCow2 "));
        assertTrue(ImageFormat.named("disk").isEmpty());
        assertTrue(ImageFormat.named("unknown").isEmpty());
    }
}
