package lychnos.core.rule;

import org.jspecify.annotations.Nullable;

/**
 * Something that would go wrong.
 *
 * @param code a short fixed word for the finding
 * @param blocks whether the work must not go on before it is fixed
 * @param what what is wrong, in one sentence
 * @param why why it matters, and how to fix it
 * @param about which network or unit it is about
 * @param fix what would fix it at once, or null where only a person can
 */
public record Finding(String code, boolean blocks, String what, String why, About about, @Nullable Fix fix) {

    /**
     * What a finding is about; each id is null where it is about no such thing.
     */
    public record About(@Nullable Long networkId, @Nullable Long unitId) {

        public static final About SITE = new About(null, null);

        static About network(PlannedNetwork network) {
            return new About(network.id(), null);
        }

        static About unit(PlannedUnit unit) {
            return new About(null, unit.id());
        }
    }

    static Finding blocks(String code, About about, String what, String why) {
        return new Finding(code, true, what, why, about, null);
    }

    static Finding warns(String code, About about, String what, String why) {
        return new Finding(code, false, what, why, about, null);
    }

    Finding fixedBy(Fix with) {
        return new Finding(code, blocks, what, why, about, with);
    }
}
