package lychnos.server.identity.caller;

import io.quarkus.security.identity.SecurityIdentity;
import jakarta.enterprise.context.RequestScoped;
import jakarta.inject.Inject;
import java.time.Clock;

/** The person who makes the request. */
@RequestScoped
public class Who {

    /** The attribute of the security identity that holds the {@link Person}. */
    public static final String ATTRIBUTE = "person";

    @Inject
    SecurityIdentity identity;

    @Inject
    Clock clock;

    /**
     * A signed-in person.
     *
     * @param role viewer, engineer or lead
     */
    public record Person(long id, String login, String name, String role) {}

    public Person person() {
        return identity.getAttribute(ATTRIBUTE);
    }

    /** By what the person acts. */
    public Credential credential() {
        return identity.getAttribute(Credential.ATTRIBUTE);
    }

    /** @throws lychnos.server.api.problem.Refusal 403 where a program asks and not a person who is signed in */
    public void requireSession() {
        credential().requireSession();
    }

    /**
     * @throws lychnos.server.api.problem.Refusal 403 where a program asks, or the password was not typed in the last
     * minutes
     */
    public void requireFreshPassword() {
        credential().requireFresh(clock.instant());
    }
}
