package lychnos.server.requests;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import lychnos.core.request.TeamRequest;
import lychnos.core.request.Tested;
import org.jspecify.annotations.Nullable;

/**
 * All requests of a bring-up to other teams.
 *
 * @param open how many are to ask or asked
 * @param late how many of those have a day that has passed
 */
public record RequestsView(List<RequestView> requests, long open, long late) {

    /**
     * One request.
     *
     * @param key names it in changes
     * @param sort null where a person has added it
     * @param title what is asked for
     * @param machines how many need it
     * @param examples the first of them: addresses for flows and mail, units for images and keys
     * @param fallback the port that is used where the first does not answer; empty for none
     * @param why what a flow is for; empty for the others
     * @param planned whether the plan asks for it, or a person has added it; otherwise the plan has changed since
     * @param late whether its day has passed, and it is not done
     * @param tested whether it is so, as far as that can be measured from here
     * @param seen what was measured
     * @param version 0 until somebody notes something
     */
    public record RequestView(
            String key,
            TeamRequest.@Nullable RequestSort sort,
            String title,
            int machines,
            List<String> examples,
            String fallback,
            String why,
            boolean planned,
            RequestState state,
            String person,
            @Nullable LocalDate due,
            boolean late,
            String note,
            Tested.TestedAnswer tested,
            String seen,
            @Nullable String changedBy,
            @Nullable Instant changedAt,
            int version) {}
}
