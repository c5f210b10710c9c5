package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import lychnos.core.image.ImageFormat;
import org.junit.jupiter.api.Test;

class ImageNeedsTest {

    @Test
    void aKindSaysWhatItsImageMustBe() {
        Kind kind = KindReader.shipped("access-appliance");
        assertEquals(
                new Kind.ImageNeeds(List.of(ImageFormat.OVA), "5.1", "8"),
                kind.machine().orElseThrow().image());
        assertTrue(
                KindSummary.of(kind).toString().contains(KindSummaryText.IMAGE_VERSION.text("5.1")),
                () -> KindSummary.of(kind).toString());
    }
}
