package lychnos.core.proof;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.proof.Outcome.Standing;

/**
 * What the outcomes of one endpoint come to.
 *
 * @param height how many rungs hold from the lowest up; a rung that cannot be measured is stepped over, not counted
 * @param broken the first rung that does not hold, or null
 * @param sentence why not further, in one sentence; where all hold, how far that goes
 * @param press what to do next, empty where nothing is to do
 * @param proven whether every rung and mark that can be measured from here holds, identity among them
 * @param beside the first mark beside the ladder that does not hold, where the ladder does; or null
 * @param ladder whether the ladder holds as far as it can be measured from here, identity among it, whatever stands
 * beside
 */
public record Verdict(
        int height, Rung broken, String sentence, String press, boolean proven, SideMark beside, boolean ladder) {

    /** A verdict on the ladder alone. */
    public static Verdict of(List<Outcome> outcomes) {
        return of(outcomes, List.of());
    }

    /**
     * Comes to a verdict.
     *
     * @param outcomes one for each rung, in any order
     * @param beside marks beside the ladder; one that is missing was not asked for
     * @throws IllegalArgumentException if a rung is missing or there twice
     */
    public static Verdict of(List<Outcome> outcomes, List<Beside> beside) {
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
        List<String> skipped = new ArrayList<>();
        for (Rung rung : Rung.values()) {
            Outcome outcome = byRung.get(rung);
            if (outcome.standing() == Standing.HOLDS) {
                height++;
            } else if (outcome.standing() == Standing.NOT_MEASURED) {
                skipped.add(rung.title() + (outcome.seen().isEmpty() ? "" : " (" + outcome.seen() + ")"));
            } else if (outcome.standing() == Standing.BROKEN) {
                Trouble trouble = outcome.trouble();
                return new Verdict(height, rung, trouble.sentence(outcome.seen()), trouble.press(), false, null, false);
            } else {
                return new Verdict(
                        height,
                        null,
                        ProofText.NOT_CHECKED_PAST.text(lastReached(rung)),
                        ProofText.CHECK_AGAIN.text(),
                        false,
                        null,
                        false);
            }
        }
        boolean identified = byRung.get(Rung.IDENTITY).standing() == Standing.HOLDS;
        String sentence = skipped.isEmpty()
                ? ProofText.ALL_RUNGS_PASS.text()
                : ProofText.RUNGS_PASS.text(height, String.join(", ", skipped));
        Optional<Beside> off = beside.stream()
                .filter(mark -> mark.standing() == Standing.BROKEN)
                .findFirst();
        if (off.isPresent()) {
            Trouble trouble = off.get().trouble();
            return new Verdict(
                    height,
                    null,
                    trouble.sentence(off.get().seen()),
                    trouble.press(),
                    false,
                    off.get().mark(),
                    identified);
        }
        return new Verdict(height, null, sentence, "", identified, null, identified);
    }

    /** A verdict on an address that answers and no more: which machine it is, is told elsewhere. */
    public static Verdict ofAnswer(List<Outcome> outcomes, List<Beside> beside) {
        Verdict verdict = of(outcomes, beside);
        boolean answers =
                outcomes.stream().noneMatch(outcome -> outcome.standing() == Standing.BROKEN) && verdict.beside == null;
        return answers
                ? new Verdict(
                        verdict.height,
                        null,
                        verdict.height > 1 ? ProofText.PORTAL_ANSWERS.text() : ProofText.DATA_ADDRESS_ANSWERS.text(),
                        "",
                        verdict.height > 0,
                        null,
                        verdict.height > 0)
                : verdict;
    }

    /** The same, where somebody holds a change for a fault: whatever else holds, it is not proven. */
    public Verdict heldForFault(String what) {
        return proven
                ? new Verdict(
                        height,
                        broken,
                        ProofText.REJECTED.text(what),
                        ProofText.FIX_OR_ACCEPT.text(),
                        false,
                        beside,
                        ladder)
                : this;
    }

    private static String lastReached(Rung rung) {
        return rung == Rung.ANSWERS ? ProofText.START.text() : "“" + Rung.values()[rung.ordinal() - 1].title() + "”";
    }
}
