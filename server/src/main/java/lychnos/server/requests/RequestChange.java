package lychnos.server.requests;

import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What is changed of one request or of several at once. A field that is null stays as it is.
 *
 * @param requests which, as they were seen
 * @param person who takes care of it; empty for nobody
 * @param due the day (ISO 8601); empty for none
 */
public record RequestChange(
        @NotEmpty(message = "REQUESTS") @Size(max = 1000, message = "REQUESTS") List<SeenRequest> requests,
        @Nullable RequestState state,
        @Nullable @Size(max = 80, message = "PERSON") @Pattern(regexp = "[^\\p{Cntrl}]*", message = "PERSON")
                String person,
        @Nullable @Pattern(regexp = "|\\d{4}-\\d{2}-\\d{2}", message = "DAY") String due,
        @Nullable @Size(max = 400, message = "NOTE") String note) {

    /**
     * A request as somebody saw it.
     *
     * @param version the number that was read with it
     */
    public record SeenRequest(String key, int version) {}

    /** A request that the plan does not tell. */
    public record OwnRequest(
            @Nullable
                    @Pattern(regexp = "[^\\p{Cntrl}]*\\S[^\\p{Cntrl}]*", message = "REQUEST")
                    @Size(min = 1, max = 200, message = "REQUEST")
                    String title) {}
}
