package lychnos.core.proof;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import lychnos.core.proof.Outcome.Standing;

/**
 * What the outcomes of one endpoint come to.
 *
 * @param height how many rungs hold from the lowest up; a rung that cannot be measured is stepped over, not counted
 * @param broken the first rung that does not hold, or null
 * @param sentence why not further, in one sentence; where all hold, how far that goes
 * @param press what to do next, empty where nothing is to do
 * @param proven whether every rung that can be measured from here holds, identity among them
 */
public record Verdict(int height, Rung broken, String sentence, String press, boolean proven) {

    /**
     * Comes to a verdict.
     *
     * @param outcomes one for each rung, in any order
     * @throws IllegalArgumentException if a rung is missing or there twice
     */
    public static Verdict of(List<Outcome> outcomes) {
        Map<Rung, Outcome> byRung = new EnumMap<>(Rung.class);
        for (Outcome outcome : outcomes) {
            if (byRung.put(outcome.rung(), outcome) != null) {
                throw new IllegalArgumentException(outcome.rung() + " is there twice");
            }
        }
        if (byRung.size() != Rung.values().length) {
            throw new IllegalArgumentException("a rung is missing: " + byRung.keySet());
        }
        int height = 0;
        int skipped = 0;
        for (Rung rung : Rung.values()) {
            Outcome outcome = byRung.get(rung);
            if (outcome.standing() == Standing.HOLDS) {
                height++;
            } else if (outcome.standing() == Standing.NOT_MEASURED) {
                skipped++;
            } else if (outcome.standing() == Standing.BROKEN) {
                Trouble trouble = outcome.trouble();
                return new Verdict(height, rung, trouble.sentence(outcome.seen()), trouble.press(), false);
            } else {
                return new Verdict(height, null, "Not checked past " + lastReached(rung) + ".", "Check again.", false);
            }
        }
        boolean identified = byRung.get(Rung.IDENTITY).standing() == Standing.HOLDS;
        String sentence = skipped == 0 ? "All seven rungs hold." : height + " rungs hold; " + skipped + " cannot be measured from here.";
        return new Verdict(height, null, sentence, "", identified);
    }

    private static String lastReached(Rung rung) {
        return rung == Rung.ANSWERS ? "the start" : "“" + Rung.values()[rung.ordinal() - 1].title() + "”";
    }
}
