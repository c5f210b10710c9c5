package lychnos.core.rule;

/**
 * A change that fixes a finding at once.
 *
 * @param label what the button says
 * @param act what is done
 * @param id the network or unit that is changed
 * @param member the member whose fact is set, empty for the unit's own
 * @param field the fact, or the old value that is replaced
 * @param value the new value
 */
public record Fix(String label, Act act, long id, String member, String field, String value) {

    /** What can be done at once. */
    public enum Act {
        SET_FACT,
        ADD_TIME_SERVER,
        DROP_TIME_SERVER,
        CHANGE_RANGE
    }

    static Fix setFact(String label, PlannedUnit unit, String member, String fact, String value) {
        return new Fix(label, Act.SET_FACT, unit.id(), member, fact, value);
    }

    static Fix network(String label, Act act, PlannedNetwork network, String field, String value) {
        return new Fix(label, act, network.id(), "", field, value);
    }
}
