package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import lychnos.core.fact.DataSize;
import lychnos.core.image.CheckedImage;
import lychnos.core.image.CheckedImage.Contradiction;

/** An image that is not the one which was planned, or not what came with it says. */
final class ImageDiffers implements Rule {

    private static final String WHY =
            "The file is damaged or another one. Fetch it again and check it again before it is deployed.";
    /** Enough to tell two digests apart; both are shown in full with the image. */
    private static final int DIGITS = 12;

    @Override
    public List<Finding> look(Plan plan) {
        List<Finding> findings = new ArrayList<>();
        for (PlannedUnit unit : plan.asked("image")) {
            unit.unitFact("image").flatMap(plan::image).ifPresent(image -> look(unit, image, findings));
        }
        return findings;
    }

    private static void look(PlannedUnit unit, CheckedImage image, List<Finding> findings) {
        Finding.About about = Finding.About.unit(unit);
        unit.unitFact("image-digest")
                .map(digest -> digest.toLowerCase(Locale.ROOT))
                .filter(digest -> !digest.equals(image.sha256()))
                .ifPresent(digest -> findings.add(Finding.blocks(
                        "image-digest",
                        about,
                        unit.name() + ": the digest of " + image.name() + " is not the planned one",
                        "Expected " + brief(digest) + ", read " + brief(image.sha256()) + ". " + WHY)));
        List<Contradiction> wrong = image.contradictions();
        if (!wrong.isEmpty()) {
            findings.add(Finding.blocks(
                    "image-contradicts",
                    about,
                    unit.name() + ": " + image.name() + " is not what came with it states",
                    sentence(wrong.get(0)) + " " + WHY));
        }
        unit.unitFact("image-size")
                .map(DataSize::parse)
                .filter(planned -> image.size().compareTo(planned) > 0)
                .ifPresent(planned -> findings.add(Finding.warns(
                        "image-size",
                        about,
                        unit.name() + ": " + image.name() + " has " + image.size() + ", the plan says " + planned,
                        "What is planned on its host counts with the smaller figure. Correct the image size.")));
    }

    private static String sentence(Contradiction wrong) {
        if (wrong instanceof Contradiction.OtherDigest digest) {
            return digest.file() + ": the manifest states " + brief(digest.stated()) + ", read " + brief(digest.read())
                    + ".";
        }
        if (wrong instanceof Contradiction.OtherSize size) {
            return size.file() + ": the description states " + size.stated() + " bytes, there are " + size.read() + ".";
        }
        return wrong.file() + " is named in what came with it and is missing.";
    }

    private static String brief(String digest) {
        return digest.substring(0, DIGITS) + "…";
    }
}
