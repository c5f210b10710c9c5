package lychnos.core.image;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import lychnos.core.fact.DataSize;
import lychnos.core.image.CheckedImage.Contradiction;
import lychnos.core.image.CheckedImage.ReadFile;
import lychnos.core.image.ImageDescription.DescribedFile;
import lychnos.core.image.Manifest.ManifestLine;
import org.junit.jupiter.api.Test;

class CheckedImageTest {

    private static final String ONE = "1".repeat(64);
    private static final String TWO = "2".repeat(64);

    private static CheckedImage image(List<ManifestLine> manifest, List<DescribedFile> described) {
        return new CheckedImage(
                "ard.ova",
                3000,
                TWO,
                ImageFormat.OVA,
                List.of(new ReadFile("ard.ovf", 100, ONE), new ReadFile("disk.img", 2000, TWO)),
                manifest,
                new ImageDescription("", "", 0, null, null, List.of(), described));
    }

    @Test
    void whatHoldsContradictsNothing() {
        CheckedImage image = image(
                List.of(new ManifestLine("ard.ovf", ONE), new ManifestLine("ard.ova", TWO)),
                List.of(new DescribedFile("disk.img", 2000), new DescribedFile("ard.ovf", -1)));
        assertEquals(List.of(), image.contradictions());
        assertTrue(image.isStated());
    }

    @Test
    void eachStatementThatDoesNotHoldIsNamedOnce() {
        CheckedImage image = image(
                List.of(new ManifestLine("ard.ovf", TWO), new ManifestLine("gone.img", ONE)),
                List.of(new DescribedFile("disk.img", 1999), new DescribedFile("gone.img", 5)));
        assertEquals(
                List.of(
                        new Contradiction.OtherDigest("ard.ovf", TWO, ONE),
                        new Contradiction.FileMissing("gone.img"),
                        new Contradiction.OtherSize("disk.img", 1999, 2000)),
                image.contradictions());
    }

    /** A list of a download page names whatever can be downloaded there. */
    @Test
    void whatAListNamesBesideTheImageIsNotMissing() {
        List<ManifestLine> list = List.of(new ManifestLine("ard.ova", TWO), new ManifestLine("other.ova", ONE));
        assertEquals(List.of(), image(list, List.of()).contradictions());
        CheckedImage disk = new CheckedImage(
                "disk.img", 5, ONE, ImageFormat.RAW, List.of(), List.of(new ManifestLine("ard.ovf", TWO)), null);
        assertEquals(List.of(), disk.contradictions());
        assertFalse(disk.isStated(), "nothing is stated of the disk");
    }

    @Test
    void aDigestThatWeDoNotCalculateStatesNothing() {
        CheckedImage image = image(List.of(new ManifestLine("ard.ovf", "3".repeat(40))), List.of());
        assertEquals(List.of(), image.contradictions());
        assertFalse(image.isStated());
    }

    @Test
    void itsSizeIsRoundedUp() {
        assertEquals(new DataSize(1), image(List.of(), List.of()).size());
        assertEquals(
                new DataSize(3),
                new CheckedImage("a", 2L * 1024 * 1024 + 1, ONE, ImageFormat.RAW, List.of(), List.of(), null).size());
    }
}
