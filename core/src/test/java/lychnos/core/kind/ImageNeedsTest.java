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
        assertTrue(KindSummary.of(kind).toString().contains("version 5.1 or later"), () -> KindSummary.of(kind)
                .toString());
    }
}
