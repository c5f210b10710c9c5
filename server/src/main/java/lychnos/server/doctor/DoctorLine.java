package lychnos.server.doctor;

import lychnos.core.text.Message;
import org.jspecify.annotations.Nullable;

/**
 * One thing that was looked at.
 *
 * @param code of what was found
 * @param text what was found
 * @param advice what to do; null where it is good
 */
public record DoctorLine(String code, DoctorState state, String text, @Nullable String advice) {

    static DoctorLine good(Message found, Object... values) {
        return new DoctorLine(found.name(), DoctorState.GOOD, found.text(values), null);
    }

    /** What was found, with what to do about it still to be said. */
    static Found look(Message found, Object... values) {
        return new Found(found.name(), DoctorState.LOOK, found.text(values));
    }

    static Found bad(Message found, Object... values) {
        return new Found(found.name(), DoctorState.BAD, found.text(values));
    }

    /** What is not as it should be. */
    record Found(String code, DoctorState state, String text) {

        DoctorLine advised(Message advice, Object... values) {
            return new DoctorLine(code, state, text, advice.text(values));
        }
    }
}
