package lychnos.core.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import lychnos.core.fact.DataSize;
import lychnos.core.image.CheckedImage;
import lychnos.core.image.CheckedImage.Contradiction;

/** An image that is not the one which was planned, or not what came with it says. */
final class ImageDiffers implements Rule {

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
                        RuleText.IMAGE_DIGEST.text(unit.name(), image.name()),
                        RuleText.IMAGE_DIGEST_WHY.text(brief(digest), brief(image.sha256())))));
        List<Contradiction> wrong = image.contradictions();
        if (!wrong.isEmpty()) {
            findings.add(Finding.blocks(
                    "image-contradicts",
                    about,
                    RuleText.IMAGE_CONTRADICTS.text(unit.name(), image.name()),
                    RuleText.IMAGE_CONTRADICTS_WHY.text(sentence(wrong.get(0)))));
        }
        unit.unitFact("image-size")
                .map(DataSize::parse)
                .filter(planned -> image.size().compareTo(planned) > 0)
                .ifPresent(planned -> findings.add(Finding.warns(
                        "image-size",
                        about,
                        RuleText.IMAGE_SIZE.text(unit.name(), image.name(), image.size(), planned),
                        RuleText.IMAGE_SIZE_WHY.text())));
    }

    private static String sentence(Contradiction wrong) {
        if (wrong instanceof Contradiction.OtherDigest digest) {
            return RuleText.IMAGE_DIGEST_DIFFERS.text(digest.file(), brief(digest.stated()), brief(digest.read()));
        }
        if (wrong instanceof Contradiction.OtherSize size) {
            return RuleText.IMAGE_SIZE_DIFFERS.text(size.file(), size.stated(), size.read());
        }
        return RuleText.IMAGE_FILE_MISSING.text(wrong.file());
    }

    private static String brief(String digest) {
        return digest.substring(0, DIGITS) + "…";
    }
}
