package lychnos.server.account;

import io.quarkus.security.identity.SecurityIdentity;
import jakarta.enterprise.context.RequestScoped;
import jakarta.inject.Inject;

/** The person who makes the request. */
@RequestScoped
public class Who {

    /** The attribute of the security identity that holds the {@link Person}. */
    static final String ATTRIBUTE = "person";

    @Inject
    SecurityIdentity identity;

    /**
     * A signed-in person.
     *
     * @param role viewer, engineer or lead
     */
    public record Person(long id, String login, String name, String role) {}

    public Person person() {
        return identity.getAttribute(ATTRIBUTE);
    }
}
